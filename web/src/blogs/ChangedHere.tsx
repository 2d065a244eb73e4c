import { BehindList, type Blog, ChangedBlog, DoneToArticles } from '@grivo/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { z } from 'zod';
import { call, inWords } from '../api/call.ts';
import { freshKey } from '../api/fresh.ts';
import { useWords } from '../api/useWords.ts';
import { Button, ChoiceWord, Head, Trouble } from '../design/index.ts';
import { counted, plural } from '../words/figures.ts';

const SHOWN = 8;

const UPDATES = [
  { value: 'asked', says: 'goes there when somebody says so', does: 'it is listed here until then' },
  {
    value: 'small',
    says: 'goes there by itself when it is small',
    does: 'up to three paragraphs, with the title and the lead picture as they were; anything else is listed here',
  },
  { value: 'all', says: 'goes there by itself', does: 'once nobody has touched it for a while' },
] as const;

/** Articles that are out on a blog and were changed here since, and what becomes of such changes. */
export function ChangedHere({ blog }: { blog: Blog }) {
  const { id } = blog;
  const client = useQueryClient();
  const list = useQuery({
    queryKey: ['blog behind', id],
    queryFn: () => call('GET', `/blogs/${id}/behind`, { answer: BehindList }),
  });
  const { words, put, error } = useWords({ updates: blog.settings.updates ?? 'asked' }, async (body) => {
    const { blogs } = await call('PATCH', `/blogs/${id}`, { body, answer: ChangedBlog });
    client.setQueryData(['blogs'], { blogs });
  });
  const posts = list.data?.posts ?? [];
  const bring = useMutation({
    mutationFn: () =>
      call('POST', '/articles/many', {
        body: { articles: posts.map(({ article }) => article), do: 'update' },
        answer: DoneToArticles,
        key: freshKey(),
      }),
    onSettled: () => client.invalidateQueries({ queryKey: ['blog behind', id] }),
  });
  const left = bring.data?.left ?? [];
  return (
    <div className="pt-4">
      <Head title="Changed here since" right={list.data ? counted(posts.length) : ''} />
      <p className="pt-2 text-proc leading-7">
        What is changed here in an article that is out{' '}
        <ChoiceWord
          label="What becomes of changes"
          value={words.updates}
          options={UPDATES}
          onChoose={(updates) => put({ updates })}
        />
        .
      </p>
      {error ? <Trouble>{inWords(error)}</Trouble> : null}
      <Behind posts={posts} />
      {posts.length > 0 ? (
        <p className="pt-1">
          <Button look="word" busy={bring.isPending ? 'Bringing them there' : null} onClick={() => bring.mutate()}>
            {posts.length === 1 ? 'Bring it there' : `Bring all ${counted(posts.length)} there`}
          </Button>
        </p>
      ) : null}
      {left.length > 0 ? (
        <ul className="pt-1 text-small text-red">
          {left.map((one) => (
            <li key={one.id}>
              {one.title}: {one.why}
            </li>
          ))}
        </ul>
      ) : null}
      {bring.isError ? <Trouble>{inWords(bring.error)}</Trouble> : null}
    </div>
  );
}

function Behind({ posts }: Pick<z.infer<typeof BehindList>, 'posts'>) {
  return (
    <>
      <ul>
        {posts.slice(0, SHOWN).map(({ publication, article, title }) => (
          <li key={publication} className="border-b border-rule-soft py-1.5 text-small">
            <Link to={`/articles/${article}`} className="work brackets block truncate">
              {title}
            </Link>
          </li>
        ))}
      </ul>
      {posts.length > SHOWN ? (
        <p className="pt-1 text-small text-ink-3">and {plural(posts.length - SHOWN, 'more', 'more')}</p>
      ) : null}
    </>
  );
}
