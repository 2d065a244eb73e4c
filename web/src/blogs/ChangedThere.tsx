import { type Blog, OutsideList } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { call } from '../api/call.ts';
import { Head, Mark } from '../design/index.ts';
import { counted } from '../words/figures.ts';
import { moment } from '../words/time.ts';

/** Posts of ours that somebody changed on the blog itself. */
export function ChangedThere({ blog: { id }, now }: { blog: Blog; now: number }) {
  const list = useQuery({
    queryKey: ['blog outside', id],
    queryFn: () => call('GET', `/blogs/${id}/outside`, { answer: OutsideList }),
  });
  const posts = list.data?.posts ?? [];
  return (
    <div className="pt-4">
      <Head title="Changed on the blog itself" right={list.data ? counted(posts.length) : ''} />
      <p className="pt-2 text-small text-ink-3">
        Every post of ours is looked at again some times a day. What somebody changed there is never written over
        unseen.
      </p>
      <ul>
        {posts.map(({ publication, article, title, kind, at }) => (
          <li key={publication} className="flex items-baseline gap-2 border-b border-rule-soft py-1.5 text-small">
            <Mark state="wait" />
            <Link to={`/articles/${article}/outside/${publication}`} className="act brackets min-w-0 truncate">
              {title}
            </Link>
            <span className="ml-auto whitespace-nowrap text-ink-3">
              {kind === 'gone' ? 'removed' : 'changed'}, seen {moment(new Date(at).getTime(), now)}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
