import { type Blog, ChangedBlog } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { useWords } from '../api/useWords.ts';
import { ChoiceWord, Head, Trouble } from '../design/index.ts';
import { plural } from '../words/figures.ts';

/** The house style articles keep to that go to a blog. */
export function HouseStyleOf({ blog }: { blog: Blog }) {
  const styles = useQuery(read.styles()).data?.styles ?? [];
  const { words, put, error } = useWords({ style: blog.style }, async (body) => {
    const { blogs } = await call('PATCH', `/blogs/${blog.id}`, { body, answer: ChangedBlog });
    queryClient.setQueryData(['blogs'], { blogs });
    for (const key of ['styles', 'style']) void queryClient.invalidateQueries({ queryKey: [key] });
  });
  const chosen = styles.find(({ id }) => id === words.style);
  return (
    <div className="pt-4">
      <Head title="House style" />
      <p className="pt-2 text-proc leading-7">
        {styles.length === 0 ? (
          <>
            None yet.{' '}
            <Link className="act brackets" to="/styles?new">
              Make a house style
            </Link>
          </>
        ) : (
          <>
            Articles keep to{' '}
            <ChoiceWord
              label="House style of the blog"
              value={words.style ?? ''}
              options={[
                { value: '', says: 'no house style', does: 'each step says how it sounds' },
                ...styles
                  .filter(({ archived, id }) => !archived || id === words.style)
                  .map(({ id, name, texts }) => ({
                    value: id,
                    says: name,
                    does: `learnt from ${plural(texts, 'text')}`,
                  })),
              ]}
              onChoose={(id) => put({ style: id === '' ? null : id })}
            />
            .{' '}
            {chosen ? (
              <Link className="act quiet brackets text-small" to={`/styles/${chosen.id}`}>
                Open it
              </Link>
            ) : null}
          </>
        )}
      </p>
      {error ? <Trouble>{inWords(error)}</Trouble> : null}
    </div>
  );
}
