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
 * @param {object} outside what the stand-ins hold: `posts` made through the protocol, `micros` asked for
 * @param {object} said what Grivo says: `briefs`, `articles`, `spentMicros`; `articlesOf(brief)` is how many a brief makes when it is out
 */
export function count({ posts, micros }, { briefs, articles, spentMicros, articlesOf }) {
  const wrong = [];
  const byKey = Map.groupBy?.(posts, (post) => keyOf(post.address)) ?? groupBy(posts, (post) => keyOf(post.address));
  let doubled = 0;
  for (const [key, same] of byKey)
    if (same.length > 1) {
      doubled += same.length - 1;
      wrong.push(`doubled: ${key} ${same.map((post) => `${post.address} (${post.status})`).join(', ')}`);
    }
  const live = new Set(posts.filter((post) => post.status === 'published').map((post) => post.address));
  const there = new Set(posts.map((post) => post.address));
  let lost = 0;
  let untrue = 0;
  for (const brief of briefs)
    if (brief.standing !== 'out' && brief.standing !== 'set aside') {
      lost++;
      wrong.push(`lost: ‘${brief.subject}’ is ${brief.standing}`);
    }
  const out = articles.filter((article) => article.standing === 'out');
  for (const article of out)
    if (!there.has(article.address)) {
      lost++;
      wrong.push(`lost: ‘${article.title}’ is said to be out at ${article.address} and is not there`);
    }
  const claimed = new Set(out.map((article) => article.address));
  for (const post of posts)
    if (!claimed.has(post.address)) {
      untrue++;
      wrong.push(`untrue: ${post.address} (${post.status}) is on the blog and Grivo does not say so`);
    }
  const outBriefs = briefs.filter((brief) => brief.standing === 'out');
  const expected = outBriefs.reduce((sum, brief) => sum + articlesOf(brief), 0);
  if (expected !== out.length) {
    untrue++;
    wrong.push(`untrue: the briefs that are out make ${expected} articles, and ${out.length} are out`);
  }
  // One of each brief is live, the others are drafts.
  if (outBriefs.length !== live.size) {
    untrue++;
    wrong.push(`untrue: ${outBriefs.length} briefs are out, ${live.size} posts are live`);
  }
  if (spentMicros < micros) {
    untrue++;
    wrong.push(`untrue: the ledger says ${spentMicros}, the services asked for ${micros}`);
  }
  return { publications: live.size, lost, doubled, untrue, wrong };
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
