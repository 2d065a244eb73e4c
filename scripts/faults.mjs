// Breaks things while briefs are made, then counts on the receiving side what was lost or doubled. Last line: JSON.
//   npm run faults -- [--faults 80] [--briefs 36] [--seconds 600] [--seed N] [--cluster] [--ways]
// With --ways every brief goes to five blogs by five ways, and people change, take back and publish again what is there.
// With --cluster the database is three machines of which one after the other dies and comes back (needs root).
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { installMissing } from './install.mjs';

installMissing();
if (!process.execArgv.includes('tsx')) {
  const { status } = spawnSync(process.execPath, ['--import', 'tsx', import.meta.filename, ...process.argv.slice(2)], {
    stdio: 'inherit',
  });
  process.exit(status ?? 1);
}
const { BLOGS, KEYWORDS, PAGES, start } = await import('@grivo/standins');
const { client, until } = await import('./client.mjs');
const { connect, guide } = await import('./crockhaven.mjs');
const { count, countCalls, countRows, everyRow } = await import('./faults/count.mjs');
const { Database } = await import('../server/src/ground/store/database.ts');
const { order, POINTS, seeded } = await import('./faults/kinds.mjs');
const { connectWays, countWays, Editors, postsThere } = await import('./faults/ways.mjs');
const { wide } = await import('./faults/wide.mjs');
const { databaseProxy } = await import('./faults/proxy.mjs');
const { startAll } = await import('./processes.mjs');

const { values } = parseArgs({
  options: {
    faults: { type: 'string', default: '80' },
    briefs: { type: 'string', default: '36' },
    seconds: { type: 'string', default: '600' },
    seed: { type: 'string', default: String(Date.now() % 1_000_000) },
    keep: { type: 'boolean', default: false },
    cluster: { type: 'boolean', default: false },
    ways: { type: 'boolean', default: false },
  },
});
const wanted = {
  faults: Number(values.faults),
  briefs: Number(values.briefs),
  seconds: Number(values.seconds),
  seed: Number(values.seed),
};
console.log(`seed ${wanted.seed}`);

const folder = mkdtempSync(join(tmpdir(), 'grivo-faults-'));
const random = seeded(wanted.seed);
const begun = Date.now();
const late = () => Date.now() - begun > wanted.seconds * 1_000;
/** A sheet rows are added to all the time, and that is looked at by itself. */
const WATCHED = {
  slug: 'watched',
  title: 'Watched',
  above: [],
  header: ['Key', 'Name', 'Text'],
  rows: [['k0', 'Row 0', 'Salt']],
};
const standIns = await start({ pages: PAGES, blogs: BLOGS, sheets: [WATCHED] });
const addRow = (n) => standIns.sheets.do({ sheet: 'watched', act: 'add', cells: [`k${n}`, `Row ${n}`, 'Salt'] });
/** The fault that waits for its point; striking clears it. */
let armed = null;
let kills = 0;
/** How often a worker was killed at each named point. */
const atPoints = Object.fromEntries(POINTS.map((point) => [point, 0]));
/** Faults that really happened: kills and cuts, and calls that met trouble. */
/** Acts of people in the middle of the work. */
let acts = 0;
const struck = () => kills + acts + standIns.received().troubles;
let overLimit = 0;
/** Steps shown to people because nobody can tell whether what they did at a blog came about. */
const UNCERTAIN = 'Nobody can say what happened';
const uncertain = new Set();
/** The most the services may have asked for, as far as Grivo was told. */
let cap = Number.POSITIVE_INFINITY;

/** Proxies by the process they serve; the database keeps its port over a restart, so they do too. */
const proxies = new Map();
const WORKERS = ['worker-1', 'worker-2'];
/** The ports of the proxies must be known before the database's is: each looks its target up when a client comes. */
/** The machines of the database, when it is a cluster. */
const machines = values.cluster ? await startCluster() : null;
let machineKills = 0;
const all = await startBroken();

async function startCluster() {
  const { cluster } = await import('./cluster.mjs');
  const made = await cluster(join(folder, 'cluster'));
  for (const node of made.nodes) {
    console.log(`starting ${node.name} …`);
    await made.start(node);
  }
  return made;
}

/** The machine that was killed last, on its way back. */
let joining = Promise.resolve();

