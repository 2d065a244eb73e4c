import { type Accepted, named } from '../ports/adapters/writerReply.ts';
import type { Titles } from './writing/shapes.ts';

/** A title as it stands: spaces evened, no full stop at its end. */
export const titleText = (title: string): string => title.replace(/\s+/g, ' ').trim().replace(/[.]$/, '');

/** What a title may be. */
interface TitleRules {
  most: number;
  /** What the article is about: alone it is no title where several ideas were asked for. */
  subject: string;
}

const same = (a: string, b: string) =>
  a
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim() ===
  b
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

function faultsOf(titles: readonly string[], i: number, { most, subject }: TitleRules): string[] {
  const title = titles[i]!;
  const faults: string[] = [];
  if (title === '') faults.push('is empty');
  if (title.length > most) faults.push(`has ${title.length} characters, more than ${most}`);
  if (/\*\*|__|`|^#|^["“„].*["”“]$/.test(title)) faults.push('has marks of Markdown or stands in quotation marks');
  if (same(title, subject) && titles.some((other) => !same(other, subject))) faults.push('is the bare subject');
  if (titles.slice(0, i).some((other) => same(other, title))) faults.push('stands there twice');
  return faults;
}

/**
 * Takes titles that fit: none is cut, and one that is too long, bare or there twice is refused. Where some fit, these are
 * taken; where none does it is said what is wrong with each. The last time what is not too long is taken all the same.
 */
export function acceptTitles(rules: TitleRules) {
  return (reply: Titles, last: boolean): Accepted<Titles> => {
    const titles = reply.titles.map(titleText);
    const found = titles.map((title, i) => ({ title, faults: faultsOf(titles, i, rules) }));
    const well = found.flatMap(({ title, faults }) => (faults.length === 0 ? [title] : []));
    if (well.length > 0) return { ok: true, value: { ...reply, titles: well } };
    const short = titles.filter((title) => title !== '' && title.length <= rules.most);
    if (last && short.length > 0) return { ok: true, value: { ...reply, titles: [...new Set(short)] } };
    return { ok: false, problem: named(found.map(({ title, faults }) => `the title ‘${title}’ ${faults.join(', ')}`)) };
  };
}
