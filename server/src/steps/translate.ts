import {
  languageCalled,
  languageName,
  type StepOf,
  tidy,
  toldToWriter,
  type Unit,
  unitProblem,
  unitsOf,
} from '@grivo/core';
import type { Performer, StepContext, StepResult } from '../engine/performer.ts';
import { isInOther } from '../formats/language/recognise.ts';
import { missing } from '../nouns/articles/fields.ts';
import { ledToSiblings } from '../nouns/links/siblings.ts';
import type { Tools } from '../ports/tools.ts';
import { askWriter, filled, instructed, withNote } from './asking.ts';
import { housed, personFor, personWritten, styleFor } from './inStyle.ts';
import { ownArticle } from './ownArticle.ts';
import { portions } from './writing/portions.ts';
import { translatePrompt, translatorRules, UNTRANSLATED } from './writing/promptsOfTexts.ts';
import { TranslationShape } from './writing/shapes.ts';

/** All texts of an article in another language, a portion at a time, by their numbers. */
async function textsInto(
  tools: Tools,
  context: StepContext,
  units: ReturnType<typeof unitsOf>['units'],
  { from, into, instruction, house }: { from: string; into: string; instruction: string; house: string },
): Promise<{ ok: true; value: Map<number, string> } | { ok: false; result: StepResult }> {
  const [named, called] = [languageName(from), languageName(into)];
  const texts = new Map<number, string>();
  for (const part of portions(units)) {
    let problem: string | null = null;
    const asked = await askWriter(tools, context, {
      instructions: translatorRules(named, called),
      material: translatePrompt({ from: named, into: called, instruction, house, units: part }),
      name: 'translation',
      shape: TranslationShape,
      accept: (value) => {
        problem = firstProblem(part, new Map(value.texts.map(({ n, text }) => [n, text])), into);
        return problem === null ? { ok: true, value } : { ok: false, problem };
      },
      maxTokensOut: 4_000,
    });
    if (!asked.ok)
      return asked.result.failure.code === 'reply-unusable' && problem !== null
        ? {
            ok: false,
            result: { kind: 'failed', failure: { code: 'translation-incomplete', language: called, problem } },
          }
        : asked;
    for (const { n, text } of asked.value.texts) texts.set(n, text);
  }
  return { ok: true, value: texts };
}

/** Puts the article into another language. A text that comes back without a link or a figure stops it: half is not published. */
export function performTranslate(tools: Tools): Performer<StepOf<'translate'>> {
  return async (step, context) => {
    const own = await instructed(tools, { instruction: step.instruction }, context);
    const named = await filled(tools, { into: step.into }, context);
    if (!own.ok) return own.result;
    if (!named.ok) return named.result;
    const into = languageCalled(named.texts.into);
    if (!into) return { kind: 'failed', failure: { code: 'language-unknown', language: named.texts.into } };
    const article = await ownArticle(tools, context);
    if (!article) return missing('article');
    const style = await styleFor(tools, context, step);
    const { units, put } = unitsOf(article.document);
    const from = article.document.language;
    const house = style ? toldToWriter(style.document, into) : '';
    const instruction = withNote(own.texts.instruction, context);
    const texts = await textsInto(tools, context, units, { from, into, instruction, house });
    if (!texts.ok) return texts.result;
    const translated = await ledToSiblings(tools.ground.db, { ...put(texts.value), language: into }, into);
    const spoken = personWritten(context) ?? personFor('as the house style', style);
    const kept = style ? await housed(tools, context, style, spoken, translated) : null;
    const { article: document } = tidy(
      kept
        ? { ...translated, body: kept.body, ...(kept.replaced.length > 0 ? { replaced: kept.replaced } : {}) }
        : translated,
    );
    const { article: changed, writes } = await article.change(document);
    return {
      kind: 'done',
      fields: {
        article: changed,
        ...kept?.fields,
        ...(document.title === '' ? {} : { title: document.title }),
        language: into,
      },
      writes,
    };
  };
}

/** What is wrong with a part of the translation: first text by text, then whether all of it is in the language that was asked for. */
function firstProblem(units: readonly Unit[], given: ReadonlyMap<number, string>, into: string): string | null {
  for (const unit of units) {
    const problem = unitProblem(unit.text, given.get(unit.n) ?? '', UNTRANSLATED);
    if (problem) return problem;
  }
  const other = isInOther([...given.values()].join('\n'), into);
  return other === null ? null : `it is written in ${languageName(other)}`;
}
