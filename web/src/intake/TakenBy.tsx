import type { Item, Pipeline } from '@grivo/contract';
import { Link } from 'react-router';
import { Mark, saysOf, stateOf } from '../design/index.ts';

/** The pipelines that took an item, each with where its brief stands. */
export function TakenBy({ item, pipelines }: { item: Item; pipelines: readonly Pipeline[] }) {
  return (
    <ul className="text-small">
      {item.taken.map((one) => (
        <li key={one.brief} className="flex items-center gap-2 border-b border-rule-soft py-1.5">
          <Mark state={stateOf(one.standing)} />
          <Link to={`/pipelines/${one.pipeline}?show=briefs&brief=${one.brief}`} className="act quiet brackets">
            {pipelines.find(({ id }) => id === one.pipeline)?.name ?? 'a pipeline'}
          </Link>
          <span className="text-ink-3">{saysOf(one.standing)}</span>
        </li>
      ))}
    </ul>
  );
}
