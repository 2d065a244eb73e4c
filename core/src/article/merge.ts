import { diff3Merge } from 'node-diff3';
import type { ArticleDocument, Block, Inline } from './block.ts';
import { sliceInline } from './inline.ts';
import { blockText } from './text.ts';

/** Where two people said different things in the same place: both stand, for a person to choose. */
export interface Clash {
  /** The block with their words, and the one with mine below it; or a field of the article. */
  place: { theirs: string; mine: string } | { field: 'title' | 'description' };
  theirs: string;
  mine: string;
}

export interface Merged {
  article: ArticleDocument;
  clashes: Clash[];
}

/**
 * What two people made of the same article, brought together (a three-way merge, by block and within a paragraph by word).
 * What one of them changed counts; where both changed the same words both stand, theirs first. No word that either wrote is
 * lost, and a block one of them removed stays where the other changed it.
 * @param base what both began from
 */
export function mergeArticles(base: ArticleDocument, mine: ArticleDocument, theirs: ArticleDocument): Merged {
  const clashes: Clash[] = [];
  const body = mergeBodies(base.body, mine.body, theirs.body, clashes);
  const article: ArticleDocument = { ...theirs, body };
  for (const name of ['slug', 'keyPhrase', 'keywords', 'hashtags', 'titleChoices', 'language'] as const)
    if (!same(mine[name], base[name])) (article as unknown as Record<string, unknown>)[name] = mine[name];
  // What was put back is not put back a second time.
  if (!same(mine.replaced, base.replaced)) {
    article.replaced = mine.replaced;
  }
  for (const field of ['title', 'description'] as const) {
    if (same(mine[field], base[field]) || same(mine[field], theirs[field])) continue;
    article[field] = mine[field];
    if (same(theirs[field], base[field])) continue;
    clashes.push({ place: { field }, theirs: theirs[field], mine: mine[field] });
    // A title of theirs is kept among those to choose from.
    if (field === 'title' && !article.titleChoices.includes(theirs.title))
      article.titleChoices = [...article.titleChoices, theirs.title];
  }
  return { article, clashes };
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

const byId = (body: readonly Block[]): Map<string, Block> => new Map(body.map((block) => [block.id, block]));

function mergeBodies(
  base: readonly Block[],
  mine: readonly Block[],
  theirs: readonly Block[],
  clashes: Clash[],
): Block[] {
  const [was, own, other] = [byId(base), byId(mine), byId(theirs)];
  const taken = new Set([...was.keys(), ...own.keys(), ...other.keys()]);
  const blocks = new Map<string, Block[]>();
  for (const { id } of theirs) {
    const mineNow = own.get(id);
    const before = was.get(id);
    const there = other.get(id)!;
    if (mineNow) blocks.set(id, mergeBlock(before, mineNow, there, taken, clashes));
    // Removed here, and changed there: it stays.
    else if (!before || !same(before, there)) blocks.set(id, [there]);
  }
  for (const block of mine) {
    const { id } = block;
    if (other.has(id)) continue;
    const before = was.get(id);
    if (!before || !same(before, block)) blocks.set(id, [block]);
  }
  const moved = !same(commonOrder(theirs, was, own), commonOrder(base, other, own));
  const [spine, beside] = moved ? [theirs, mine] : [mine, theirs];
  return woven(
    spine.map(({ id }) => id).filter((id) => blocks.has(id)),
    beside.map(({ id }) => id),
    blocks,
  );
}

/** The order of the blocks that stand in all three. */
function commonOrder(
  body: readonly Block[],
  ...others: readonly [ReadonlyMap<string, Block>, ReadonlyMap<string, Block>]
): string[] {
  return body.map(({ id }) => id).filter((id) => others.every((other) => other.has(id)));
}

/** The blocks in one order, what only stands in the other behind the one it stands behind there. */
function woven(
  spine: readonly string[],
  beside: readonly string[],
  blocks: ReadonlyMap<string, readonly Block[]>,
): Block[] {
  const order = [...spine];
  const there = new Set(order);
  for (const [i, id] of beside.entries()) {
    if (there.has(id) || !blocks.has(id)) continue;
    const behind = beside.slice(0, i).findLast((one) => there.has(one));
    order.splice(behind === undefined ? 0 : order.indexOf(behind) + 1, 0, id);
    there.add(id);
  }
  return order.flatMap((id) => blocks.get(id)!);
}

function mergeBlock(
  base: Block | undefined,
  mine: Block,
  theirs: Block,
  taken: Set<string>,
  clashes: Clash[],
): Block[] {
  if (same(mine, theirs) || (base && same(base, mine))) return [theirs];
  if (base && same(base, theirs)) return [mine];
  const words = base && mergeWords(base, mine, theirs);
  if (words) return [words];
  const below = { ...mine, id: unused(mine.id, taken) };
  clashes.push({
    place: { theirs: theirs.id, mine: below.id },
    theirs: blockText(theirs),
    mine: blockText(mine),
  });
  return [theirs, below];
}

function unused(id: string, taken: Set<string>): string {
  let n = 2;
  while (taken.has(`${id}-${n}`)) n++;
  taken.add(`${id}-${n}`);
  return `${id}-${n}`;
}

/** Kinds that are one text, which is merged word by word. */
const PROSE = new Set<Block['type']>(['paragraph', 'closing', 'standing text', 'disclosure']);

type Prose = Extract<Block, { type: 'paragraph' | 'closing' | 'standing text' | 'disclosure' }>;
const isProse = (block: Block): block is Prose => PROSE.has(block.type);

function mergeWords(base: Block, mine: Block, theirs: Block): Block | null {
  if (!isProse(base) || !isProse(mine) || !isProse(theirs)) return null;
  if (mine.type !== base.type || theirs.type !== base.type) return null;
  const [a, o, b] = [mine, base, theirs].map(({ content }) => partsOf(content));
  const keys = (parts: readonly Inline[]) => parts.map((part) => JSON.stringify(part));
  const found = diff3Merge(keys(a!), keys(o!), keys(b!), { excludeFalseConflicts: true });
  if (found.some(({ ok }) => !ok)) return null;
  const content = found.flatMap(({ ok }) => ok ?? []).map((key) => JSON.parse(key) as Inline);
  return { ...theirs, content: rejoined(content), ...evidenceOf(base, mine, theirs) };
}

/** Evidence either of them added; what one of them took away goes. */
function evidenceOf(base: Block, mine: Block, theirs: Block): { evidence?: NonNullable<Block['evidence']> } {
  const name = ({ passage, digest }: { passage: string; digest: string }) => `${passage} ${digest}`;
  const [was, own, other] = [base, mine, theirs].map(({ evidence }) => new Set((evidence ?? []).map(name)));
  const all = new Map([...(theirs.evidence ?? []), ...(mine.evidence ?? [])].map((one) => [name(one), one]));
  const kept = [...all].filter(([key]) => !was!.has(key) || (own!.has(key) && other!.has(key))).map(([, one]) => one);
  return kept.length > 0 ? { evidence: kept } : {};
}

/** A text in words, blanks and signs. */
export function partsOf(content: readonly Inline[]): Inline[] {
  const text = content.map((part) => part.text).join('');
  const out: Inline[] = [];
  let from = 0;
  for (const [word] of text.matchAll(/[\p{L}\p{N}]+|\s+|[^\p{L}\p{N}\s]/gu)) {
    out.push(...sliceInline(content, from, from + word.length));
    from += word.length;
  }
  return out;
}

/** Neighbours that look alike as one. */
export function rejoined(content: readonly Inline[]): Inline[] {
  const out: Inline[] = [];
  for (const part of content) {
    const last = out.at(-1);
    const { text: _, ...look } = part;
    if (last) {
      const { text, ...before } = last;
      if (same(before, look)) {
        out[out.length - 1] = { ...last, text: text + part.text };
        continue;
      }
    }
    out.push(part);
  }
  return out;
}
