import { Blog, type HouseStyleWhole } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { z } from 'zod';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { ChoiceEditor, Empty, Head, Mark, Trouble, Word } from '../design/index.ts';

const Changed = z.object({ blogs: z.array(Blog) });

/** Blogs and pipelines that keep to a style; a blog is let keep to it here. */
export function UsedBy({ style }: { style: HouseStyleWhole }) {
  const blogs = useQuery(read.blogs()).data?.blogs ?? [];
  const others = blogs.filter((blog) => !blog.archived && blog.style !== style.id);
  const keep = useMutation({
    mutationFn: ({ blog, to }: { blog: string; to: string | null }) =>
      call('PATCH', `/blogs/${blog}`, { body: { style: to }, answer: Changed }),
    onSuccess: ({ blogs: now }) => {
      queryClient.setQueryData(['blogs'], { blogs: now });
      for (const key of ['styles', 'style']) void queryClient.invalidateQueries({ queryKey: [key] });
    },
  });
  return (
    <div className="pt-4">
      <Head title="Used by" />
      <ul>
        {style.usedBy.map(({ noun, id, name, says }) => (
          <li key={`${noun} ${id}`} className="flex items-baseline gap-2 border-b border-rule-soft py-1">
            <Mark state="done" />
            <Link className="brackets font-medium" to={noun === 'blog' ? `/blogs/${id}` : `/pipelines/${id}`}>
              {name}
            </Link>
            <span className="ml-auto text-small text-ink-3">{says}</span>
            {noun === 'blog' ? (
              <button
                type="button"
                className="act quiet brackets text-small"
                onClick={() => keep.mutate({ blog: id, to: null })}
              >
                no longer
              </button>
            ) : null}
          </li>
        ))}
      </ul>
      {style.usedBy.length === 0 ? <Empty>Nothing keeps to it yet.</Empty> : null}
      {others.length > 0 ? <LetBlog blogs={others} onChoose={(blog) => keep.mutate({ blog, to: style.id })} /> : null}
      {keep.isError ? <Trouble>{inWords(keep.error)}</Trouble> : null}
    </div>
  );
}

function LetBlog({ blogs, onChoose }: { blogs: readonly Blog[]; onChoose: (blog: string) => void }) {
  const options = blogs.map((blog) => ({
    value: blog.id,
    says: blog.name,
    does: blog.style === null ? 'it has no house style yet' : 'in place of the one it keeps to now',
  }));
  return (
    <p className="pt-1">
      <Word
        label="Let a blog keep to it"
        editor={(close) => (
          <ChoiceEditor
            value=""
            options={options}
            onChoose={(blog) => {
              onChoose(blog);
              close();
            }}
          />
        )}
      >
        Let a blog keep to it
      </Word>
    </p>
  );
}