/** Kills one machine of the database; it comes back while the others go on and other faults strike. */
async function killMachine() {
  await joining;
  if (machines.inStep() < 3) return;
  const node = machines.nodes[Math.floor(random() * 3)];
  machines.kill(node);
  kills++;
  machineKills++;
  console.log(`${String(struck()).padStart(3)}  kill ${node.name}`);
  await pause(500 + Math.floor(random() * 3_000));
  joining = comeBack(node);
}

async function comeBack(node) {
  for (let tries = 0; ; tries++) {
    try {
      await machines.start(node);
      return;
    } catch (error) {
      if (tries === 3) throw error;
    }
  }
}

async function startBroken() {
  if (machines)
    return startAll(folder, {
      ownDatabase: true,
      standIns: standIns.address,
      workers: 2,
      leaseSeconds: 3,
      log: 'info',
      databaseUrl: (name) => machines.url(name === 'api' ? 2 : WORKERS.indexOf(name)),
    });
  const { freePort } = await import('./mariadb.mjs');
  const port = await freePort();
  for (const name of WORKERS)
    proxies.set(
      name,
      await databaseProxy(port, (text) =>
        strikeAt(text.startsWith('COMMIT') ? 'database.COMMIT' : 'database.intent', name),
      ),
    );
  return startAll(folder, {
    databasePort: port,
    standIns: standIns.address,
    workers: 2,
    leaseSeconds: 3,
    log: 'info',
    databaseUrl: (name, url) => {
      if (!proxies.has(name)) return url;
      const through = new URL(url);
      through.port = String(proxies.get(name).port);
      return through.href;
    },
  });
}

/** Called at every named point; strikes when the armed fault waits for it. */
function strikeAt(point, by) {
  if (!armed || armed.point !== point) return null;
  const fault = armed;
  armed = null;
  if (fault.person) {
    byPeople(fault.person).catch((error) => console.error(error.message));
    return null;
  }
  kills++;
  if (fault.cut) return fault.cut;
  if (fault.kill === 'worker') atPoints[point]++;
  try {
    all.kill(fault.kill === 'worker' ? (by ?? WORKERS[Math.floor(random() * WORKERS.length)]) : fault.kill);
  } catch {
    // It is being started again just now: this one did not happen.
    kills--;
    if (fault.kill === 'worker') atPoints[point]--;
  }
  return null;
}

/** The database itself, for what no API tells: what is under way, and what it is to refuse. */
let database = null;
const rows = (text, values) => database.rows(text, values);

/** A person acts on a brief that is just being published, or was set aside. */
async function byPeople(act) {
  const [brief] =
    act === 'bring back'
      ? await rows("SELECT id FROM brief WHERE standing = 'set aside' AND trial = 0 ORDER BY id DESC LIMIT 1")
      : await rows(
          "SELECT r.brief AS id FROM step_run r JOIN brief b ON b.id = r.brief WHERE r.kind = 'publish' AND r.state IN ('running', 'waiting', 'stopped') AND b.standing IN ('in work', 'stopped') ORDER BY r.state <> 'running', r.id DESC LIMIT 1",
        );
  if (!brief) return;
  acts++;
  const ways = { 'set aside': 'set-aside', again: 'again', 'bring back': 'bring-back' };
  await patient('POST', `/briefs/${brief.id}/${ways[act]}`, act === 'again' ? { step: 's4' } : {}).catch(unlessOver);
}

// Every call takes a while, so that there is always something to break.
standIns.watch(async (point) => {
  if (point.endsWith('.received')) await pause(120);
  if (point.endsWith('.acted')) overLimit = Math.max(overLimit, standIns.received().micros - cap);
  strikeAt(point, null);
});

/** Asks until the API answers: it is killed too. */
async function patient(method, path, body) {
  for (let tries = 0; ; tries++) {
    try {
      return await call(method, path, body);
    } catch (error) {
      if (tries > 200) throw error;
      if (/answered 4(0[049]|22)/.test(error.message)) throw error;
      await pause(100);
      if (/answered 401/.test(error.message)) call = await client(all.address, all.owner).catch(() => call);
    }
  }
}

function pause(ms) {
  return new Promise((resolve) => setTimeout(resolve, ms));
}

/** Meanwhile it ended, or a first try was answered into a cut line: then there is nothing left to do. */
function unlessOver(error) {
  if (!/answered 409/.test(error.message)) throw error;
}

