export type MarkState = 'done' | 'busy' | 'wait' | 'stop' | 'plan' | 'aside' | 'draft';

/** How any standing is drawn, and the words that go with it. */
const STANDING: Record<string, { state: MarkState; says: string }> = {
  out: { state: 'done', says: 'out' },
  draft: { state: 'draft', says: 'draft on the blog' },
  ready: { state: 'done', says: 'ready' },
  withdrawn: { state: 'aside', says: 'taken back' },
  done: { state: 'done', says: 'done' },
  'in work': { state: 'busy', says: 'in work' },
  running: { state: 'busy', says: 'in work' },
  held: { state: 'wait', says: 'waits for you' },
  stopped: { state: 'stop', says: 'stopped' },
  waiting: { state: 'plan', says: 'waiting' },
  planned: { state: 'plan', says: 'empty' },
  'set aside': { state: 'aside', says: 'set aside' },
  cancelled: { state: 'aside', says: 'given up' },
};

export function stateOf(standing: string): MarkState {
  return STANDING[standing]?.state ?? 'plan';
}

export function saysOf(standing: string): string {
  return STANDING[standing]?.says ?? standing;
}

/** The state code: one component draws every mark, in the size of its place. */
export function Mark({
  state,
  size = 'list',
  label,
}: {
  state: MarkState;
  size?: 'list' | 'tiny' | 'slot' | 'big' | 'bar';
  /** Said to those who cannot see it; leave out where words beside it say the same. */
  label?: string;
}) {
  return (
    <span
      className={`mk ${state} ${size === 'list' ? '' : size}`}
      {...(label ? { role: 'img', 'aria-label': label } : { 'aria-hidden': true })}
    />
  );
}
