import { choicesFrom, countWords, overlap, stemsOf } from '../words/language.ts';
import { answering } from './answering.ts';
import { opened } from './emoji.ts';
import { ownWords } from './own.ts';
import {
  type FencedPassage,
  LEANS,
  lengthOf,
  Memory,
  personAsked,
  type ReadRequest,
  rarity,
  relevance,
  type Sentence,
  standsAlone,
  wordsAsked,
} from './request.ts';
import { besides, compressed, joined, type Manner, rewrite } from './rewrite.ts';
import { saying } from './saying.ts';

export interface WrittenBlock {
  kind: 'paragraph' | 'list';
  text: string;
  items: string[];
  passages: number[];
}

export interface ProseManner extends Omit<Manner, 'person' | 'language' | 'contracts'> {
  /** Words a paragraph grows to. */
  paragraph: number;
  lists: boolean;
  /** Short neighbours are joined to one sentence. */
  joins: boolean;
}

/**
 * Writes a piece from the fenced passages: the sentences that answer the heading, in the order of their passages, freed of
 * what was said before, made written. With nothing left to say it says so in a line.
 */
export function prose(request: ReadRequest, style: ProseManner): WrittenBlock[] {
  if (/from what is generally known/.test(request.task)) return fromNothing(request);
  const asked = wordsAsked(request.task, 150);
  const { heading } = request;
  const target = new Set(stemsOf(`${heading ?? ''} ${request.subject} ${request.says}`));
  const weight = rarity(request.passages);
  const memory = new Memory(request.said, request.language);
  const chance = choicesFrom(`${request.seed}${heading}`);
  const manner: Manner = {
    ...style,
    person: personAsked(request.task),
    language: request.language,
    contracts: /friendly|warm|chatty|casual/.test(request.task),
  };
  const ranked = request.passages
    .map((passage) => ({
      passage,
      // What the heading was made of comes first.
      score: relevance(passage.stems, target, weight) + (heading !== null && heads(passage, heading) ? 10 : 0),
    }))
    .sort((a, b) => b.score - a.score || a.passage.n - b.passage.n);
  const again = /write one part anew/.test(request.task) ? saidAgain(request, memory, asked) : [];
  const left = asked - lengthOf(again.flat());
  // Asked for more than it says, it goes on as in any part.
  const chosen =
    again.length > 0
      ? [...again, ...(left > asked / 4 ? body(ranked, memory, left, heading) : [])]
      : heading === null
        ? openingOf(request, ranked, memory, asked, target)
        : body(ranked, memory, asked, heading);
  const blocks: WrittenBlock[] = [];
  for (const run of chosen) blocks.push(...written(run, style, manner, chance, request));
  return blocks.length > 0 && (heading === null || speaksOf(heading, blocks, request))
    ? merged(blocks, style.paragraph, gapOf(request.language))
    : [
        {
          kind: 'paragraph',
          text: ownWords(request.language).noMore,
          items: [],
          passages: [],
        },
      ];
}

/** Whether a heading was made of a passage. */
const heads = (passage: FencedPassage, heading: string): boolean =>
  passage.heading === heading ||
  (passage.heading === null && passage.sentences.some(({ text }) => compressed(text, 9) === heading));

/** Whether a section has a word of its heading, of those the subject does not have, where that was made of a passage: what it was made of may be said elsewhere by now. */
function speaksOf(heading: string, blocks: readonly WrittenBlock[], { passages, subject }: ReadRequest): boolean {
  if (!passages.some((passage) => passage.heading === heading)) return true;
  const said = new Set(blocks.flatMap(({ text, items }) => stemsOf([text, ...items].join(' '))));
  const known = new Set(stemsOf(subject));
  const own = stemsOf(heading);
  const rest = own.filter((stem) => !known.has(stem));
  return (rest.length > 0 ? rest : own).some((stem) => said.has(stem));
}

