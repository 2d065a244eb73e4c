import type { Block, Inline } from '../article/block.ts';
import { plainInline } from '../article/inline.ts';
import { chooseVariant } from '../variant/variant.ts';
import type { HouseStyleDocument, StandingPlace } from './document.ts';

/** What the house puts into every article, begins the ids of its blocks. */
const MARK = 'house';
export const isOfHouse = ({ id }: Pick<Block, 'id'>): boolean => id.startsWith(MARK);

type Standing = Pick<HouseStyleDocument, 'standing' | 'call' | 'closingLink' | 'disclosure'>;

/** Fills the fields of a text, for markup without letting them be markup; null where it cannot be filled, and then it is left out. */
export type FillText = (text: string, markup?: boolean) => string | null;

/**
 * An article with the standing texts, the call and the disclosure of its house; those it had before give way. Of several
 * texts for a place one is chosen, the same for the same seed.
 */
export function withStanding(
  body: readonly Block[],
  style: Standing,
  { seed, fill }: { seed: string; fill: FillText },
): { body: Block[]; leftOut: string[] } {
  let out = body.filter((block) => !isOfHouse(block));
  const leftOut: string[] = [];
  const filled = (text: string, markup = false): string | null => {
    const done = fill(text, markup);
    if (done === null) leftOut.push(text);
    return done === null || done.trim() === '' ? null : done.trim();
  };
  for (const [i, { at, section, texts, markup }] of style.standing.entries()) {
    const text = filled(markup ? texts[0]! : chooseVariant(texts, `${seed} ${MARK} ${i}`), markup);
    if (text === null) continue;
    const blocks = markup
      ? [{ type: "owner's markup" as const, id: `${MARK}${i + 1}x1`, markup: text }]
      : text
          .split(/\n{2,}/)
          .map((part, n): Block => ({ type: 'standing text', id: `${MARK}${i + 1}x${n + 1}`, content: inline(part) }));
    const where = placeOf(out, at, section);
    out = [...out.slice(0, where), ...blocks, ...out.slice(where)];
  }
  const { call, closingLink, disclosure } = style;
  if (call) {
    const [before, button, address] = [filled(call.before || ' ') ?? '', filled(call.button), filled(call.address)];
    if (button !== null && address !== null && leadsSomewhere(address))
      out.push({
        type: 'call to action',
        id: `${MARK}call`,
        content: plainInline(before),
        button,
        link: { to: 'address', address },
        size: call.size,
        side: call.side,
      });
    else if (address !== null && !leadsSomewhere(address)) leftOut.push(call.address);
  }
  if (closingLink) {
    const { before, words, address } = closingLink;
    const [lead, said, to] = [filled(before || ' ') ?? '', filled(words), filled(address)];
    if (said !== null && to !== null && leadsSomewhere(to))
      out.push({
        type: 'standing text',
        id: `${MARK}link`,
        content: [...plainInline(lead === '' ? '' : `${lead} `), { text: said, link: { to: 'address', address: to } }],
      });
    else if (to !== null && !leadsSomewhere(to)) leftOut.push(address);
  }
  const told = disclosure === '' ? null : filled(disclosure);
  if (told !== null) out.push({ type: 'disclosure', id: `${MARK}told`, content: inline(told) });
  return { body: out, leftOut };
}

/** Whether readers can be led there: an address on the web, a page of the blog itself, or somebody's mail. */
export const leadsSomewhere = (text: string): boolean => /^(?:https?:\/\/[^\s]+|\/[^\s]*|mailto:[^\s]+)$/.test(text);

/** Words with links as [words](address). */
function inline(text: string): Inline[] {
  const out: Inline[] = [];
  let at = 0;
  for (const match of text.matchAll(/\[([^\]\n]{1,300})\]\((https?:\/\/[^\s)]{1,900}|\/[^\s)]{0,900})\)/g)) {
    if (match.index > at) out.push({ text: text.slice(at, match.index) });
    out.push({ text: match[1]!, link: { to: 'address', address: match[2]! } });
    at = match.index + match[0].length;
  }
  if (at < text.length) out.push({ text: text.slice(at) });
  return out.map((part) => ({ ...part, text: part.text.replace(/\s+/g, ' ') }));
}

/** Before which block something stands. */
function placeOf(body: readonly Block[], at: StandingPlace, section: number): number {
  const lead = body[0]?.type === 'figure' && body[0].lead ? 1 : 0;
  const headings = body.flatMap((block, i) => (block.type === 'heading' && block.level === 2 ? [i] : []));
  switch (at) {
    case 'above the opening':
      return after(body, lead);
    case 'below the opening': {
      const opening = body.findIndex((block, i) => i >= lead && block.type === 'paragraph');
      return opening < 0 || (headings[0] !== undefined && opening > headings[0]) ? (headings[0] ?? lead) : opening + 1;
    }
    case 'before the first quotation': {
      const quote = body.findIndex(({ type }) => type === 'quote');
      return quote < 0 ? body.length : quote;
    }
    case 'after a section':
      return headings[Math.min(section, headings.length)] ?? body.length;
    default:
      return body.length;
  }
}

/** Past what the house put there already, so that several keep their order. */
function after(body: readonly Block[], from: number): number {
  let at = from;
  while (at < body.length && isOfHouse(body[at]!)) at++;
  return at;
}
