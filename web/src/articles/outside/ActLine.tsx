import type { BlogAct } from '@grivo/contract';
import { Mark, type MarkState } from '../../design/index.ts';
import { moment } from '../../words/time.ts';

const SHOWN: Record<BlogAct['act'], { state: MarkState; says: string }> = {
  published: { state: 'done', says: 'published' },
  updated: { state: 'done', says: 'changed by us' },
  withdrawn: { state: 'plan', says: 'taken back' },
  'changed there': { state: 'wait', says: 'changed there' },
  'removed there': { state: 'wait', says: 'removed there' },
};

/** What was done with an article on a blog, one after the other: ours in ink, what was taken back dotted, theirs in blue. */
export function ActLine({ acts }: { acts: readonly BlogAct[] }) {
  if (acts.length === 0) return null;
  return (
    <ol
      aria-label="What was done there"
      className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule-soft px-8 py-2 text-small text-ink-2"
    >
      {acts.map(({ act, at }, i) => (
        <li key={`${at} ${act}`} className="flex items-center gap-2">
          {i === 0 ? null : <span aria-hidden="true" className="h-px w-4 bg-rule-strong" />}
          <Mark state={SHOWN[act].state} />
          <span>{SHOWN[act].says}</span>
          <span className="fig text-ink-3">{moment(new Date(at).getTime(), Date.now())}</span>
        </li>
      ))}
    </ol>
  );
}