function fromNothing(request: ReadRequest): WrittenBlock[] {
  const all = ownWords(request.language).general(request.subject);
  const said = request.said;
  const fresh = all.filter((sentence) => !said.includes(sentence));
  const from = (request.heading ?? '').length % Math.max(1, fresh.length);
  const chosen = [...fresh.slice(from), ...fresh.slice(0, from)].slice(0, request.heading === null ? 1 : 2);
  return [
    { kind: 'paragraph', text: (chosen.length > 0 ? chosen : all.slice(0, 1)).join(' '), items: [], passages: [] },
  ];
}

/** Runs of sentences that stand next to each other, so that none leans on one left out. */
function fresh(passage: FencedPassage, memory: Memory): Sentence[] {
  const out: Sentence[] = [];
  for (const sentence of passage.sentences) {
    const { statement } = sentence;
    const twice = statement !== null && out.some((other) => other.statement?.text === statement.text);
    const known = twice || memory.knows(sentence);
    const before = out[out.length - 1];
    const hangs = sentence.leans && !(before && before.at === sentence.at - 1);
    if (!known && !hangs) out.push(sentence);
  }
  return out;
}

/** What a part says already, to be said in other words, as much of it as is asked for. */
function saidAgain({ passages, says, language }: ReadRequest, memory: Memory, asked: number): Sentence[][] {
  const its = new Memory(says, language);
  const out: Sentence[][] = [];
  let words = 0;
  for (const passage of passages) {
    const run: Sentence[] = [];
    for (const sentence of passage.sentences) {
      const { statement, stems } = sentence;
      if (statement ? !its.has(statement) : stems.size === 0 || !its.knows(sentence)) continue;
      const more = lengthOf([sentence]);
      if (words > 0 && words + more > asked * 1.25) break;
      words += more;
      run.push(sentence);
      memory.add(sentence);
    }
    if (run.length > 0) out.push(run);
  }
  return out;
}

function body(
  ranked: readonly { passage: FencedPassage; score: number }[],
  memory: Memory,
  asked: number,
  heading: string | null,
): Sentence[][] {
  const out: Sentence[][] = [];
  let words = 0;
  for (const { passage } of ranked) {
    if (words >= asked * 0.92) break;
    let run = fresh(passage, memory);
    while (run.length > 1 && words + lengthOf(run) > asked * 1.25) run = run.slice(0, -1);
    if (run.length === 0 || lengthOf(run) < 8) continue;
    for (const sentence of run) memory.add(sentence);
    words += lengthOf(run);
    out.push(run);
  }
  // What a heading was made of stands right below it.
  const first = ranked.find(({ passage }) => heading !== null && heads(passage, heading));
  const place = (run: readonly Sentence[]) => (run[0]!.passage === first?.passage.n ? -1 : run[0]!.passage);
  return out.sort((a, b) => place(a) - place(b));
}

const bare = (text: string): string =>
  ` ${text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()} `;

/** The opening of what stands alone in whatever words it is put; of what the body says in the same words only where nothing else is left. */
function openingOf(
  request: ReadRequest,
  ranked: readonly { passage: FencedPassage }[],
  memory: Memory,
  asked: number,
  target: ReadonlySet<string>,
): Sentence[][] {
  const said = bare(request.said);
  const passages = ranked.map(({ passage }) => passage);
  const score = answering(request);
  const alone = ({ text, statement, leans }: Sentence) =>
    standsAlone({ text: statement ? request.put(statement) : text, leans }, target) &&
    (!statement || !LEANS.test(request.put(statement)));
  const anew = (sentence: Sentence) =>
    alone(sentence) && !(sentence.statement && said.includes(bare(request.put(sentence.statement))));
  const chosen = opening(passages, memory, asked, score, anew);
  return chosen.length > 0 ? chosen : opening(passages, memory, asked, score, alone);
}

/**
 * The opening answers the subject with what says most of it, in other words than the body, which is written by then; what
 * cannot be said in other words is only taken where the body left it out.
 */
