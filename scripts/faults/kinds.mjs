// What can go wrong, each armed at a named point and striking once.

const SERVICES = ['writer', 'illustrator', 'blog', 'look-up', 'sheets'];

/** Where a process is killed: as a service receives or has acted on a call, or as a statement goes to the database. */
export const POINTS = [
  'writer.received',
  'writer.acted',
  'illustrator.acted',
  'blog.received',
  'blog.acted',
  // Between looking at a source and taking of it.
  'sheets.acted',
  'database.intent',
  'database.COMMIT',
];

/** All faults there are. Each has a name and what it does: a trouble at a service, a strike at the database, a kill at a point. */
export const FAULTS = [
  // Often, so that every point is met several times in a run.
  ...Array.from({ length: 6 }, () => POINTS)
    .flat()
    .map((point) => ({ name: `kill worker at ${point}`, point, kill: 'worker' })),
  ...['writer.acted', 'blog.received', 'blog.acted'].map((point) => ({
    name: `kill database at ${point}`,
    point,
    kill: 'database',
  })),
  { name: 'kill api at blog.received', point: 'blog.received', kill: 'api' },
  ...['COMMIT', 'intent'].flatMap((statement) =>
    ['cut before', 'cut after'].map((how) => ({
      name: `database ${how} ${statement}`,
      point: `database.${statement}`,
      cut: how,
    })),
  ),
  ...SERVICES.flatMap((at) =>
    [
      { how: 'busy', retryAfterSeconds: 1 },
      { how: 'broken' },
      { how: 'hang' },
      { how: 'hang after' },
      { how: 'cut before' },
      { how: 'cut after' },
    ].map((trouble) => ({ name: `${at} ${trouble.how}`, at, trouble })),
  ),
  { name: 'writer malformed', at: 'writer', trouble: { how: 'malformed' } },
  { name: 'writer cut within', at: 'writer', trouble: { how: 'cut within' } },
  { name: 'illustrator malformed', at: 'illustrator', trouble: { how: 'malformed' } },
  { name: 'writer credit used up', at: 'writer', trouble: { how: 'credit used up' } },
  { name: 'writer key refused', at: 'writer', trouble: { how: 'key refused' } },
  { name: 'blog key refused', at: 'blog', trouble: { how: 'key refused' } },
  ...['writer', 'illustrator', 'blog', 'look-up'].map((at) => ({
    name: `${at} refuses`,
    at,
    trouble: { how: 'refuse' },
  })),
  // People act in the middle of it all.
  ...['blog.received', 'blog.acted', 'blog.received', 'blog.acted'].map((point) => ({
    name: `set aside while publishing, at ${point}`,
    point,
    person: 'set aside',
  })),
  ...['writer.acted', 'blog.received', 'blog.acted'].map((point) => ({
    name: `run again from ‘write’, at ${point}`,
    point,
    person: 'again',
  })),
  { name: 'brought back', point: 'writer.received', person: 'bring back' },
  // The ones that make doubles when something is wrong come more often.
  ...['cut after', 'hang after', 'cut after', 'hang after'].map((how) => ({
    name: `blog ${how}`,
    at: 'blog',
    trouble: { how },
    path: '/micropub',
  })),
];

/** Numbers from a seed (mulberry32), so that a run can be had again. */
export function seeded(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** An endless order of faults: all that are wanted, shuffled, again and again. */
export function* order(random, wanted = () => true) {
  for (;;) {
    const left = FAULTS.filter(wanted);
    while (left.length > 0) yield left.splice(Math.floor(random() * left.length), 1)[0];
  }
}
