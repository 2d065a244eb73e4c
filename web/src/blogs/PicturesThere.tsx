import { type Blog, ChangedBlog } from '@grivo/contract';
import { useQueryClient } from '@tanstack/react-query';
import { call, inWords } from '../api/call.ts';
import { useWords } from '../api/useWords.ts';
import { ChoiceWord, Head, Trouble } from '../design/index.ts';

const WIDTHS = [
  { value: 'one', says: 'in one width', does: 'as wide as 1,600 pixels at most' },
  {
    value: 'several',
    says: 'in several widths',
    does: 'each reader loads the one that fits the screen, as AVIF where it can be shown; up to eight files a picture',
  },
] as const;

/** In how many widths pictures go to a blog. */
export function PicturesThere({ blog: { id, way, settings } }: { blog: Blog }) {
  const client = useQueryClient();
  const { words, put, error } = useWords({ pictures: settings.pictures ?? 'one' }, async (body) => {
    const { blogs } = await call('PATCH', `/blogs/${id}`, { body, answer: ChangedBlog });
    client.setQueryData(['blogs'], { blogs });
  });
  const asMarkdown = way === 'folder' && settings.folder?.form !== 'HTML';
  return (
    <div className="pt-4">
      <Head title="Pictures" />
      {asMarkdown ? (
        <p className="pt-2 text-proc">Pictures go there in one width: Markdown has no words for more.</p>
      ) : (
        <p className="pt-2 text-proc leading-7">
          Pictures in the text go there{' '}
          <ChoiceWord
            label="Widths of pictures"
            value={words.pictures}
            options={WIDTHS}
            onChoose={(pictures) => put({ pictures })}
          />
          . When you change this, posts that are out follow by themselves.
        </p>
      )}
      {error ? <Trouble>{inWords(error)}</Trouble> : null}
    </div>
  );
}
