import { Link } from 'react-router';
import { Button } from '../design/index.ts';
import { seen, useDecisions } from './decisions.ts';

/** Words that were said of articles and not taken, each with the way back to it. */
export function NotTaken() {
  const notTaken = useDecisions((all) => all.notTaken);
  if (notTaken.length === 0) return null;
  return (
    <ul role="alert" className="border-t border-red bg-paper px-8 py-2 text-small">
      {notTaken.map(({ id, title, why }) => (
        <li key={id} className="flex items-baseline gap-4">
          <span className="min-w-0 flex-1">
            Nothing was decided on{' '}
            <Link to={`/articles/${id}?held`} className="act brackets">
              {title || 'one without a title'}
            </Link>
            : {why}
          </span>
          <Button look="quiet" anyone onClick={() => seen(id)}>
            Seen
          </Button>
        </li>
      ))}
    </ul>
  );
}
