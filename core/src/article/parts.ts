import { fold as folded, wordsOfText } from '../sentence/sentence.ts';
import type { Block, Inline } from './block.ts';
import type { Sayings } from './sayings.ts';

/**
 * The words somebody looks for, strong where a section first says them: the key phrase as it stands, in any case, once
 * above the first heading and once under each. Links, quotations and code are left as they are.
 */
export function emphasised(body: readonly Block[], phrase: string, language: string): Block[] {
  const words = wordsOfText(phrase, language);
  if (words.length === 0) return [...body];
  const pattern = new RegExp(
    `(?<![\\p{L}\\p{N}])${words.map((word) => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('[\\s-]+')}(?:s|es)?(?![\\p{L}\\p{N}])`,
    'iu',
  );
  let open = true;
  return body.map((block): Block => {
    if (block.type === 'heading') open = true;
    if (!open || block.type !== 'paragraph') return block;
    const content = strongAt(block.content, pattern);
    if (!content) return block;
    open = false;
    return { ...block, content };
  });
}

/** Null where the words do not stand in a part that may be made strong. */
function strongAt(content: readonly Inline[], pattern: RegExp): Inline[] | null {
  for (const [i, part] of content.entries()) {
    if (part.link || part.marks) continue;
    const found = pattern.exec(part.text);
    if (!found) continue;
    const pieces: Inline[] = [
      { text: part.text.slice(0, found.index) },
      { text: found[0], marks: ['strong'] },
      { text: part.text.slice(found.index + found[0].length) },
    ];
    return [...content.slice(0, i), ...pieces.filter(({ text }) => text !== ''), ...content.slice(i + 1)];
  }
  return null;
}

/** Signs that are pictures where they stand alone, with those that belong to them. */
const SIGN = String.raw`(?:\p{Emoji_Presentation}|\p{Extended_Pictographic}\u{fe0f})\p{Emoji_Modifier}?\u{fe0f}?`;
const EMOJI = new RegExp(String.raw`${SIGN}(?:\u{200d}${SIGN})*\s?`, 'gu');

/** Figures drawn as keys, '1️⃣': the figure is left. */
const KEYS = /([0-9#*])\u{fe0f}?\u{20e3}/gu;

/** A text without emoji, as a house that does not want any has it. */
export const withoutEmoji = (text: string): string => text.replace(KEYS, '$1').replace(EMOJI, '');

/** An article whose rest is shown once a reader asks for it: what stands above the first heading is seen at once. */
export function withFold(body: readonly Block[], { readOn }: Pick<Sayings, 'readOn'>): Block[] {
  const at = body.findIndex(({ type }) => type === 'heading');
  if (at <= 0) return [...body];
  return [...body.slice(0, at), { type: 'fold', id: 'fold', words: readOn }, ...body.slice(at)];
}

/** An article with others of ours to read next, at its end; as it was where there are none. */
export function withRelated(
  body: readonly Block[],
  pages: readonly { title: string; address: string; article?: string | undefined }[],
  { readNext }: Pick<Sayings, 'readNext'>,
): Block[] {
  if (pages.length === 0) return [...body];
  return [
    ...body,
    {
      type: 'related articles',
      id: 'related',
      heading: readNext,
      items: pages.map(({ title, address, article }) => [
        { text: title, link: article === undefined ? { to: 'address', address } : { to: 'article', article } },
      ]),
    },
  ];
}

/**
 * Words of a quotation as they stand in a passage; null where they do not. Signs and spaces may differ, words may not.
 * @param quote what somebody says stands there
 */
export function quotedFrom(passage: string, quote: string): string | null {
  const wanted = wordsOfText(folded(quote));
  if (wanted.length < 4) return null;
  const places = [...passage.matchAll(/[\p{L}\p{N}]+(?:[.,'’:][\p{L}\p{N}]+)*/gu)];
  const words = places.map(([word]) => folded(word));
  const asked = wanted.join(' ');
  for (let from = 0; from + 1 <= words.length; from++) {
    if (words[from] !== wanted[0]) continue;
    let to = from;
    let said = '';
    while (to < words.length && said.length < asked.length) said += `${said === '' ? '' : ' '}${words[to++]}`;
    if (said !== asked) continue;
    const [first, last] = [places[from]!, places[to - 1]!];
    const end = last.index + last[0].length;
    return passage.slice(first.index, end) + (/^[.!?]/.exec(passage.slice(end))?.[0] ?? '');
  }
  return null;
}

/** After which block a quotation of a passage stands: the last that rests on it; null where none does. */
export function restingOn(body: readonly Block[], passage: string): number | null {
  const at = body.findLastIndex(
    (block) => block.type === 'paragraph' && block.evidence?.some((one) => one.passage === passage),
  );
  return at < 0 ? null : at + 1;
}
