import { Parser } from 'htmlparser2';
import { readJson } from '../../ground/reading/json.ts';
import { longestList } from './jsonList.ts';

/** One product as its list has it: text by column. Columns of what lies within another are named with a dot. */
export type Record_ = Readonly<Record<string, string>>;

export type ReadRecords =
  | { ok: true; records: Record_[]; format: 'CSV' | 'XML' | 'JSON' }
  | { ok: false; problem: string };

/** Products of a list that are read. */
export const MOST_RECORDS = 50_000;
const MOST_COLUMNS = 200;
const MOST_DEEP = 40;
const LONGEST = 20_000;
/** Parts of a text the name of its products is looked for in. */
const TELLING = 8;

/**
 * The products of a list in JSON: the longest array of objects in it, at most three levels down.
 * @param bytes in UTF-8
 */
export function jsonRecords(bytes: Buffer): ReadRecords {
  const list = longestList(bytes, MOST_RECORDS);
  if (!list.ok) return list;
  if (list.count === 0) return { ok: false, problem: 'its JSON holds no list of products' };
  const records: Record_[] = [];
  for (let i = 0; i < list.ranges.length; i += 2) {
    const read = readJson(bytes.toString('utf8', list.ranges[i], list.ranges[i + 1]));
    if (!read.ok) return { ok: false, problem: `entry ${records.length + 1}: ${read.problem}` };
    records.push(flattened(read.value as Record<string, unknown>));
  }
  return { ok: true, format: 'JSON', records };
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

function flattened(value: Record<string, unknown>): Record_ {
  const out: Record<string, string> = {};
  let columns = 0;
  const set = (name: string, said: string) => {
    if (!Object.hasOwn(out, name)) columns++;
    out[name] = said.slice(0, LONGEST);
  };
  const put = (name: string, inner: unknown, levels: number): void => {
    if (columns >= MOST_COLUMNS) return;
    if (isObject(inner)) {
      if (levels > 0)
        for (const [key, one] of Object.entries(inner)) put(name === '' ? key : `${name}.${key}`, one, levels - 1);
    } else if (Array.isArray(inner)) {
      const texts = inner.filter((one) => typeof one === 'string' || typeof one === 'number');
      if (texts.length > 0) set(name, texts.slice(0, LONGEST).join(', '));
      else if (isObject(inner[0])) put(name, inner[0], levels - 1);
    } else if (inner !== null && inner !== undefined) set(name, String(inner));
  };
  put('', value, 3);
  return out;
}

/**
 * The products of a list in XML: elements of the name that comes most often as a sibling, each with what is in it as
 * columns.
 * @param text its parts, from the beginning each time: it is never whole in memory
 */
export function xmlRecords(text: () => Iterable<string>): ReadRecords {
  if (definesEntities(text())) return { ok: false, problem: 'it defines entities of its own, which are not read' };
  const name = repeatedName(text());
  if (name === null) return { ok: false, problem: 'it holds no list of products' };
  const records: Record_[] = [];
  const path: string[] = [];
  let now: Record<string, string> | null = null;
  let columns = 0;
  let problem: string | null = null;
  const put = (column: string, said: string) => {
    if (!now || said.trim() === '') return;
    const before = now[column];
    if (before === undefined && ++columns > MOST_COLUMNS) return;
    if (before !== undefined && before.length >= LONGEST) return;
    now[column] = (before === undefined ? said : `${before}${said}`).slice(0, LONGEST);
  };
  const parser = new Parser(
    {
      onopentag(written, attributes) {
        const local = localOf(written);
        if (now === null) {
          if (local !== name || records.length >= MOST_RECORDS) return;
          now = {};
          columns = 0;
          path.length = 0;
        } else {
          path.push(local);
          if (path.length > MOST_DEEP) problem = `its elements lie more than ${MOST_DEEP} deep in each other`;
          // The second of the same name is parted from the first.
          const column = path.join('.');
          if ((now[column]?.length ?? LONGEST) < LONGEST) now[column] += ', ';
        }
        for (const [key, value] of Object.entries(attributes))
          if (!key.startsWith('xmlns')) put([...path, localOf(key)].join('.'), value);
      },
      ontext(said) {
        if (now && path.length > 0) put(path.join('.'), said);
      },
      onclosetag() {
        if (now === null) return;
        if (path.length > 0) path.pop();
        else {
          records.push(evened(now));
          now = null;
        }
      },
    },
    { xmlMode: true, decodeEntities: true },
  );
  for (const part of text()) {
    parser.write(part);
    if (problem !== null) return { ok: false, problem };
  }
  parser.end();
  return { ok: true, format: 'XML', records };
}

function definesEntities(text: Iterable<string>): boolean {
  const begins = '<!ENTITY';
  let before = '';
  for (const part of text) {
    if (/<!ENTITY/i.test(before + part)) return true;
    // One may begin in a part and go on in the next.
    before = part.slice(1 - begins.length);
  }
  return false;
}

const localOf = (written: string): string => written.slice(written.indexOf(':') + 1);

function evened(record: Record<string, string>): Record_ {
  return Object.fromEntries(
    Object.entries(record).map(([key, said]) => [key, said.replace(/\s+/g, ' ').replace(/, $/, '').trim()]),
  );
}

/** The name of elements that stand beside each other most often and hold something, the outermost of equals. */
function repeatedName(text: Iterable<string>): string | null {
  const counts = new Map<string, { times: number; depth: number; holds: boolean }>();
  const open: { name: string; holds: boolean }[] = [];
  let deep = false;
  const parser = new Parser(
    {
      onopentag(written, attributes) {
        if (open.length > MOST_DEEP * 2) deep = true;
        const holder = open.at(-1);
        if (holder) holder.holds = true;
        open.push({ name: localOf(written), holds: Object.keys(attributes).length > 0 });
      },
      onclosetag() {
        const closed = open.pop();
        if (!closed || open.length === 0) return;
        const known = counts.get(closed.name) ?? { times: 0, depth: open.length, holds: false };
        counts.set(closed.name, { ...known, times: known.times + 1, holds: known.holds || closed.holds });
      },
    },
    { xmlMode: true, decodeEntities: false },
  );
  // The first parts of a long list tell.
  let n = 0;
  for (const part of text) {
    parser.write(part);
    if (deep || ++n === TELLING) break;
  }
  const [best] = [...counts]
    .filter(([, { holds }]) => holds)
    .sort(([, a], [, b]) => a.depth - b.depth || b.times - a.times)
    .filter(([, { times }], _i, all) => times > 1 || all.length === 1);
  return best?.[0] ?? null;
}