/** Lets everything that stopped go on, as a person would after mending. */
async function mend() {
  for (const { id } of (await patient('GET', '/incidents')).incidents)
    await patient('POST', `/incidents/${id}/release`, {}).catch(unlessOver);
  for (const { id, standing } of await everyRow(patient, '/briefs', 'briefs'))
    if (standing === 'stopped')
      await patient('POST', `/briefs/${id}/${(await isHopeless(id)) ? 'set-aside' : 'release'}`, {}).catch(unlessOver);
    else if (standing === 'waiting' && random() < 0.3)
      await patient('POST', `/briefs/${id}/ahead`, {}).catch(unlessOver);
  for (const { brief, run } of (await patient('GET', '/holds')).holds)
    await patient('POST', `/briefs/${brief}/holds/${run}`, { decide: 'pass' }).catch(unlessOver);
  if (cap !== Number.POSITIVE_INFINITY && (await patient('GET', '/limit')).spentMicros > cap * 0.6) await raise();
}

/** Whether a text was not put into its language again and again: the model has too few words for it, whatever one does. */
async function isHopeless(brief) {
  const { runs } = await patient('GET', `/briefs/${brief}`);
  for (const { id, failure } of runs) if (failure?.problem === UNCERTAIN) uncertain.add(id);
  return runs.some(
    ({ state, attempts, failure }) =>
      state === 'stopped' && attempts > 3 && failure?.problem === 'Translation incomplete',
  );
}

/** The limit is raised by a little whenever work has come near it, so that it is met again and again. */
async function raise() {
  cap = (cap === Number.POSITIVE_INFINITY ? 0 : cap) + 300_000;
  await patient('PUT', '/limit', { capMicros: cap });
}

/** The first place said to be changed, for whoever looks why. */
async function shownChange({ id, article }) {
  const { kind, title, places } = await patient('GET', `/articles/${article}/publications/${id}/outside`).catch(
    (error) => ({ kind: error.message, places: [] }),
  );
  return JSON.stringify({ kind, title, place: places.find(({ changed }) => changed)?.words ?? null }).slice(0, 600);
}

/** What Grivo says of every post by five ways, against what is there and what people asked for last. */
async function heldAgainst(editors, posts, wrong) {
  const said = await rows(
    `SELECT p.id, p.article, p.key_ AS \`key\`, p.state, p.address, b.name AS blog, p.outside, v.document FROM publication p JOIN blog b ON b.id = p.blog
     LEFT JOIN article_revision v ON v.id = p.revision`,
  );
  const publications = said.map(({ document, ...one }) => ({
    ...one,
    last: [...JSON.stringify(document ?? '').matchAll(/Round \d+ of changes\./g)].at(-1)?.[0] ?? null,
  }));
  const { wrong: more, ...found } = countWays(posts, publications);
  for (const one of publications) {
    const asked = editors.wanted.get(one.id)?.act;
    const so = { withdraw: ['withdrawn'], publish: ['live'], update: ['live'] }[asked];
    if (so && !so.includes(one.state))
      more.push(`untrue: ${one.key} on ${one.blog} is ${one.state}, asked for last was ${asked}`);
    if (one.outside)
      more.push(`untrue: ${one.key} on ${one.blog} is said to be changed by somebody else: ${await shownChange(one)}`);
  }
  wrong.push(...more);
  return {
    ...found,
    untrue: more.filter((line) => line.startsWith('untrue')).length,
    publications: posts.filter(({ status }) => status === 'published').length,
    personActs: editors.acts,
  };
}

