import {
  type ArticleDocument,
  articleText,
  articleWords,
  drawAt,
  figuresAmiss,
  fold,
  likeness,
  lineOf,
  locate,
  type StepOf,
} from '@grivo/core';
import { ArticleField, field, missing, PassagesField } from '../articles/fields.ts';
import { getArticle, readRevision } from '../articles/repository.ts';
import type { Performer, StepContext } from '../engine/performer.ts';
import { passagesById } from '../materials/repository.ts';
import type { Tools } from '../ports/tools.ts';

type CheckStep = StepOf<'check'>;

/** Checks the article by every rule; one that fails goes back to be written again, then ends as the step says. */
export function performCheck(tools: Tools): Performer<CheckStep> {
  return async (step, context) => {
    const article = field(context.fields, 'article', ArticleField);
    if (!article) return missing('article');
    const document = await readRevision(tools.ground.db, article.revision);
    const ids = field(context.fields, 'passages', PassagesField) ?? [];
    const passages = await passagesById(tools.ground.db, ids);
    const sources = passages.map(({ text }) => text);
    const failing = failingRules(step, document, passages);
    const check = {
      words: articleWords(document),
      from: step.words.from,
      to: step.words.to,
      fits: failing.length === 0,
      likeness: likenessPercent(document, sources),
      failing,
    };
    if (check.fits) return { kind: 'done', fields: { check } };
    if (step.again > timesWritten(context))
      return { kind: 'done', fields: { check }, outcome: { kind: 'again', most: step.again } };
    if (step.otherwise === 'hold it for me') return { kind: 'held', fields: { check } };
    // An article that came from outside this branch is not this branch's to end.
    const own = (await getArticle(tools.ground.db, article.id))?.line === lineOf(context.brief.nodes, context.run.path);
    const ended = {
      text: "UPDATE article SET standing = 'set aside', rev = rev + 1 WHERE id = ?",
      parameters: [article.id],
    };
    return {
      kind: 'done',
      fields: { check },
      outcome: { kind: 'set aside', why: check.failing.join('; ') },
      writes: own ? [ended] : [],
    };
  };
}

/** What is wrong with an article, each rule that fails as a sentence with its figure. */
export function failingRules(
  step: CheckStep,
  document: ArticleDocument,
  passages: readonly { id: string; text: string }[],
): string[] {
  const sources = passages.map(({ text }) => text);
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
  if (step.likeness !== null) {
    const share = likenessPercent(document, sources);
    if (share >= step.likeness)
      out.push(`${share} % stands in the sources word for word, ${step.likeness} % is the limit`);
  }
  if (step.figures) {
    const strange = figuresAmiss(document, passages);
    if (strange.length > 0) out.push(`no passage holds the figures ${strange.join(', ')}`);
  }
  return out;
}

/** Share of the text that stands in the sources word for word, in whole per cent. */
function likenessPercent(document: ArticleDocument, sources: readonly string[]): number {
  return sources.length === 0 ? 0 : Math.round(likeness(articleText(document), sources, document.language) * 100);
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
