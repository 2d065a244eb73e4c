import {
  type ArticleDocument,
  articleText,
  type Block,
  countWords,
  type HouseStyleDocument,
  inHouseWords,
  inlineText,
  isStatement,
  type Micros,
  type Passage,
  plainInline,
  sliceInline,
  textCost,
  tokensCeiling,
  toldToWriter,
} from '@grivo/core';
import type { Result } from '../../ports/outcome/outcome.ts';
import type { ServiceRow } from '../../ports/services/entity.ts';
import type { Tools } from '../../ports/tools.ts';
import { acceptBlocks } from './blocksAccepted.ts';
import { blocksOf } from './compose.ts';
import { fenced } from './fences.ts';
import type { NumberedPassage } from './promptParts.ts';
import { anewPrompt, houseRules } from './prompts.ts';
import { rankPassages } from './selection.ts';
import { BlocksShape } from './shapes.ts';
import { textsSoFar } from './soFar.ts';

export interface Letters {
  from: number;
  to: number;
}

/** A part of an article that is to be written anew. */
export interface Part {
  document: ArticleDocument;
  /** Ids of its blocks. */
  ids: readonly string[];
  /** Of one paragraph only these letters; null for all of it. */
  letters: Letters | null;
  /** What a person wants otherwise. */
  note: string;
  /** What the article was made from. */
  passages: readonly Passage[];
  /** Of the house style it keeps to; null for none. */
  style: HouseStyleDocument | null;
}

const MOST_PASSAGES = 12;
/** What a note asks for in words of its own is as long as that. */
const LENGTHS: readonly [RegExp, number][] = [
  [/\b(?:shorter|shorten|briefer|tighter|kürzer|kürze|knapper)\b/i, 0.6],
  [/\b(?:longer|more detail|lengthen|länger|ausführlicher)\b/i, 1.6],
];

/** Why a part cannot be written anew: nothing in it is a text. */
export type NotWritable = { ok: false; problem: string };

/** The request for a part, made of the article as it stands and of what it rests on. */
export function anewRequest({
  document,
  ids,
  letters,
  note,
  passages,
  style,
}: Part): NotWritable | { ok: true; request: AnewRequest } {
  const own = document.body.filter((block) => ids.includes(block.id));
  if (own.length === 0 || own.length < ids.length)
    return { ok: false, problem: 'these blocks are not in the article as it was sent' };
  if (!own.some(isStatement)) return { ok: false, problem: 'nothing of it is a text that can be written anew' };
  const within = letters && wordsWithin(own, letters);
  if (letters && !within) return { ok: false, problem: 'words are written anew within one paragraph' };
  const first = document.body.findIndex((block) => block.id === own[0]!.id);
  const heading = document.body.slice(0, first).findLast((block) => block.type === 'heading');
  const elsewhere = document.body.filter((block) => within || !ids.includes(block.id));
  const text = within?.text ?? articleText({ body: own });
  const rests = new Set(own.flatMap((block) => (block.evidence ?? []).map(({ passage }) => passage)));
  const numbered = passages.map((passage, i): NumberedPassage => ({ n: i + 1, passage }));
  const resting = numbered.filter(({ passage }) => rests.has(passage.id));
  const others = rankPassages(
    numbered.filter(({ passage }) => !rests.has(passage.id)),
    `${text} ${note}`,
    document.language,
  )
    .filter(({ score }) => score > 0)
    .map(({ passage }) => passage);
  const given = [...resting, ...others].slice(0, MOST_PASSAGES).sort((a, b) => a.n - b.n);
  const share = LENGTHS.find(([pattern]) => pattern.test(note))?.[1] ?? 1;
  const words = Math.max(within ? 4 : 12, Math.round(countWords(text, document.language) * share));
  return {
    ok: true,
    request: {
      instructions: houseRules(document.language),
      material: anewPrompt({
        subject: document.keyPhrase || document.title,
        heading: heading?.type === 'heading' ? heading.text : null,
        text,
        words,
        note,
        saidElsewhere: articleText({ body: heading ? withoutSummary(document.body, elsewhere) : elsewhere }),
        house: style ? toldToWriter(style, document.language) : '',
        passages: given,
      }),
      given,
      style,
      language: document.language,
      words,
      within: within ?? null,
    },
  };
}

