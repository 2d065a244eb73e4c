import {
  type ArticleDocument,
  alikeBlocks,
  alikeSentences,
  articleText,
  DEGREES,
  type Degree,
  EMPTY_ARTICLE,
  inHouseWords,
  languageName,
  ownText,
  putProblem,
  puttingOf,
  type Replaced,
  type StepOf,
  toldToWriter,
  type Unit,
} from '@grivo/core';
import type { Performer, StepContext } from '../engine/performer.ts';
import { asideWrite } from '../nouns/articles/facts.ts';
import { field, missing, PassagesField } from '../nouns/articles/fields.ts';
import { passagesById } from '../nouns/materials/repository.ts';
import type { Tools } from '../ports/tools.ts';
import { askWriter, type Ended, filled, instructed, withNote } from './asking.ts';
import { styleFor } from './inStyle.ts';
import { ownArticle } from './ownArticle.ts';
import { portions } from './portions.ts';
import { putPrompt, putRules } from './writing/promptsOfTexts.ts';
import { TranslationShape } from './writing/shapes.ts';

/** How often what is still alike is put again, each time farther from what it was. */
const ROUNDS = 3;

/**
 * Puts the article in other words, and what is still too like the text as it came or its sources once more. A text that
 * loses a figure, a link or a word that is to stay is left as it was.
 */
export function performPut(tools: Tools): Performer<StepOf<'put'>> {
  return async (step, context) => {
    const own = await instructed(tools, { instruction: step.instruction }, context);
    if (!own.ok) return own.result;
    const given = await filled(tools, { of: step.of }, context);
    if (!given.ok) return given.result;
    const article = step.of === '' ? await ownArticle(tools, context) : null;
    if (step.of === '' && !article) return missing('article');
    const before = article?.document ?? asDocument(given.texts.of, context.brief.document.language);
    const passages = await passagesById(tools.ground.db, field(context.fields, 'passages', PassagesField) ?? []);
    const known = [
      { text: articleText(before), in: article ? 'the article as it came' : 'the text as it came' },
      ...passages.map(({ text, locator }) => ({ text, in: locator.title })),
    ];
    const others = known.map(({ text }) => text);
    const limit = step.likeness ?? 101;
    let document = before;
    let left = 0;
    let rounds = 0;
    let only: ReadonlySet<string> | undefined;
    let alike = alikeBlocks(document, others, limit);
    const from = DEGREES.indexOf(step.degree);
    while (rounds < ROUNDS && (rounds === 0 || (alike.likeness >= limit && alike.blocks.size > 0))) {
      const degree = DEGREES[Math.min(DEGREES.length - 1, from + rounds)]!;
      const done = await putOnce(tools, context, step, { document, degree, only, instruction: own.texts.instruction });
      if (!done.ok) return done.result;
      // What was replaced before stands nowhere any more.
      document = { ...document, body: done.body, replaced: done.replaced };
      left = done.left;
      rounds++;
      alike = alikeBlocks(document, others, limit);
      only = alike.blocks;
    }
    const { article: changed, writes } = article ? await article.change(document) : { article: null, writes: [] };
    const fields = {
      ...(changed ? { article: changed } : { [step.as]: articleText(document) }),
      put: { likeness: alike.likeness, rounds, leftAsTheyWere: left },
    };
    if (step.likeness === null || alike.likeness < step.likeness) return { kind: 'done', fields, writes };
    if (step.otherwise === 'hold it for me') {
      const beside = alikeSentences(ownText(document), others, document.language).map(({ here, there, of }) => ({
        here,
        there,
        in: known[of]!.in,
        article: null,
      }));
      return { kind: 'held', fields: { ...fields, alike: beside }, writes };
    }
    const why = `${alike.likeness} % still stands word for word as before, ${step.likeness} % is the limit`;
    return {
      kind: 'done',
      fields,
      outcome: { kind: 'set aside', why },
      writes: [...writes, ...(changed ? [asideWrite(changed.id)] : [])],
    };
  };
}

/** A text as the article it would be: a paragraph a line. */
const asDocument = (text: string, language: string): ArticleDocument => ({
  ...EMPTY_ARTICLE,
  language,
  body: text
    .split(/\n+/)
    .filter((line) => line.trim() !== '')
    .map((line, i) => ({ type: 'paragraph', id: `p${i}`, content: [{ text: line.trim() }] })),
});

interface Round {
  document: ArticleDocument;
  degree: Degree;
  only: ReadonlySet<string> | undefined;
  instruction: string;
}

type Put =
  | { ok: true; body: ArticleDocument['body']; replaced: Replaced[] | undefined; left: number }
  | { ok: false; result: Ended };

async function putOnce(
  tools: Tools,
  context: StepContext,
  step: StepOf<'put'>,
  { document, degree, only, instruction }: Round,
): Promise<Put> {
  const { units, put } = puttingOf(document, only);
  const style = await styleFor(tools, context, step);
  const texts = new Map<number, string>();
  for (const part of portions(units)) {
    const asked = await askWriter(tools, context, {
      instructions: putRules(languageName(document.language)),
      material: putPrompt({
        language: languageName(document.language),
        degree,
        keep: step.keep,
        instruction: withNote(instruction, context),
        house: style ? toldToWriter(style.document, document.language) : '',
        units: part,
      }),
      name: 'put',
      shape: TranslationShape,
      accept: (value, last) => {
        const wrong = problemsOf(part, new Map(value.texts.map(({ n, text }) => [n, text])), step.keep);
        return wrong.length === 0 || last ? { ok: true, value } : { ok: false, problem: wrong.slice(0, 6).join('; ') };
      },
      maxTokensOut: 4_000,
    });
    if (!asked.ok) return asked;
    const given = new Map(asked.value.texts.map(({ n, text }) => [n, text]));
    for (const { n, text } of part) {
      const said = given.get(n);
      if (said !== undefined && putProblem(text, said, step.keep) === null) texts.set(n, said);
    }
  }
  const body = put(texts);
  const housed = style ? inHouseWords(body, style.document, document.language) : null;
  return {
    ok: true,
    body: housed?.body ?? body,
    replaced: housed && housed.replaced.length > 0 ? housed.replaced : undefined,
    left: units.filter(({ n, text }) => (texts.get(n) ?? text) === text).length,
  };
}

function problemsOf(units: readonly Unit[], given: ReadonlyMap<number, string>, keep: readonly string[]): string[] {
  return units.flatMap(({ n, text }) => putProblem(text, given.get(n) ?? '', keep) ?? []);
}
