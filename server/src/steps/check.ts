import {
  type ArticleDocument,
  alikeSentences,
  articleDoubts,
  articleText,
  articleWords,
  comparedWithStyle,
  doubtWords,
  drawAt,
  FIGURES,
  fold,
  type HouseStyleDocument,
  isSure,
  likeness,
  lineOf,
  locate,
  oursAlready,
  ownWordsOf,
  type Passage,
  type StepOf,
} from '@grivo/core';
import { z } from 'zod';
import type { Performer, StepContext } from '../engine/performer.ts';
import { givenArticle } from '../nouns/articles/edits.ts';
import { asideWrite } from '../nouns/articles/facts.ts';
import { field, missing, PassagesField } from '../nouns/articles/fields.ts';
import { type OwnAlike, ownAlike } from '../nouns/articles/ownWords.ts';
import { getArticle, readRevision } from '../nouns/articles/repository.ts';
import { onSameSubject } from '../nouns/briefs/oneSubject.ts';
import { passagesById } from '../nouns/materials/repository.ts';
import type { Tools } from '../ports/tools.ts';
import { personWritten, styleFor } from './inStyle.ts';

type CheckStep = StepOf<'check'>;

/** What a look-up told of another brief on the subject. */
const ToldOf = z.object({ brief: z.string() });

/** Checks the article by every rule; one that fails goes back to be written again, then ends as the step says. */
export function performCheck(tools: Tools): Performer<CheckStep> {
  return async (step, context) => {
    const article = await givenArticle(tools.ground.db, context.fields);
    if (!article) return missing('article');
    const document = await readRevision(tools.ground.db, article.revision);
    const ids = field(context.fields, 'passages', PassagesField) ?? [];
    const passages = await passagesById(tools.ground.db, ids);
    const sources = passages.map(({ text }) => text);
    const style = step.house ? await styleFor(tools, context, step) : null;
    const wanted = style && { ...style.document, person: spokenAs(context, style.document.person) };
    const row = await getArticle(tools.ground.db, article.id);
    const ours =
      step.own === null ? [] : await ownAlike(tools.ground.db, { id: article.id, brief: context.brief.id }, document);
    const shares = sharesOf(document, sources, ours);
    const mendable = [
      ...failingRules(step, document, passages, ours, shares),
      ...(wanted ? againstHouse(document, wanted, step.otherwise === 'hold it for me') : []),
    ];
    // However it is written: it is on that subject. A person who was told when it was looked up has let it go on.
    const second =
      step.alone && !ToldOf.safeParse(context.fields['ours']).success
        ? await onSameSubject(tools.ground.db, context.brief, context.brief.document)
        : null;
    const failing = [...mendable, ...(second ? [oursAlready(second).replace(/\.$/, '')] : [])];
    const check = {
      words: articleWords(document),
      from: step.words.from,
      to: step.words.to,
      fits: failing.length === 0,
      likeness: shares.sources,
      ...(step.own === null ? {} : { own: shares.own }),
      failing,
      ...alikeIn(step, document, { passages, ours, shares }),
      ...(second ? { ours: second } : {}),
    };
    if (check.fits) return { kind: 'done', fields: { check } };
    if (!second && step.again > timesWritten(context))
      return { kind: 'done', fields: { check }, outcome: { kind: 'again', most: step.again } };
    if (step.otherwise === 'hold it for me') return { kind: 'held', fields: { check } };
    // An article that came from outside this branch is not this branch's to end.
    const own = row?.line === lineOf(context.brief.nodes, context.run.path);
    return {
      kind: 'done',
      fields: { check },
      outcome: {
        kind: 'set aside',
        why: check.failing.join('; '),
        ...(second && mendable.length === 0 ? { code: 'ours-already' as const } : {}),
      },
      writes: own ? [asideWrite(article.id)] : [],
    };
  };
}

/** Who an article is to speak as: where the step that wrote it was told otherwise than the house says, nobody in particular. */
function spokenAs(context: StepContext, person: HouseStyleDocument['person']): HouseStyleDocument['person'] {
  const told = personWritten(context);
  return told === null || told === person ? person : null;
}

/** Doubts that are named one by one. */
const MOST_NAMED = 8;