/** Blocks without those that say in short what the text below says at length: it may say it again. */
function withoutSummary(body: readonly Block[], blocks: readonly Block[]): Block[] {
  const first = body.findIndex(({ type }) => type === 'heading');
  const opening = new Set(body.slice(0, first).map(({ id }) => id));
  return blocks.filter(({ id, type }) => !opening.has(id) && type !== 'key points');
}

/** Words of a paragraph that are written anew, the rest staying as it is. */
interface Within {
  block: Paragraph;
  letters: Letters;
  text: string;
}
type Paragraph = Extract<Block, { type: 'paragraph' }>;

function wordsWithin(own: readonly Block[], letters: Letters): Within | null {
  const [block, ...more] = own;
  if (block?.type !== 'paragraph' || more.length > 0) return null;
  const text = inlineText(block.content).slice(letters.from, letters.to);
  return text.trim() === '' ? null : { block, letters, text };
}

/** The paragraph with what came in the place of its words; it rests on what it did and on what that names. */
function putWithin({ block, letters, text }: Within, written: readonly Block[], id: string): Paragraph {
  const came = fitted(
    articleText({ body: [...written] })
      .replace(/\s+/g, ' ')
      .trim(),
    text,
  );
  const evidence = [...(block.evidence ?? []), ...written.flatMap((one) => one.evidence ?? [])];
  return {
    ...block,
    id,
    content: [
      ...sliceInline(block.content, 0, letters.from),
      ...plainInline(came),
      ...sliceInline(block.content, letters.to),
    ],
    evidence: [...new Map(evidence.map((one) => [one.passage, one])).values()],
  };
}

/** What is written so far as people will read it: words of a paragraph behind what stands before them. */
function textSoFar(texts: readonly string[], within: Within | null): string {
  if (!within) return texts.join('\n\n');
  const before = inlineText(within.block.content).slice(0, within.letters.from);
  return before + fitted(texts.join(' '), within.text);
}

/** As it stands within its sentence: with the blanks around it, without a capital or a full stop the words did not have. */
function fitted(came: string, before: string): string {
  const words = before.trim();
  const lead = before.slice(0, before.indexOf(words));
  const trail = before.slice(lead.length + words.length);
  const small = /^\p{Ll}/u.test(words) && /^\p{Lu}(?!\p{Lu})/u.test(came);
  const open = small ? came.charAt(0).toLowerCase() + came.slice(1) : came;
  return `${lead}${/[.!?]$/.test(words) ? open : open.replace(/[.]$/, '')}${trail}`;
}

export interface AnewRequest {
  instructions: string;
  material: string;
  given: readonly NumberedPassage[];
  style: HouseStyleDocument | null;
  language: string;
  words: number;
  within: Within | null;
}

/** Tokens of a word in a reply, marks of its shape counted in. */
const TOKENS_A_WORD = 2;

/** About what it costs at a writer. */
export function anewPrice(service: Pick<ServiceRow, 'price'>, { instructions, material, words }: AnewRequest): Micros {
  return textCost(service.price, {
    tokensIn: tokensCeiling(instructions + material),
    tokensOut: words * TOKENS_A_WORD + 60,
  });
}

/** Has a part written anew. The blocks that come rest on the passages they name; none of them has an id an article has. */
export async function writeAnew(
  tools: Pick<Tools, 'writer' | 'secrets' | 'holder'>,
  service: ServiceRow,
  { instructions, material, given, language, style, within }: AnewRequest,
  asker: { stepRun: string; draw: number; signal: AbortSignal; mark: string; heard: (text: string) => void },
): Promise<Result<{ blocks: Block[]; micros: Micros }>> {
  const numbers = new Set(given.map(({ n }) => n));
  const reply = await tools.writer.write(
    service,
    {
      ...fenced(tools.secrets, { instructions, material }),
      name: 'blocks',
      shape: BlocksShape,
      accept: acceptBlocks(numbers, language),
      maxTokensOut: 2_000,
    },
    {
      holder: tools.holder(),
      ...asker,
      heard: (soFar) => asker.heard(textSoFar(textsSoFar(soFar, ['text', 'items']), within)),
    },
  );
  if (!reply.ok) return reply;
  const blocks = blocksOf(reply.value.value.blocks, asker.mark, given, numbers);
  const said = style ? inHouseWords(blocks, style, language).body : blocks;
  const whole = within ? [putWithin(within, said, `b${asker.mark}x0`)] : said;
  return { ok: true, value: { blocks: whole, micros: reply.value.micros } };
}
