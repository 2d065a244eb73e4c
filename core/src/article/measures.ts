import { wordsOfText } from '../sentence/sentence.ts';
import type { ArticleDocument, Block } from './block.ts';
import { articleDoubts, type BlockDoubt } from './doubts.ts';
import { likeMeasures } from './likeMeasures.ts';
import { type ArticleMeasure, type MeasuredBeside, type MeasuredSource, measure, NOTHING_BESIDE } from './measure.ts';
import { type ReadSentence, readBlock, readOther } from './reading.ts';
import { gradeOf } from './readingGrade.ts';
import { termsMeasure } from './terms.ts';
import { linksOf } from './text.ts';
import { wordsItKnows } from './wording.ts';

/** Words a minute, for the time it takes to read (Brysbaert 2019 has 238 for English prose read silently). */
const WORDS_A_MINUTE = 238;
/** A sentence longer than this is hard to follow. */
const LONG_SENTENCE = 35;

/** A sentence with the block it stands in. */
interface Sentence {
  block: string;
  of: ReadSentence;
}

/** How many words there are to rest on. */
const carriedBy = new WeakMap<readonly MeasuredSource[], number>();

function wordsCarried(sources: readonly MeasuredSource[]): number {
  const before = carriedBy.get(sources);
  if (before !== undefined) return before;
  const words = sources.reduce((sum, source) => sum + readOther(source, source.language ?? 'en').length, 0);
  carriedBy.set(sources, words);
  return words;
}

/** The measures of an article that its text, its sources and what is known beside them give, in the order people look at them. */
export function measuresOf(
  document: ArticleDocument,
  sources: readonly MeasuredSource[],
  found: BlockDoubt[] = articleDoubts(document, sources),
  beside: MeasuredBeside = NOTHING_BESIDE,
): { measures: ArticleMeasure[]; doubts: BlockDoubt[] } {
  // What somebody wrote out of their own head is held against nothing.
  const doubts = sources.length === 0 ? [] : found;
  const sentences = document.body
    .filter(isProse)
    .flatMap((block) => readBlock(block, document.language).sentences.map((of): Sentence => ({ block: block.id, of })));
  return {
    measures: [
      length(document, sources),
      grade(document.language, sentences),
      sentenceLength(sentences),
      ...paragraphLength(document),
      openings(sentences),
      ...wording(document.language, sentences),
      ...keyPhrase(document),
      ...termsMeasure(document, sources),
      title(document),
      description(document),
      sections(document),
      evidence(document, sources),
      ...(sources.length === 0 ? [] : [support(sentences, doubts), against(doubts)]),
      ...likeMeasures(document, sources, beside),
      ...pictures(document),
      links(document),
      ...deadLinks(document, beside.dead),
    ],
    doubts,
  };
}

const wordsOf = (sentences: readonly Sentence[]): number => sentences.reduce((sum, { of }) => sum + of.words.length, 0);

const isProse = (block: Block): boolean =>
  block.type === 'paragraph' || block.type === 'closing' || block.type === 'list' || block.type === 'key points';

function length(document: ArticleDocument, sources: readonly MeasuredSource[]): ArticleMeasure {
  const words = document.body.reduce((sum, block) => sum + readBlock(block, document.language).length, 0);
  const carried = wordsCarried(sources);
  const minutes = `about ${Math.max(1, Math.round(words / WORDS_A_MINUTE))} min to read`;
  if (carried === 0) return measure('Length', words, [null, null], 'words', minutes);
  const says = words > carried ? `longer than its sources, which have ${carried}` : minutes;
  return measure('Length', words, [null, Math.max(carried, 1)], 'words', says);
}

function grade(language: string, sentences: readonly Sentence[]): ArticleMeasure {
  const { value, formula } = gradeOf(
    sentences.map(({ of }) => of.counts),
    language,
  );
  if (formula === null) return measure('Reading grade', 0, [null, null], '', 'no formula for this language');
  return measure('Reading grade', value, [4, 10], '', `years of school; ${formula}`);
}

function sentenceLength(sentences: readonly Sentence[]): ArticleMeasure {
  const mean = sentences.length === 0 ? 0 : wordsOf(sentences) / sentences.length;
  const longest = sentences.reduce<Sentence | null>(
    (most, one) => (one.of.words.length > (most?.of.words.length ?? 0) ? one : most),
    null,
  );
  const says =
    longest === null
      ? 'no sentences yet'
      : `the longest of ${sentences.length} has ${longest.of.words.length}${longest.of.words.length > LONG_SENTENCE ? ': part it' : ''}`;
  return measure('Sentences', mean, [9, 22], 'words each', says, longest?.block ?? null);
}

