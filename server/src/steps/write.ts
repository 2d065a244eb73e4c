import {
  articleDoubts,
  articleText,
  type Block,
  blogMeant,
  carries,
  countWords,
  doubtWords,
  EMPTY_ARTICLE,
  emphasised,
  lineOf,
  type Passage,
  rankPages,
  type Sayings,
  type StepOf,
  sayingsIn,
  spokenCarries,
  tidy,
  toldToWriter,
  withFold,
  withRelated,
} from '@grivo/core';
import type { Performer, StepContext } from '../engine/performer.ts';
import { ArticleField, field, missing, NotesField, OutlineField, PassagesField } from '../nouns/articles/fields.ts';
import { addRevision, ensureArticle } from '../nouns/articles/repository.ts';
import { linkPages } from '../nouns/links/pages.ts';
import { passagesById, storePassages } from '../nouns/materials/repository.ts';
import { factPassages, type StyleMeant } from '../nouns/styles/meant.ts';
import type { Tools } from '../ports/tools.ts';
import { aimOf } from './aim.ts';
import { askWriter, instructed, phraseOf, subjectOf, withNote } from './asking.ts';
import { housed, personFor, styleFor } from './inStyle.ts';
import { withStills } from './videoStills.ts';
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
    const found = await passagesById(tools.ground.db, ids);
    const material = carriedBy(found);
    const { language } = context.brief.document;
    const style = await styleFor(tools, context, step);
    const facts = (await keepFacts(tools, style, language)).filter(({ id }) => !ids.includes(id));
    const passages = [...found, ...facts].map((passage, i) => ({ n: i + 1, passage }));
    const unsourced = step.unsourced && found.length === 0;
    if (material < LEAST_MATERIAL && !unsourced)
      return { kind: 'failed', failure: { code: 'too-little-material', words: material, wanted: step.words } };
    const person = personFor(step.person, style);
    // Asking for more than the sources carry only brings padding, so the writer is asked for what they carry.
    const words = unsourced ? step.words : Math.min(step.words, material);
    const composed = await compose(
      {
        subject: subjectOf(context),
        language,
        step: { ...step, words, person },
        house: style ? toldToWriter(style.document, language) : '',
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
    const says = sayingsIn(language, style?.document.wording);
    const keyPhrase = aimOf(context)?.phrase ?? phraseOf(context);
    const shown = withSource(
      await withOwnParts(tools, context, step, { body: composed.value.body, keyPhrase, language, says }),
      step.parts,
      context.fields,
      says,
    );
    const written = await withStills(tools, shown, context.signal);
    const house = style
      ? await housed(tools, context, style, person, { title: '', keyPhrase, language, body: written })
      : null;
    const { article: document, notes: tidied } = tidy({
      ...EMPTY_ARTICLE,
      language,
      keyPhrase,
      body: house?.body ?? written,
      ...(house && house.replaced.length > 0 ? { replaced: house.replaced } : {}),
    });
    const article = await ensureArticle(
      tools.ground,
      context.brief,
      lineOf(context.brief.nodes, context.run.path),
      language,
    );
    const {
      revision,
      words: length,
      writes,
    } = await addRevision(tools.ground, article, null, context.run.id, document);
    const doubts = articleDoubts(
      document,
      passages.map(({ passage }) => passage),
    );
    return {
      kind: 'done',
      fields: {
        article: { id: article, revision, words: length },
        ...house?.fields,
        ...(facts.length > 0 ? { passages: [...ids, ...facts.map(({ id }) => id)] } : {}),
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

/** How many articles are named to be read next. */
const RELATED = 3;

/** The parts nobody is asked for: what is strong, where it folds, what to read next. */
async function withOwnParts(
  tools: Tools,
  { brief, fields }: StepContext,
  step: StepOf<'write'>,
  { body, keyPhrase, language, says }: { body: Block[]; keyPhrase: string; language: string; says: Sayings },
): Promise<Block[]> {
  let out = step.parts.includes('bold') ? emphasised(body, keyPhrase, language) : body;
  if (step.parts.includes('fold')) out = withFold(out, says);
  const blog = step.parts.includes('related articles') ? blogMeant(brief.document.steps, step.id) : null;
  if (blog === null) return out;
  const pages = await linkPages(tools.ground.db, blog);
  // Never itself, where it is written anew.
  const own = field(fields, 'article', ArticleField)?.id;
  const near = rankPages(
    articleText({ body }),
    pages.filter(({ article }) => article === undefined || article !== own),
    language,
  ).slice(0, RELATED);
  return withRelated(
    out,
    near.map(({ page }) => page),
    says,
  );
}

/** What is true of us, kept as passages an article can rest on. */
async function keepFacts(tools: Tools, style: StyleMeant | null, language: string): Promise<Passage[]> {
  const facts = style ? factPassages(style, language) : [];
  for (const fact of facts)
    await storePassages(tools.ground.db, { address: '', title: fact.locator.title, language }, [fact]);
  return facts;
}
