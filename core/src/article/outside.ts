import { diffComm } from 'node-diff3';
import type { Block } from './block.ts';
import { compareWords, type WordsCompared } from './compare.ts';

/** A part of a text as a blog shows it. */
export interface ShownPart {
  /** What it is told by: its words, and where its links lead. */
  text: string;
  /** What it is as a block of an article; null for what is none by itself, as a picture. */
  block: Block | null;
}

/** A part of ours, with the id of the block it is shown for. */
export interface OurPart extends ShownPart {
  of: string;
}

/** A place of a text on a blog: as we sent it, or otherwise. */
export type OutsidePlace =
  | { changed: false; blocks: string[] }
  | {
      changed: true;
      /** Ids of our blocks that stand here; none where something was put in. */
      blocks: string[];
      words: WordsCompared[];
      /** What stands there on the blog. */
      put: Block[];
      /** Pictures and the like that stand there and cannot be taken over by themselves. */
      others: number;
    };

/** What becomes of a place that was changed on the blog. */
export type OutsideChoice = 'theirs' | 'ours' | 'both';

interface Segment {
  ours: OurPart[];
  theirs: ShownPart[];
  same: boolean;
}

/**
 * A text as it stands on a blog beside the one that was sent, place by place. A block of ours is never divided: where a
 * part of it was changed, all of it is one place.
 */
export function outsidePlaces(ours: readonly OurPart[], theirs: readonly ShownPart[]): OutsidePlace[] {
  const rows = segments(ours, theirs);
  const changed = new Set(rows.filter(({ same }) => !same).flatMap((row) => row.ours.map(({ of }) => of)));
  const places: OutsidePlace[] = [];
  let open: { blocks: Set<string>; ours: OurPart[]; theirs: ShownPart[] } | null = null;
  const close = () => {
    if (open) places.push(changedPlace([...open.blocks], open.ours, open.theirs));
    open = null;
  };
  for (const row of rows) {
    const owner = row.ours.at(0)?.of;
    if (row.same && owner !== undefined && !changed.has(owner)) {
      close();
      const last = places.at(-1);
      if (last?.changed === false) {
        if (last.blocks.at(-1) !== owner) last.blocks.push(owner);
      } else places.push({ changed: false, blocks: [owner] });
      continue;
    }
    // A place goes on as long as it is the same block; others are places of their own.
    if (open && !(owner !== undefined && open.blocks.has(owner))) close();
    open ??= { blocks: new Set(), ours: [], theirs: [] };
    for (const part of row.ours) open.blocks.add(part.of);
    open.ours = open.ours.concat(row.ours);
    open.theirs = open.theirs.concat(row.theirs);
  }
  close();
  return places;
}

const key = ({ text }: ShownPart): string => text.normalize('NFC').replace(/\s+/g, ' ').trim();

/** Parts of both in order: one beside one where they are the same, or as many were changed as there were. */
function segments(ours: readonly OurPart[], theirs: readonly ShownPart[]): Segment[] {
  const rows: Segment[] = [];
  let [i, j] = [0, 0];
  for (const part of diffComm(ours.map(key), theirs.map(key))) {
    if (part.common) {
      for (const _ of part.common) rows.push({ ours: [ours[i++]!], theirs: [theirs[j++]!], same: true });
      continue;
    }
    const [was, is] = [ours.slice(i, i + part.buffer1.length), theirs.slice(j, j + part.buffer2.length)];
    i += was.length;
    j += is.length;
    if (was.length === is.length)
      for (const [n, one] of was.entries()) rows.push({ ours: [one], theirs: [is[n]!], same: false });
    else rows.push({ ours: was, theirs: is, same: false });
  }
  return rows;
}

function changedPlace(blocks: string[], ours: readonly OurPart[], theirs: readonly ShownPart[]): OutsidePlace {
  const said = (parts: readonly ShownPart[]) => parts.map(({ text }) => text.split('\0')[0]).join('\n');
  return {
    changed: true,
    blocks,
    words: compareWords(said(ours), said(theirs)),
    put: theirs.flatMap(({ block }) => block ?? []),
    others: theirs.filter(({ block }) => block === null).length,
  };
}

/**
 * Our text with what was chosen of theirs: a paragraph that stays one keeps its id and what it rests on; what was put in
 * rests on nothing yet.
 * @param choices one for every changed place, in order
 */
export function settledBody(
  body: readonly Block[],
  places: readonly OutsidePlace[],
  choices: readonly OutsideChoice[],
): Block[] {
  const taken = new Set(body.map(({ id }) => id));
  const out: Block[] = [];
  let [at, n] = [0, 0];
  const upTo = (id: string | undefined, including: boolean) => {
    const end = id === undefined ? -1 : body.findIndex((block) => block.id === id);
    while (at < end + (including ? 1 : 0)) out.push(body[at++]!);
  };
  for (const place of places) {
    if (!place.changed) {
      upTo(place.blocks.at(-1), true);
      continue;
    }
    const choice = choices[n++] ?? 'ours';
    upTo(place.blocks[0], false);
    const ours = body.filter(({ id }) => place.blocks.includes(id));
    if (choice !== 'theirs') out.push(...ours);
    if (choice !== 'ours') out.push(...taking(place.put, choice === 'theirs' ? ours : [], taken));
    if (place.blocks.length > 0) {
      const end = body.findIndex(({ id }) => id === place.blocks.at(-1));
      at = Math.max(at, end + 1);
    }
  }
  return [...out, ...body.slice(at)];
}

/** Their blocks under ids of ours; one in the place of one is the same block with other words. */
function taking(put: readonly Block[], ours: readonly Block[], taken: Set<string>): Block[] {
  return put.map((block, i) => {
    const was = put.length === ours.length ? ours[i] : undefined;
    if (was?.type === block.type)
      return { ...was, ...block, id: was.id, ...(was.evidence ? { evidence: was.evidence } : {}) } as Block;
    let n = 1;
    while (taken.has(`o${n}`)) n++;
    taken.add(`o${n}`);
    return { ...block, id: `o${n}` };
  });
}