/** A paragraph longer than this is a wall on a telephone. */
const LONG_PARAGRAPH = 120;

function paragraphLength({ body, language }: ArticleDocument): ArticleMeasure[] {
  const all = body
    .filter(({ type }) => type === 'paragraph')
    .map((block) => ({ id: block.id, words: readBlock(block, language).length }))
    .filter(({ words }) => words > 0);
  if (all.length === 0) return [];
  const mean = all.reduce((sum, { words }) => sum + words, 0) / all.length;
  const longest = all.reduce((most, one) => (one.words > most.words ? one : most));
  const says = `the longest of ${all.length}${longest.words > LONG_PARAGRAPH ? ': part it' : ''}; ${Math.round(mean)} words on average`;
  return [measure('Longest paragraph', longest.words, [null, LONG_PARAGRAPH], 'words', says, longest.id)];
}

/** How many sentences begin with the same two words as one of the three before them. */
function openings(sentences: readonly Sentence[]): ArticleMeasure {
  const repeated = sentences.filter(
    ({ of: { begins } }, i) => begins !== '' && [1, 2, 3].some((back) => sentences[i - back]?.of.begins === begins),
  );
  const first = repeated[0];
  const says = first ? `‘${first.of.words.slice(0, 2).join(' ')} …’ again` : 'each begins in its own way';
  return measure('Repeated beginnings', repeated.length, [null, 1], '', says, first?.block ?? null);
}

/** Of a hundred sentences so many may be in the passive, and of a hundred words so many may say nothing. */
const MOST_PASSIVE = 25;
const MOST_FILLER = 2;

/** Sentences in the passive, and words that say nothing; where that can be told. */
function wording(language: string, sentences: readonly Sentence[]): ArticleMeasure[] {
  if (!wordsItKnows(language) || sentences.length === 0) return [];
  const passive = sentences.filter(({ of }) => of.isPassive);
  const filled = sentences.filter(({ of }) => of.fillers.length > 0);
  const all = filled.flatMap(({ of }) => of.fillers);
  const words = wordsOf(sentences);
  const often =
    passive.length === 0
      ? 'every sentence says who does it'
      : `${passive.length} of ${sentences.length}: say who does it`;
  const said = [...new Set(all.map((word) => word.toLowerCase()))].slice(0, 4).map((word) => `‘${word}’`);
  return [
    measure(
      'Passive',
      (passive.length / sentences.length) * 100,
      [null, MOST_PASSIVE],
      '%',
      often,
      passive[0]?.block ?? null,
    ),
    measure(
      'Filler',
      words === 0 ? 0 : (all.length / words) * 100,
      [null, MOST_FILLER],
      'in 100 words',
      said.length === 0 ? 'no word too many' : `can go: ${said.join(', ')}`,
      filled[0]?.block ?? null,
    ),
  ];
}

/** Where the key phrase stands: readers and search engines look at the title, the opening and the headings first. */
function keyPhrase(document: ArticleDocument): ArticleMeasure[] {
  const { keyPhrase: phrase, body, language } = document;
  if (phrase.trim() === '') return [];
  const wanted = wordsOfText(phrase.toLowerCase(), language);
  const stands = (words: readonly string[]) => {
    const there = new Set(words.map((word) => word.toLowerCase()));
    return wanted.every((word) => there.has(word));
  };
  const has = (text: string) => stands(wordsOfText(text, language));
  const opening = body.find((block) => block.type === 'paragraph');
  const places = [
    { name: 'title', has: has(document.title) },
    { name: 'opening', has: opening ? stands(readBlock(opening, language).words) : false },
    {
      name: 'a heading',
      has: body.some((block) => block.type === 'heading' && stands(readBlock(block, language).words)),
    },
    { name: 'description', has: has(document.description) },
  ];
  const lacking = places.filter((place) => !place.has).map(({ name }) => name);
  const says = lacking.length === 0 ? `‘${phrase}’ stands in all of them` : `‘${phrase}’ is not in ${listed(lacking)}`;
  return [measure('Key phrase', places.length - lacking.length, [2, null], `of ${places.length} places`, says)];
}