/** What is wrong with an article, each rule that fails as a sentence with its figure. */
export function failingRules(
  step: CheckStep,
  document: ArticleDocument,
  passages: readonly { id: string; text: string; language?: string }[],
  ours: readonly OwnAlike[] = [],
  shares = sharesOf(
    document,
    passages.map(({ text }) => text),
    ours,
  ),
): string[] {
  const out: string[] = [];
  const words = articleWords(document);
  if (words < step.words.from) out.push(`${words} words, fewer than ${step.words.from}`);
  if (words > step.words.to) out.push(`${words} words, more than ${step.words.to}`);
  const text = articleText(document);
  const whole = ` ${wordsOnly(`${document.title}\n${text}`)} `;
  const has = (phrase: string) => whole.includes(` ${wordsOnly(phrase)} `);
  const avoided = step.avoid.filter(has);
  if (avoided.length > 0) out.push(`holds ${avoided.map((phrase) => `‘${phrase}’`).join(', ')}, to be avoided`);
  const lacking = step.must.filter((phrase) => !has(phrase));
  if (step.mustBe === 'all' ? lacking.length > 0 : step.must.length > 0 && lacking.length === step.must.length)
    out.push(`lacks ${lacking.map((phrase) => `‘${phrase}’`).join(', ')}`);
  if (isOver(step.likeness, shares.sources))
    out.push(`${shares.sources} % stands in the sources word for word, less than ${step.likeness} % is wanted`);
  if (isOver(step.own, shares.own))
    out.push(
      `${shares.own} % stands word for word in other articles of ours, most of it in ‘${ours[0]?.title}’; less than ${step.own} % is wanted`,
    );
  // What was written without sources has nothing to be held against; it is marked as resting on nothing.
  if (step.figures && passages.length > 0) {
    // What is less sure counts where somebody decides; it is ringed in the article either way.
    const looked = step.otherwise === 'hold it for me';
    const doubts = articleDoubts(document, passages).filter((doubt) => looked || isSure(doubt));
    for (const doubt of doubts.slice(0, MOST_NAMED)) out.push(doubtWords(doubt));
    if (doubts.length > MOST_NAMED) out.push(`and ${doubts.length - MOST_NAMED} more that the sources do not say`);
  }
  return out;
}

/**
 * Where an article is not as its house has it, each point as a sentence. Words are certain; who speaks and how long its
 * sentences are counts where somebody decides, and is measured on its page either way.
 * @param looked whether a person decides
 */
export function againstHouse(document: ArticleDocument, style: HouseStyleDocument, looked: boolean): string[] {
  const { unwanted, person, figures } = comparedWithStyle(document, style);
  const seen = new Map(unwanted.map((one) => [one.words.toLowerCase(), one]));
  return [
    ...[...seen.values()].map(({ words, instead }) =>
      instead === null
        ? `says ‘${words}’, which the house never says`
        : `says ‘${words}’, which the house calls ‘${instead}’`,
    ),
    ...(person === null || !looked ? [] : [person.replace(/\.$/, '').replace(/^T/, 't')]),
    ...figures.flatMap(({ name, value, range, within }) =>
      looked && within === false && range && isFarOutside(value, range)
        ? [`${FIGURES[name].says.toLowerCase()}: ${value}, where the house has ${range.from} to ${range.to}`]
        : [],
    ),
  ];
}

const textsOf = (ours: readonly OwnAlike[]): string[] => ours.map(({ text }) => text);

/** What lies a hair beside a range is no reason to stop an article; its page shows it either way. */
const isFarOutside = (value: number, { from, to }: { from: number; to: number }): boolean =>
  value < from * 0.9 || value > to * 1.1;

/** How much of an article stands in others word for word, in whole per cent; what is quoted on purpose does not count. */
interface Shares {
  sources: number;
  own: number;
}

function sharesOf(document: ArticleDocument, sources: readonly string[], ours: readonly OwnAlike[]): Shares {
  const text = ownWordsOf(document);
  const of = (others: readonly string[]) =>
    others.length === 0 ? 0 : Math.round(likeness(text, others, document.language) * 100);
  return { sources: of(sources), own: of(textsOf(ours)) };
}

const isOver = (most: number | null, share: number): boolean => most !== null && share >= most;

/** A sentence of an article beside the one it is like, and whose that is. */
interface Beside {
  here: string;
  there: string;
  in: string;
  /** The article of ours it stands in; null for a source. */
  article: string | null;
}

/** What is too like the sources or other articles of ours, side by side; nothing where neither is. */
function alikeIn(
  step: CheckStep,
  document: ArticleDocument,
  { passages, ours, shares }: { passages: readonly Passage[]; ours: readonly OwnAlike[]; shares: Shares },
): { alike?: Beside[] } {
  const beside = (others: readonly { text: string; in: string; article: string | null }[]) =>
    alikeSentences(
      ownWordsOf(document),
      others.map(({ text }) => text),
      document.language,
    ).map(({ here, there, of }): Beside => ({ here, there, in: others[of]!.in, article: others[of]!.article }));
  const out = [
    ...(isOver(step.likeness, shares.sources)
      ? beside(passages.map(({ text, locator }) => ({ text, in: locator.title, article: null })))
      : []),
    ...(isOver(step.own, shares.own)
      ? beside(ours.map(({ text, title, id }) => ({ text, in: title, article: id })))
      : []),
  ];
  return out.length === 0 ? {} : { alike: out };
}

function wordsOnly(text: string): string {
  return fold(text)
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
}

/** How often the write this check goes back to was opened anew. */
function timesWritten({ brief, run }: StepContext): number {
  const places = locate(brief.nodes, run.path);
  const place = places?.at(-1);
  if (!place) return 0;
  const write = place.sequence.slice(0, place.at).findLast((node) => node.type === 'step' && node.writes && !node.off);
  if (!write) return Number.POSITIVE_INFINITY;
  const path = [...run.path.split('/').slice(0, -1), write.id].join('/');
  return drawAt(brief.runs, path);
}
