import type { Block, Evidence } from './block.ts';
import { blockText } from './text.ts';

/** Share of the shorter text's words that must stand in the other for one to come from the other. */
const LEAST_SHARED = 0.5;

/**
 * Gives blocks that were read from an edited text the identities and the evidence of the blocks they come from: what was
 * left as it was is the former block itself, also where it was moved; what was reworded keeps its id and its evidence; both
 * parts of a split block and the whole of joined ones rest on all they came from. What is wholly new rests on nothing.
 * @param same one text for two blocks that say and look the same
 */
export function alignBlocks(
  former: readonly Block[],
  edited: readonly Block[],
  same: { former: (block: Block) => string; edited: (block: Block) => string } = { former: key, edited: key },
): Block[] {
  const from = matched(former.map(same.former), edited.map(same.edited));
  const taken = new Set(from.filter((at) => at !== null));
  const open = former.map((_, i) => i).filter((i) => !taken.has(i));
  // A block that names itself needs no likeness.
  const named = edited.map(({ id }, i) => (from[i] === null ? open.find((at) => former[at]!.id === id) : undefined));
  const related = edited.map((block, i) => {
    if (from[i] !== null) return [];
    return named[i] === undefined ? relatives(block, former, open) : [{ at: named[i], shared: Number.MAX_VALUE }];
  });
  const heir = heirs(related, edited.length);
  for (const [i, at] of inOrder(former, edited, from, heir, taken)) heir[i] = at;
  const fresh = freshIds(former);
  return edited.map((block, i): Block => {
    const whole = from[i];
    if (whole !== null && whole !== undefined) return former[whole]!;
    const own = heir[i] ?? null;
    const evidence = united(
      related[i]!.map(({ at }) => at)
        .sort((a, b) => a - b)
        .map((at) => former[at]!.evidence ?? []),
    );
    const { evidence: _, vouched: __, ...bare } = block;
    const text = blockText(block);
    const vouched = own === null ? [] : (former[own]!.vouched ?? []).filter(({ words }) => text.includes(words));
    return {
      ...(bare as Block),
      id: own === null ? fresh() : former[own]!.id,
      ...(evidence.length > 0 ? { evidence } : {}),
      ...(vouched.length > 0 ? { vouched } : {}),
    } as Block;
  });
}

/** What a block says and looks like, whoever it is. */
function key(block: Block): string {
  const { id: _, evidence: __, vouched: ___, ...rest } = block;
  return JSON.stringify(rest);
}

/** For each edited block the former one that is the same: the longest common run of them in order, then what was moved. */
function matched(former: readonly string[], edited: readonly string[]): (number | null)[] {
  const width = edited.length + 1;
  const longest = new Uint32Array((former.length + 1) * width);
  for (let i = former.length - 1; i >= 0; i--)
    for (let j = edited.length - 1; j >= 0; j--)
      longest[i * width + j] =
        former[i] === edited[j]
          ? longest[(i + 1) * width + j + 1]! + 1
          : Math.max(longest[(i + 1) * width + j]!, longest[i * width + j + 1]!);
  const out: (number | null)[] = edited.map(() => null);
  const left = new Map<string, number[]>();
  let [i, j] = [0, 0];
  while (i < former.length) {
    if (j < edited.length && former[i] === edited[j]) out[j++] = i++;
    else if (j < edited.length && longest[i * width + j + 1]! > longest[(i + 1) * width + j]!) j++;
    else {
      left.set(former[i]!, [...(left.get(former[i]!) ?? []), i]);
      i++;
    }
  }
  for (const [at, text] of edited.entries()) if (out[at] === null) out[at] = left.get(text)?.shift() ?? null;
  return out;
}

interface Relative {
  at: number;
  shared: number;
}

/** Former blocks whose words stand in a block, or whose text holds the block's words; the nearest first. */
function relatives(block: Block, former: readonly Block[], open: readonly number[]): Relative[] {
  const words = wordsOf(block);
  return open
    .map((at) => {
      const others = wordsOf(former[at]!);
      let shared = 0;
      for (const [word, n] of words) shared += Math.min(n, others.get(word) ?? 0);
      const least = Math.min(sizeOf(words), sizeOf(others));
      return { at, shared, near: least === 0 ? 0 : shared / least };
    })
    .filter(({ near }) => near >= LEAST_SHARED)
    .sort((a, b) => b.shared - a.shared || a.at - b.at);
}

function wordsOf(block: Block): Map<string, number> {
  const out = new Map<string, number>();
  for (const word of blockText(block)
    .toLowerCase()
    .match(/[\p{L}\p{N}]+/gu) ?? [])
    out.set(word, (out.get(word) ?? 0) + 1);
  return out;
}

function sizeOf(words: ReadonlyMap<string, number>): number {
  return [...words.values()].reduce((sum, n) => sum + n, 0);
}

/** Who goes on under which former block's id: the nearest relative gets it, each id once. */
function heirs(related: readonly (readonly Relative[])[], count: number): (number | null)[] {
  const out: (number | null)[] = new Array<number | null>(count).fill(null);
  const gone = new Set<number>();
  const claims = related
    .flatMap((relatives, i) => relatives.map(({ at, shared }) => ({ i, at, shared })))
    .sort((a, b) => b.shared - a.shared || a.i - b.i || a.at - b.at);
  for (const { i, at } of claims) {
    if (out[i] !== null || gone.has(at)) continue;
    out[i] = at;
    gone.add(at);
  }
  return out;
}

/** Between two blocks that stayed, what is left of one type on both sides is the same block with other words. */
function inOrder(
  former: readonly Block[],
  edited: readonly Block[],
  from: readonly (number | null)[],
  heir: readonly (number | null)[],
  taken: ReadonlySet<number>,
): [number, number][] {
  const inherited = new Set(heir.filter((at) => at !== null));
  const out: [number, number][] = [];
  let low = 0;
  for (let j = 0; j < edited.length; ) {
    const whole = from[j];
    if (whole !== null && whole !== undefined) {
      low = whole + 1;
      j++;
      continue;
    }
    let end = j;
    while (end < edited.length && from[end] === null) end++;
    const high = end < edited.length ? from[end]! : former.length;
    const left = former
      .map((block, at) => ({ block, at }))
      .filter(({ at }) => at >= low && at < high && !taken.has(at) && !inherited.has(at));
    for (let k = j; k < end; k++) {
      if (heir[k] !== null) continue;
      const found = left.findIndex(({ block }) => block.type === edited[k]!.type);
      if (found >= 0) out.push([k, left.splice(found, 1)[0]!.at]);
    }
    j = end;
  }
  return out;
}

function united(lists: readonly (readonly Evidence[])[]): Evidence[] {
  const out = new Map<string, Evidence>();
  for (const evidence of lists.flat()) {
    const name = `${evidence.passage}\n${evidence.digest}`;
    if (!out.has(name)) out.set(name, evidence);
  }
  return [...out.values()];
}

/** Ids no block had. */
function freshIds(former: readonly Block[]): () => string {
  let n = Math.max(0, ...former.map(({ id }) => Number(/^b(\d+)$/.exec(id)?.[1] ?? 0)));
  return () => `b${++n}`;
}