function listed(names: readonly string[]): string {
  return names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} or ${names.at(-1)}`;
}

function title({ title: text }: ArticleDocument): ArticleMeasure {
  const says = text === '' ? 'no title yet' : text.length > 70 ? 'results of a search cut it off' : '';
  return measure('Title', text.length, [20, 70], 'characters', says);
}

function description({ description: text }: ArticleDocument): ArticleMeasure {
  const says = text === '' ? 'no description yet' : text.length > 155 ? 'results of a search cut it off' : '';
  return measure('Description', text.length, [70, 155], 'characters', says);
}

function sections({ body }: ArticleDocument): ArticleMeasure {
  const headings = body.filter((block) => block.type === 'heading');
  const jump = headings.find((one, i) => one.level > (headings[i - 1]?.level ?? 1) + 1);
  const count = headings.filter(({ level }) => level === 2).length;
  const says = jump
    ? `‘${jump.text}’ is of level ${jump.level} with none of level ${jump.level - 1} above it`
    : count === 1
      ? 'one heading'
      : `${count} headings`;
  return measure('Sections', count, [2, null], '', says, jump?.id ?? null);
}

function evidence({ body }: ArticleDocument, sources: readonly MeasuredSource[]): ArticleMeasure {
  const paragraphs = body.filter((block) => block.type === 'paragraph');
  const bare = paragraphs.filter((block) => (block.evidence?.length ?? 0) === 0);
  const resting = paragraphs.length - bare.length;
  if (resting === 0 && sources.length === 0)
    return measure('Evidence', 0, [null, null], '%', 'nothing in this article rests on a source');
  return measure(
    'Evidence',
    paragraphs.length === 0 ? 0 : (resting / paragraphs.length) * 100,
    [100, null],
    '%',
    `${resting} of ${paragraphs.length} paragraphs rest on a passage`,
    bare[0]?.id ?? null,
  );
}

/** So many of a hundred sentences at least must say something like what they rest on. */
const LEAST_SUPPORT = 95;

function support(sentences: readonly Sentence[], doubts: readonly BlockDoubt[]): ArticleMeasure {
  const without = doubts.filter(({ kind }) => kind === 'nothing');
  const n = sentences.length;
  const share = n === 0 ? 100 : (1 - Math.min(1, without.length / n)) * 100;
  const says =
    without.length === 0
      ? 'every sentence says something like what it rests on'
      : `${without.length} of ${n} sentences ${without.length === 1 ? 'says' : 'say'} nothing like what ${without.length === 1 ? 'it rests' : 'they rest'} on`;
  return measure('Support', share, [LEAST_SUPPORT, null], '%', says, without[0]?.block ?? null);
}

function against(all: readonly BlockDoubt[]): ArticleMeasure {
  const doubts = all.filter(({ kind }) => kind !== 'nothing');
  return measure(
    'Against the sources',
    doubts.length,
    [null, 0],
    doubts.length === 1 ? 'doubt' : 'doubts',
    doubts.length === 0 ? 'figures, dates, names and quotations are as there' : 'marked in the text',
    doubts[0]?.block ?? null,
  );
}

function pictures({ body }: ArticleDocument): ArticleMeasure[] {
  const figures = body.filter((block) => block.type === 'figure');
  if (figures.length === 0) return [];
  const bare = figures.filter(({ alternative }) => alternative.trim() === '');
  const says = bare.length === 0 ? 'each has an alternative text' : `${bare.length} without an alternative text`;
  const described = figures.length - bare.length;
  return [
    measure('Pictures described', described, [figures.length, null], `of ${figures.length}`, says, bare[0]?.id ?? null),
  ];
}

function links({ body }: ArticleDocument): ArticleMeasure {
  const all = body.flatMap(linksOf);
  const own = all.filter((link) => link.to === 'article').length;
  const says = all.length === 0 ? 'none yet' : `${own} to our own articles, ${all.length - own} elsewhere`;
  return measure('Links', all.length, [null, null], '', says);
}

/** Links that led nowhere when they were last looked at; nothing where none of them is known to. */
function deadLinks({ body }: ArticleDocument, dead: readonly string[]): ArticleMeasure[] {
  if (dead.length === 0) return [];
  const gone = new Set(dead);
  const found = body.flatMap((block) =>
    linksOf(block).flatMap((link) =>
      link.to === 'address' && gone.has(link.address) ? [{ block: block.id, address: link.address }] : [],
    ),
  );
  const [first] = found;
  if (!first) return [];
  return [measure('Dead links', found.length, [null, 0], '', `nothing is found at ${first.address}`, first.block)];
}
