import {
  articleText,
  type Block,
  type Passage,
  type Person,
  plainInline,
  type StepOf,
  textDigest,
  withoutEmoji,
} from '@grivo/core';
import type { z } from 'zod';
import type { NotesField, OutlineField } from '../../nouns/articles/fields.ts';
import type { Result } from '../../ports/adapters/port.ts';
import { good } from '../../ports/adapters/port.ts';
import type { WritingRequest } from '../../ports/adapters/writer.ts';
import { acceptBlocks } from './blocksAccepted.ts';
import { withFurther } from './further.ts';
import type { NumberedPassage } from './promptParts.ts';
import { houseRules, pointsPrompt, sectionPrompt, unsourcedRules } from './prompts.ts';
import { rankPassages } from './selection.ts';
import { BlocksShape, PointsShape } from './shapes.ts';

/** Asks the writer once; given by the step, so that composing knows nothing of services or money. */
export type AskWriter = <T>(request: WritingRequest<T>) => Promise<Result<T>>;

export interface Composition {
  subject: string;
  language: string;
  step: Pick<StepOf<'write'>, 'words' | 'tone' | 'parts' | 'unsourced'> & { person: Person };
  /** What the writer is told of the house style. */
  house: string;
  instruction: string;
  outline: OutlineField;
  /** What each section must say, by its heading, where notes were made. */
  notes: NotesField;
  /** What readers search for. */
  aim: { phrase: string; terms: string[] } | null;
  passages: readonly NumberedPassage[];
}

const MOST_PASSAGES_A_SECTION = 12;
/** A passage that speaks of the section with less than this share of the best one's weight is left out: it leads astray. */
const LEAST_SHARE = 0.4;
/** Share of the words that goes into the opening. */
const OPENING = 0.1;

export interface Composed {
  body: Block[];
  /** Headings of sections no passage speaks of. */
  leftOut: string[];
}

/** A section to be written; the opening has no heading. */
type Section = { at: number; heading: string | null; says: string; passages: readonly string[] };

/**
 * Writes an article section by section. Each section is given its own passages and what was said before; each block keeps
 * the passages it rests on as evidence.
 */
export async function compose(c: Composition, ask: AskWriter): Promise<Result<Composed>> {
  // Without a single passage nothing that is written rests on anything; with some, every section rests on its own.
  const unsourced = c.step.unsourced && c.passages.length === 0;
  const instructions = unsourced ? unsourcedRules(c.language) : houseRules(c.language);
  const body: Block[] = [];
  const leftOut: string[] = [];
  // The opening comes last: it answers from what stands below it.
  const sections: Section[] = [...c.outline.entries()].map(([i, section]) => ({ at: i + 1, ...section }));
  for (const section of [...sections, { at: 0, heading: null, says: '', passages: [] }]) {
    const written = await writtenSection(c, section, body, { instructions, unsourced }, ask);
    if (!written.ok) return written;
    const { heading, at } = section;
    if (written.value === null) {
      if (heading !== null) leftOut.push(heading);
    } else if (heading === null) body.unshift(...written.value);
    else body.push({ type: 'heading', id: `h${at}`, level: 2, text: heading }, ...written.value);
  }
  const further = await withFurther(
    body,
    { ...c, person: c.step.person, parts: c.step.parts, passages: unsourced ? [] : c.passages, instructions },
    ask,
  );
  if (!further.ok) return further;
  body.splice(0, body.length, ...further.value);
  if (c.step.parts.includes('key points')) {
    const points = await keyPoints(c, body, instructions, ask);
    if (!points.ok) return points;
    body.splice(firstHeading(body), 0, ...points.value);
  }
  if (c.step.parts.includes('contents')) body.splice(firstHeading(body), 0, { type: 'contents', id: 'c1' });
  return good({ body, leftOut });
}

/** The blocks of a section; null where it is left out, since nothing speaks of it. */
async function writtenSection(
  c: Composition,
  { at, ...section }: Section,
  body: readonly Block[],
  { instructions, unsourced }: { instructions: string; unsourced: boolean },
  ask: AskWriter,
): Promise<Result<Block[] | null>> {
  const { heading } = section;
  const fitting = passagesFor(c, section);
  // A subject in words no passage has is still answered by what the body rests on.
  const given = fitting.length > 0 || heading !== null ? fitting : restedOn(c, body);
  if (given.length === 0 && !unsourced) return good(null);
  const opening = Math.max(40, Math.round(c.step.words * OPENING));
  const each = Math.max(60, Math.round((c.step.words - opening) / Math.max(1, c.outline.length)));
  const numbers = new Set(given.map(({ n }) => n));
  const reply = await ask({
    instructions,
    material: sectionPrompt({
      subject: c.subject,
      heading,
      says: section.says,
      otherHeadings: c.outline.map((other) => other.heading).filter((other) => other !== heading),
      words: heading === null ? opening : each,
      person: c.step.person,
      tone: c.step.tone,
      lists: c.step.parts.includes('lists'),
      emoji: c.step.parts.includes('emoji'),
      house: c.house,
      instruction: c.instruction,
      aim: c.aim,
      notes: c.notes.find((note) => note.heading === heading)?.points.map(({ point }) => point) ?? [],
      saidBefore: articleText({ body: [...body] }),
      passages: given,
    }),
    name: 'blocks',
    shape: BlocksShape,
    accept: acceptBlocks(numbers, c.language),
    maxTokensOut: Math.max(600, each * 4),
  });
  if (!reply.ok) return reply;
  const blocks = blocksOf(withSigns(reply.value.blocks, c), at, c.passages, numbers);
  // A section that rests on nothing says nothing: it is left out, heading and all.
  return good(unsourced || blocks.some(({ evidence }) => evidence && evidence.length > 0) ? blocks : null);
}

