import {
  articleDoubts,
  carries,
  countWords,
  doubtWords,
  EMPTY_ARTICLE,
  lineOf,
  type Passage,
  type StepOf,
  spokenCarries,
  tidy,
} from '@grivo/core';
import type { Performer } from '../engine/performer.ts';
import { field, missing, NotesField, OutlineField, PassagesField } from '../nouns/articles/fields.ts';
import { addRevision, ensureArticle } from '../nouns/articles/repository.ts';
import { passagesById } from '../nouns/materials/repository.ts';
import type { Tools } from '../ports/tools.ts';
import { aimOf } from './aim.ts';
import { askWriter, instructed, phraseOf, subjectOf, withNote } from './asking.ts';
import { compose } from './writing/compose.ts';
import { withSource } from './writing/source.ts';

/** Words below which there is nothing to write from. */
const LEAST_MATERIAL = 50;

/** What is said carries less than what is written, so the two are reckoned apart. */
function carriedBy(passages: readonly Passage[]): number {
  const said = passages.filter(({ locator }) => locator.seconds !== undefined);
  const spoken = said.reduce((sum, { text, language }) => sum + countWords(text, language), 0);
  return spokenCarries(spoken) + carries(passages.filter(({ locator }) => locator.seconds === undefined));
}

/** Writes the article section by section, tidies it, and keeps it as a new revision of the brief's article. */
export function performWrite(tools: Tools): Performer<StepOf<'write'>> {
  return async (step, context) => {
    const ids = field(context.fields, 'passages', PassagesField) ?? (step.unsourced ? [] : null);
    const outline = field(context.fields, 'outline', OutlineField);
    if (!ids) return missing('passages');
    if (!outline) return missing('outline');
    const notes = field(context.fields, 'notes', NotesField);
    const own = await instructed(tools, { instruction: step.instruction }, context);
    if (!own.ok) return own.result;
    const passages = (await passagesById(tools.ground.db, ids)).map((passage, i) => ({ n: i + 1, passage }));
    const material = carriedBy(passages.map(({ passage }) => passage));
    const unsourced = step.unsourced && passages.length === 0;
    if (material < LEAST_MATERIAL && !unsourced)
      return { kind: 'failed', failure: { code: 'too-little-material', words: material, wanted: step.words } };
    const { language } = context.brief.document;
    // Asking for more than the sources carry only brings padding, so the writer is asked for what they carry.
    const words = unsourced ? step.words : Math.min(step.words, material);
    const composed = await compose(
      {
        subject: subjectOf(context),
        language,
        step: { ...step, words },
        instruction: withNote(own.texts.instruction, context),
        notes: notes ?? [],
        aim: aimOf(context),
        outline,
        passages,
      },
      async (request) => {
        const asked = await askWriter(tools, context, request);
        return asked.ok ? asked : { ok: false, failure: asked.result.failure };
      },
    );
    if (!composed.ok) return { kind: 'failed', failure: composed.failure };
    const { article: document, notes: tidied } = tidy({
      ...EMPTY_ARTICLE,
      language,
      keyPhrase: aimOf(context)?.phrase ?? phraseOf(context),
      body: withSource(composed.value.body, step.parts, context.fields, language),
    });
    const article = await ensureArticle(
      tools.ground,
      context.brief,
      lineOf(context.brief.nodes, context.run.path),
      language,
    );
    const {
      revision,
      words: written,
      writes,
    } = await addRevision(tools.ground, article, null, context.run.id, document);
    const doubts = articleDoubts(
      document,
      passages.map(({ passage }) => passage),
    );
    return {
      kind: 'done',
      fields: {
        article: { id: article, revision, words: written },
        figuresNotFound: doubts.flatMap(({ kind, words }) => (kind === 'figure' ? [words] : [])),
        doubts: doubts.map(doubtWords),
        tidied,
        ...(composed.value.leftOut.length > 0 ? { sectionsLeftOut: composed.value.leftOut } : {}),
        ...(words < step.words ? { askedWords: step.words, carriedWords: material } : {}),
      },
      writes,
    };
  };
}
