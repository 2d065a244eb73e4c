import {
  type ArticleDocument,
  alikeBlocks,
  alikeSentences,
  articleText,
  DEGREES,
  type Degree,
  EMPTY_ARTICLE,
  ownText,
  puttingOf,
  type StepOf,
} from '@grivo/core';
import type { Performer, StepContext } from '../engine/performer.ts';
import { asideWrite } from '../nouns/articles/facts.ts';
import { field, missing, PassagesField } from '../nouns/articles/fields.ts';
import { passagesById } from '../nouns/materials/repository.ts';
import type { Tools } from '../ports/tools.ts';
import { askWriter, type Ended, filled, instructed, withNote } from './asking.ts';
import { styleFor } from './inStyle.ts';
import { ownArticle } from './ownArticle.ts';
import { portions } from './writing/portions.ts';
import { type Put, putRequest, wellPut, withPut } from './writing/putting.ts';

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

async function putOnce(
  tools: Tools,
  context: StepContext,
  step: StepOf<'put'>,
  { document, degree, only, instruction }: Round,
): Promise<({ ok: true } & Put) | { ok: false; result: Ended }> {
  const style = (await styleFor(tools, context, step))?.document ?? null;
  const how = { degree, keep: step.keep, instruction: withNote(instruction, context), style };
  const texts = new Map<number, string>();
  for (const units of portions(puttingOf(document, only).units)) {
    const asked = await askWriter(tools, context, putRequest(document.language, units, how));
    if (!asked.ok) return asked;
    for (const [n, text] of wellPut(units, asked.value, step.keep)) texts.set(n, text);
  }
  return { ok: true, ...withPut(document, texts, how, only) };
}