let call = await client(all.address, all.owner);
let failed = null;
try {
  const connected = await connect(call, standIns.address, {
    blogs: values.ways ? [] : ['journal', 'kitchen'],
    timeLimits: { service: 1_500, blog: 1_200 },
  });
  const sites = join(folder, 'sites');
  const ids = values.ways ? await connectWays(call, standIns, sites) : connected;
  const [blog] = ids;
  const editors = values.ways ? new Editors(patient, random) : null;
  database = await Database.open(machines ? machines.url(0) : all.mariadb.url, 2, 60_000);
  // One result in sixty is one the database does not take.
  await database.run(
    "CREATE TRIGGER refuses BEFORE INSERT ON output FOR EACH ROW IF RAND() < 0.017 THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'it does not fit'; END IF",
  );
  const { id: source } = await call('POST', '/sources', { name: 'Faults' });
  // Two pipelines take the same phrases.
  const document = guide(source, blog, 'at once', { words: 400, least: 50, alone: false });
  // Each brief goes to all blogs.
  for (const [n, other] of ids.slice(1).entries())
    document.steps.push({ id: `p${n}`, kind: 'publish', blog: other, when: 'at once', as: 'live' });
  const { id: plain } = await call('POST', '/pipelines', { name: 'Faults', document, openLimit: 4 });
  const blocks = wide(source, blog);
  const { id: branched } = await call('POST', '/pipelines', {
    name: 'Branched',
    document: blocks.document,
    openLimit: 3,
  });
  const { id: sheet } = await call('POST', '/sources', {
    name: 'Watched',
    settings: { kind: 'sheet', address: `${standIns.address}/sheets/watched.csv`, identity: ['Key'], title: 'Name' },
  });
  const { id: watching } = await call('POST', '/pipelines', {
    name: 'Watching',
    document: {
      grivo: 1,
      language: 'en',
      steps: [
        { id: 's1', kind: 'take', sources: [sheet], most: null, everyMinutes: 1, atOnce: null, apartMinutes: 0 },
        { id: 's2', kind: 'read', what: 'the row', from: '', to: '' },
      ],
    },
  });
  await call('POST', `/pipelines/${watching}/on`);
  const { id: hook } = await call('POST', '/sources', {
    name: 'From the till',
    settings: { kind: 'hook', signed: false },
  });
  const { id: hooked } = await call('POST', '/pipelines', {
    name: 'Hooked',
    document: {
      grivo: 1,
      language: 'en',
      steps: [
        { id: 's1', kind: 'take', sources: [hook], most: null, everyMinutes: null, atOnce: null, apartMinutes: 0 },
        { id: 's2', kind: 'work out', as: 'said', expression: '"from the till: " & subject' },
      ],
    },
  });
  await call('POST', `/pipelines/${hooked}/on`);
  const door = new URL((await call('GET', `/sources/${hook}/hook`)).address).pathname;
  const calls = [];
  /** A call of the hook, repeated until it is answered, as programs do; now and then one that only says ‘run’. */
  const ring = async () => {
    const n = calls.length;
    const body = n % 5 === 4 ? { run: true, key: `run-${n}` } : { subject: `Order ${n}`, key: `order-${n}` };
    calls.push(body);
    for (let tries = 0; tries < 200; tries++) {
      const answer = await fetch(`${all.address}${door}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      }).catch(() => null);
      if (answer?.ok) return;
      await pause(200);
    }
  };
  let sheetRows = 1;
  // A look every two seconds. What may be spent is of a month, so the run keeps within one.
  const [today, month] = [new Date(), new Date()];
  month.setUTCMonth(today.getUTCMonth() + 1, 2);
  await call('PUT', '/desk-clock', { at: today.getUTCDate() > 26 ? month.toISOString() : null, speed: 30 });
  await raise();
  const phrases = [...KEYWORDS.guides];
  /** A few phrases more into the list and into work. */
  const more = async () => {
    await patient('POST', `/sources/${source}/keywords`, { paste: phrases.splice(0, 4).join('\n') });
    for (const pipeline of [plain, branched]) await patient('POST', `/pipelines/${pipeline}/take`, {});
  };
  const faults = order(
    random,
    machines ? (fault) => !(fault.point ?? '').startsWith('database') && fault.kill !== 'database' : () => true,
  );
  let open = [];
  let many = 0;
  const ringing = [];
  while (
    (struck() < wanted.faults || many < wanted.briefs || (machines && machineKills < wanted.faults / 2)) &&
    !late()
  ) {
    if (open.length < 5 && phrases.length > 0) await more();
    if (machines && machineKills <= struck() - machineKills) await killMachine();
    addRow(sheetRows++);
    ringing.push(ring());
    const fault = faults.next().value;
    const before = struck();
    if (fault.trouble) standIns.trouble(fault.at, fault.trouble, 1, fault.path);
    else armed = fault;
    for (let waited = 0; struck() === before && waited < 2_000; waited += 50) await pause(50);
    armed = null;
    standIns.calm();
    if (struck() > before) console.log(`${String(struck()).padStart(3)}  ${fault.name}`);
    await pause(100 + Math.floor(random() * 400));
    await mend();
    await editors?.act();
    const briefs = await everyRow(patient, '/briefs', 'briefs');
    many = briefs.length;
    open = briefs.filter((brief) => !['out', 'set aside'].includes(brief.standing));
  }
  armed = null;
  standIns.calm();
  await joining;
  await until(
    async () => {
      await mend();
      return (await everyRow(patient, '/briefs', 'briefs')).every((brief) =>
        ['out', 'set aside'].includes(brief.standing),
      );
    },
    90_000,
    'the end of all briefs',
  ).catch((error) => console.error(error.message));
  // What nobody knows the outcome of is looked up in a while, also where the brief was set aside.
  await until(
    async () =>
      (
        await rows(
          "SELECT 1 FROM intent WHERE state = 'open' AND kind IN ('create', 'turn live', 'update', 'withdraw')",
        )
      ).length === 0,
    90_000,
    'the end of all acts outside',
  ).catch((error) => console.error(error.message));
  if (editors)
    await until(async () => (await editors.finish()) === 0, 120_000, 'the end of what people asked for').catch(
      (error) => console.error(error.message),
    );
  await Promise.all(ringing);
  const received = standIns.received();
  const made = new Set(received.acts.filter((act) => act.act === 'create').map((act) => act.post.address));
  const taken = () => everyRow(patient, `/briefs?pipeline=${watching}`, 'briefs');
  await until(async () => (await taken()).length >= sheetRows, 90_000, 'the end of all rows').catch((error) =>
    console.error(error.message),
  );
  const watched = countRows(await taken(), sheetRows);
  const subjects = calls.flatMap(({ subject }) => subject ?? []);
  const byHook = () => everyRow(patient, `/briefs?pipeline=${hooked}`, 'briefs');
  await until(async () => (await byHook()).length >= subjects.length, 60_000, 'what the hook was called for').catch(
    (error) => console.error(error.message),
  );
  const called = countCalls(await byHook(), subjects);
  const briefs = (await everyRow(patient, '/briefs', 'briefs')).filter(
    ({ pipeline }) => pipeline !== watching && pipeline !== hooked,
  );
  const { wrong, ...found } = values.ways
    ? { wrong: [], publications: 0, lost: 0, doubled: 0, untrue: 0 }
    : count(
        {
          posts: ['journal', 'kitchen']
            .flatMap((slug) => received.posts(slug))
            .filter((post) => made.has(post.address)),
          micros: received.micros,
        },
        {
          briefs,
          publications: await rows(
            'SELECT p.key_ AS `key`, p.state, p.address, a.standing, a.brief FROM publication p JOIN article a ON a.id = p.article',
          ),
          spentMicros: (await patient('GET', '/limit')).spentMicros,
          liveOf: (brief) => (brief.pipeline === branched ? 1 : ids.length),
          draftsOf: (brief) => (brief.pipeline === branched ? blocks.articles - 1 : 0),
        },
      );
  if (editors) Object.assign(found, await heldAgainst(editors, postsThere(standIns, sites, made), wrong));
  for (const more of [watched, called]) {
    wrong.push(...more.wrong);
    found.lost += more.lost;
    found.doubled += more.doubled;
  }
  const stuck = await rows(
    "SELECT r.id, r.brief, r.path, r.kind, r.holder FROM step_run r WHERE r.state = 'running' AND r.started_at < DATE_SUB(UTC_TIMESTAMP(3), INTERVAL 3 MINUTE)",
  );
  for (const run of stuck) wrong.push(`hung: ${JSON.stringify(run)}`);
  for (const line of wrong) console.error(line);
  if (wrong.length > 0)
    for (const brief of briefs.filter((b) => !['out', 'set aside'].includes(b.standing)))
      console.error(
        JSON.stringify(
          (await patient('GET', `/briefs/${brief.id}`)).runs
            .filter((run) => run.state !== 'done')
            .map(({ gave: _, ...run }) => run),
        ),
      );
  const { publications, lost, doubled, untrue, perWay, personActs } = found;
  failed = lost + doubled + untrue + stuck.length + Math.max(0, overLimit) > 0;
  if (failed)
    for (const name of WORKERS) console.error(readFileSync(join(folder, `${name}.log`), 'utf8').slice(-3_000));
  console.log(
    JSON.stringify({
      faults: struck(),
      briefs: briefs.length,
      rows: sheetRows,
      calls: calls.length,
      acts,
      publications,
      lost,
      doubled,
      overLimit: Math.max(0, overLimit),
      untrue,
      uncertain: uncertain.size,
      ...(values.ways ? { personActs, perWay } : {}),
      hung: stuck.length,
      ...(machines ? { machineKills } : { leastAtAPoint: Math.min(...Object.values(atPoints)) }),
      seconds: Math.round((Date.now() - begun) / 1_000),
    }),
  );
} finally {
  await database?.close().catch(() => undefined);
  await all.stop();
  await machines?.stop();
  for (const proxy of proxies.values()) proxy.close();
  await standIns.close();
  if (!values.keep) rmSync(folder, { recursive: true, force: true });
}
process.exit(failed === false ? 0 : 1);