/** Most points an article is summed up in. */
const MOST_POINTS = 6;

/** What the article comes to, in a box of points; no block where the writer finds none: an empty box would say nothing. */
async function keyPoints(
  c: Composition,
  body: readonly Block[],
  instructions: string,
  ask: AskWriter,
): Promise<Result<Block[]>> {
  const emoji = c.step.parts.includes('emoji');
  const points = await ask({
    instructions,
    material: pointsPrompt({
      subject: c.subject,
      text: articleText({ body: body.filter(({ type }) => type !== 'table') }),
      points: 4,
      person: c.step.person,
      house: c.house,
      emoji,
    }),
    name: 'points',
    shape: PointsShape,
    maxTokensOut: 500,
  });
  if (!points.ok) return points;
  const items = points.value.points
    .map((point) => (emoji ? point : withoutEmoji(point)))
    .filter((point) => point.trim() !== '')
    .slice(0, MOST_POINTS);
  return good(items.length > 0 ? [{ type: 'key points', id: 'k1', items: items.map(plainInline) }] : []);
}

type Written = z.infer<typeof BlocksShape>['blocks'];

/** What a writer gave, without emoji where none are wanted. */
function withSigns(blocks: Written, { step }: Pick<Composition, 'step'>): Written {
  if (step.parts.includes('emoji')) return blocks;
  return blocks.map((block) => ({
    ...block,
    text: withoutEmoji(block.text),
    items: block.items.map(withoutEmoji),
  }));
}

function firstHeading(body: readonly Block[]): number {
  const at = body.findIndex((block) => block.type === 'heading');
  return at < 0 ? body.length : at;
}

/** Passages that what was written so far rests on. */
function restedOn(c: Composition, body: readonly Block[]): NumberedPassage[] {
  const used = new Set(body.flatMap((block) => block.evidence?.map(({ passage }) => passage) ?? []));
  return c.passages.filter(({ passage }) => used.has(passage.id)).slice(0, MOST_PASSAGES_A_SECTION);
}

/** A section's own passages first, then the best of the rest, in their order in the sources. */
function passagesFor(
  c: Composition,
  section: { heading: string | null; says: string; passages: readonly string[] },
): NumberedPassage[] {
  const noted =
    c.notes.find((note) => note.heading === section.heading)?.points.flatMap((point) => point.passages) ?? [];
  const own = c.passages.filter(({ passage }) => section.passages.includes(passage.id) || noted.includes(passage.id));
  const taken = new Set(c.outline.flatMap((other) => (other.heading === section.heading ? [] : other.passages)));
  const rest = rankPassages(
    c.passages.filter(
      (p) => !own.includes(p) && (own.length === 0 || section.heading === null || !taken.has(p.passage.id)),
    ),
    // Of a section somebody added its own words tell what it is of, not those of the subject all passages hold.
    own.length === 0 && section.heading !== null
      ? `${section.heading} ${section.says}`
      : `${section.heading ?? ''} ${c.subject}`,
    c.language,
  )
    .filter(({ score }, _i, all) => score > 0 && score >= all[0]!.score * LEAST_SHARE)
    .map(({ passage }) => passage);
  return [...own, ...rest].slice(0, MOST_PASSAGES_A_SECTION).sort((a, b) => a.n - b.n);
}

/** What a writer gave as blocks of an article, each resting on the passages it names. */
export function blocksOf(
  blocks: z.infer<typeof BlocksShape>['blocks'],
  section: number | string,
  passages: readonly NumberedPassage[],
  given: ReadonlySet<number>,
): Block[] {
  const byNumber = new Map<number, Passage>(passages.map(({ n, passage }) => [n, passage]));
  return blocks.flatMap((block, i): Block[] => {
    const evidence = (text: string) =>
      [...new Set(block.passages)].flatMap((n) => {
        const passage = given.has(n) ? byNumber.get(n) : undefined;
        return passage ? [{ passage: passage.id, digest: textDigest(text) }] : [];
      });
    const out: Block[] = [];
    if (block.text.trim() !== '')
      out.push({
        type: 'paragraph',
        id: `b${section}x${i}`,
        content: [{ text: block.text }],
        evidence: evidence(block.text),
      });
    if (block.kind === 'list' && block.items.length > 0) {
      out.push({
        type: 'list',
        id: `l${section}x${i}`,
        ordered: false,
        items: block.items.map((text) => [{ text }]),
        evidence: evidence(block.items.join('\n')),
      });
    }
    return out;
  });
}
