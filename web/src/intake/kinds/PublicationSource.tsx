import type { PublicationSettings, SourceWhole } from '@grivo/contract';
import { listWords } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { inWords } from '../../api/call.ts';
import { read } from '../../api/queries.ts';
import { ChoiceWord, Trouble, Word } from '../../design/index.ts';
import { ItemsSource } from '../items/ItemsSource.tsx';
import { ExcludeWord, StartWord } from '../LookWords.tsx';
import { useChange } from '../useSource.ts';

interface PublicationProps {
  source: SourceWhole;
  settings: PublicationSettings;
}

/** What goes out on our blogs, so that something can follow it. */
export function PublicationSource({ source, settings }: PublicationProps) {
  const change = useChange(source);
  const put = (next: Partial<PublicationSettings>) => change.mutate({ ...settings, ...next });
  return (
    <ItemsSource
      source={source}
      says="publications"
      one="publication"
      sentence={
        <p>
          Follow{' '}
          <ChoiceWord
            label="What is followed"
            value={settings.of}
            options={[
              { value: 'what we published', says: 'what we published', does: 'articles Grivo put there' },
              { value: 'every new post', says: 'every new post', does: 'whoever wrote it, by the blog’s own feed' },
            ]}
            onChoose={(of) => put({ of: of as PublicationSettings['of'] })}
          >
            {settings.of}
          </ChoiceWord>{' '}
          on <BlogsWord chosen={settings.blogs} onChange={(blogs) => put({ blogs })} />; start from{' '}
          <StartWord start={settings.startFrom} onChange={(startFrom) => put({ startFrom })} />; leave out titles with{' '}
          <ExcludeWord exclude={settings.exclude} onChange={(exclude) => put({ exclude })} />. What follows from here
          never comes in again.
        </p>
      }
      above={change.isError ? <Trouble>{inWords(change.error)}</Trouble> : null}
      empty="Nothing went out yet, or it was not looked at."
    />
  );
}

/** Which blogs are followed; none chosen stands for all. */
function BlogsWord({ chosen, onChange }: { chosen: readonly string[]; onChange: (blogs: string[]) => void }) {
  const blogs = useQuery(read.blogs()).data?.blogs ?? [];
  const named = blogs.filter(({ id }) => chosen.includes(id)).map(({ name }) => name);
  const put = (blog: string, on: boolean) => onChange(on ? [...chosen, blog] : chosen.filter((one) => one !== blog));
  return (
    <Word
      label="Blogs"
      editor={() => (
        <ul>
          {blogs.map((blog) => (
            <li key={blog.id}>
              <label className="flex items-center gap-2 py-0.5">
                <input
                  type="checkbox"
                  checked={chosen.includes(blog.id)}
                  onChange={(event) => put(blog.id, event.target.checked)}
                />
                {blog.name}
              </label>
            </li>
          ))}
          <li className="pt-1 text-small text-ink-3">None ticked means every blog.</li>
        </ul>
      )}
    >
      {listWords(named, 'every blog')}
    </Word>
  );
}