function opening(
  ranked: readonly FencedPassage[],
  memory: Memory,
  asked: number,
  score: (sentence: Sentence) => number,
  alone: (sentence: Sentence) => boolean,
): Sentence[][] {
  const apart = ranked
    .flatMap((passage) => passage.sentences)
    .filter((sentence) => sentence.statement !== null || !memory.knows(sentence))
    .map((sentence) => ({ sentence, score: score(sentence) }))
    .sort((a, b) => b.score - a.score || a.sentence.passage - b.sentence.passage || a.sentence.at - b.sentence.at);
  const chosen: Sentence[] = [];
  let words = 0;
  for (const { sentence } of apart) {
    const more = countWords(sentence.text);
    if (chosen.some((other) => overlap(other.stems, sentence.stems) > 0.5)) continue;
    if (chosen.length > 0 && words + more > asked * 1.2) continue;
    // Asked last: in what words it is put is settled by asking, and those are taken then.
    if (!alone(sentence)) continue;
    chosen.push(sentence);
    words += more;
    if (words >= asked * 0.75 || chosen.length >= 4) break;
  }
  return chosen.map((sentence) => [sentence]);
}

function written(
  run: readonly Sentence[],
  style: ProseManner,
  manner: Manner,
  chance: (options: number) => number,
  request: ReadRequest,
): WrittenBlock[] {
  const blocks: WrittenBlock[] = [];
  const mayList = style.lists && /a list may stand/.test(request.task);
  let open: string[] = [];
  const close = () => {
    if (open.length > 0)
      blocks.push({
        kind: 'paragraph',
        text: open.join(gapOf(request.language)),
        items: [],
        passages: [run[0]!.passage],
      });
    open = [];
  };
  for (const sentence of run) {
    const listed = mayList && !sentence.statement ? enumeration(sentence.text) : null;
    if (listed && listed.items.length >= 3 && !blocks.some((block) => block.kind === 'list')) {
      close();
      blocks.push({
        kind: 'list',
        text: rewrite(listed.lead, manner, chance),
        items: /emoji may open an item/.test(request.task) ? listed.items.map(opened) : listed.items,
        passages: [sentence.passage],
      });
      continue;
    }
    const text = saying(sentence, request, manner, chance);
    const before = open[open.length - 1];
    const both =
      before === undefined
        ? null
        : fewWays(sentence) || fewWays(run[run.indexOf(sentence) - 1])
          ? besides(before, text, manner.language)
          : style.joins
            ? joined(before, text, chance, manner.language)
            : null;
    if (both) open[open.length - 1] = both;
    else open.push(text);
  }
  close();
  return blocks;
}

/** What stands between two sentences. */
const gapOf = (language: string): string => (language === 'ja' ? '' : ' ');

/** Whether a statement can be said in so few ways that alone it would soon be said as in another article. */
const fewWays = (sentence: Sentence | undefined): boolean => (sentence?.statement?.ways ?? FEW) < FEW;
const FEW = 8;

/** 'Three things help: a, b and c.' as a lead and its items. */
function enumeration(sentence: string): { lead: string; items: string[] } | null {
  const match = /^([^:]{8,90}): ([^:]+)\.$/.exec(sentence);
  if (!match) return null;
  const items = match[2]!
    .split(/(?:;|,) (?:and |or |und |oder )?| (?:and|und) /)
    .map((item) => item.trim())
    .filter((item) => item !== '');
  if (items.some((item) => countWords(item) > 14 || countWords(item) < 1)) return null;
  return { lead: `${match[1]}:`, items: items.map((item) => item.charAt(0).toUpperCase() + item.slice(1)) };
}

/** Neighbouring short paragraphs that speak of the same become one. */
function merged(blocks: readonly WrittenBlock[], most: number, gap: string): WrittenBlock[] {
  const out: WrittenBlock[] = [];
  for (const block of blocks) {
    const last = out[out.length - 1];
    const short =
      last &&
      last.kind === 'paragraph' &&
      block.kind === 'paragraph' &&
      countWords(last.text) + countWords(block.text) <= most;
    if (
      short &&
      (countWords(last.text) < 35 ||
        countWords(block.text) < 30 ||
        overlap(new Set(stemsOf(last.text)), new Set(stemsOf(block.text))) > 0.25)
    ) {
      out[out.length - 1] = {
        ...last,
        text: `${last.text}${gap}${block.text}`,
        passages: [...new Set([...last.passages, ...block.passages])],
      };
    } else out.push(block);
  }
  return out;
}
