// Counts on the receiving side what was lost or doubled, and whether what Grivo says agrees with the outside.

/** All rows of a list of the API, page by page. */
export async function everyRow(call, path, name) {
  const rows = [];
  for (let before = ''; ; ) {
    const page = (await call('GET', `${path}${before && `${path.includes('?') ? '&' : '?'}before=${before}`}`))[name];
    rows.push(...page);
    if (page.length === 0) return rows;
    before = page.at(-1).id;
  }
}

/** The key of a publication is the last part of its address; a blog that has the address already adds a number. */
const keyOf = (address) => /-([a-z2-9]{8})(?:-\d+)?$/.exec(address)?.[1] ?? address;

/**
 * @param {object} outside what the stand-ins hold: `posts` made through the protocol on all blogs, `micros` asked for
 * @param {object} said what Grivo says: `briefs`, `publications` (key, state, address, standing of the article, brief), `spentMicros`;
 *   `liveOf(brief)` and `draftsOf(brief)` are how many posts of either kind a brief makes when it is out
 */
export function count({ posts, micros }, { briefs, publications, spentMicros, liveOf, draftsOf }) {
  const wrong = [];
  const found = { lost: 0, doubled: 0, untrue: 0 };
  const say = (what, sentence) => {
    found[what]++;
    wrong.push(`${what}: ${sentence}`);
  };
  const byKey = groupBy(posts, (post) => keyOf(post.address));
  for (const [key, same] of byKey)
    for (const post of same.slice(1))
      say('doubled', `${key}, ${post.address} (${post.status}) beside ${same[0].address}`);
  for (const brief of briefs)
    if (brief.standing !== 'out' && brief.standing !== 'set aside')
      say('lost', `‘${brief.subject}’ is ${brief.standing}`);
  const known = new Map(publications.map((one) => [one.key, one]));
  for (const [key, [post]] of byKey) {
    const one = known.get(key);
    const says = one && { live: 'published', draft: 'draft' }[one.state];
    if (says !== post.status)
      say('untrue', `${post.address} is ${post.status} on its blog, Grivo says ${one ? one.state : 'nothing of it'}`);
    else if (one.address !== post.address) say('untrue', `${post.address} is said to be at ${one.address}`);
    // What is live is out, whatever became of its brief.
    if (one?.state === 'live' && one.standing !== 'out')
      say('untrue', `${post.address} is live, its article ${one.standing}`);
  }
  for (const one of publications)
    if ((one.state === 'live' || one.state === 'draft') && !byKey.has(one.key))
      say('lost', `${one.key} is said to be ${one.state} at ${one.address} and is not there`);
  const ofBrief = groupBy(publications, (one) => one.brief);
  for (const brief of briefs.filter(({ standing }) => standing === 'out')) {
    const own = ofBrief.get(brief.id) ?? [];
    const [live, drafts] = ['live', 'draft'].map((state) => own.filter((one) => one.state === state).length);
    if (live !== liveOf(brief) || drafts !== draftsOf(brief))
      say('untrue', `‘${brief.subject}’ is out with ${live} live and ${drafts} drafts`);
  }
  if (spentMicros < micros) say('untrue', `the ledger says ${spentMicros}, the services asked for ${micros}`);
  return { publications: posts.filter((post) => post.status === 'published').length, ...found, wrong };
}

/** Calls of a hook against the briefs made of them: each call with a subject is one, however often it was repeated. */
export function countCalls(briefs, subjects) {
  const times = new Map();
  for (const { subject } of briefs) times.set(subject, (times.get(subject) ?? 0) + 1);
  const missing = subjects.filter((subject) => !times.has(subject));
  const twice = [...times].filter(([, n]) => n > 1);
  return {
    lost: missing.length,
    doubled: twice.length,
    wrong: [
      ...missing.map((subject) => `lost: the call ‘${subject}’ was taken and nothing made of it`),
      ...twice.map(([subject, n]) => `doubled: the call ‘${subject}’ became ${n} briefs`),
    ],
  };
}

/** Rows of a watched sheet against the briefs made of them: each row is one brief. */
export function countRows(briefs, rows) {
  const times = new Map();
  for (const { subject } of briefs) times.set(subject, (times.get(subject) ?? 0) + 1);
  const names = Array.from({ length: rows }, (_, n) => `Row ${n}`);
  const missing = names.filter((name) => !times.has(name));
  const twice = [...times].filter(([, n]) => n > 1);
  return {
    lost: missing.length,
    doubled: twice.length,
    wrong: [
      ...missing.map((name) => `lost: ‘${name}’ of the sheet was never taken`),
      ...twice.map(([name, n]) => `doubled: ‘${name}’ of the sheet was taken ${n} times`),
    ],
  };
}

function groupBy(rows, of) {
  const groups = new Map();
  for (const row of rows) groups.set(of(row), [...(groups.get(of(row)) ?? []), row]);
  return groups;
}
