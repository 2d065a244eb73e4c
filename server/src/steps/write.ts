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
import type { Performer, StepContext, StepResult } from '../engine/performer.ts';
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
import { type Composition, compose } from './writing/compose.ts';
import { withSource } from './writing/source.ts';

/** Words below which there is nothing to write from. */
const LEAST_MATERIAL = 50;

/** What is said carries less than what is written, so the two are reckoned apart. */
function carriedBy(passages: readonly Passage[]): number {
  const said = passages.filter(({ locator }) => locator.seconds !== undefined);
  const spoken = said.reduce((sum, { text, language }) => sum + countWords(text, language), 0);
  return spokenCarries(spoken) + carries(passages.filter(({ locator }) => locator.seconds === undefined));
}

/** What an article is written from, and how. */
interface Given {
  ids: readonly string[];
  facts: readonly Passage[];
  style: StyleMeant | null;
  /** Words the sources have material for. */
  material: number;
  composition: Composition;
}

/** What a step has to write from; its result where that is not enough. */
async function givenTo(
  tools: Tools,
  context: StepContext,
  step: StepOf<'write'>,
): Promise<{ ok: true; given: Given } | { ok: false; result: StepResult }> {
  const { fields } = context;
  const ids = field(fields, 'passages', PassagesField) ?? (step.unsourced ? [] : null);
  const outline = field(fields, 'outline', OutlineField);
  if (!ids) return { ok: false, result: missing('passages') };
  if (!outline) return { ok: false, result: missing('outline') };
  const own = await instructed(tools, { instruction: step.instruction }, context);
  if (!own.ok) return own;
  const found = await passagesById(tools.ground.db, ids);
  const material = carriedBy(found);
  const { language } = context.brief.document;
  const style = await styleFor(tools, context, step);
  const facts = (await keepFacts(tools, style, language)).filter(({ id }) => !ids.includes(id));
  const unsourced = step.unsourced && found.length === 0;
  if (material < LEAST_MATERIAL && !unsourced) {
    const failure = { code: 'too-little-material', words: material, wanted: step.words } as const;
    return { ok: false, result: { kind: 'failed', failure } };
  }
  // Asking for more than the sources carry only brings padding, so the writer is asked for what they carry.
  const words = unsourced ? step.words : Math.min(step.words, material);
  const composition: Composition = {
    subject: subjectOf(context),
    language,
    step: { ...step, words, person: personFor(step.person, style) },
    house: style ? toldToWriter(style.document, language) : '',
    instruction: withNote(own.texts.instruction, context),
    notes: field(fields, 'notes', NotesField) ?? [],
    aim: aimOf(context),
    outline,
    passages: [...found, ...facts].map((passage, i) => ({ n: i + 1, passage })),
  };
  return { ok: true, given: { ids, facts, style, material, composition } };
}

/** What was composed, with the parts nobody is asked for, in the words of the house, tidied. */
async function finished(
  tools: Tools,
  context: StepContext,
  step: StepOf<'write'>,
  { style, composition: { language, step: asked } }: Given,
  body: Block[],
) {
  const says = sayingsIn(language, style?.document.wording);
  const keyPhrase = aimOf(context)?.phrase ?? phraseOf(context);
  const whole = await withOwnParts(tools, context, step, { body, keyPhrase, language, says });
  const written = await withStills(tools, withSource(whole, step.parts, context.fields, says), context.signal);
  const house = style
    ? await housed(tools, context, style, asked.person, { title: '', keyPhrase, language, body: written })
    : null;
  const { article: document, notes: tidied } = tidy({
    ...EMPTY_ARTICLE,
    language,
    keyPhrase,
    body: house?.body ?? written,
    ...(house && house.replaced.length > 0 ? { replaced: house.replaced } : {}),
  });
  return { document, tidied, fields: house?.fields };
}

/** Writes the article section by section, tidies it, and keeps it as a new revision of the brief's article. */
export function performWrite(tools: Tools): Performer<StepOf<'write'>> {
  return async (step, context) => {
    const all = await givenTo(tools, context, step);
    if (!all.ok) return all.result;
    const { given } = all;
    const { facts, material, composition } = given;
    const composed = await compose(composition, async (request) => {
      const asked = await askWriter(tools, context, request);
      return asked.ok ? asked : { ok: false, failure: asked.result.failure };
    });
    if (!composed.ok) return { kind: 'failed', failure: composed.failure };
    const { document, tidied, fields } = await finished(tools, context, step, given, composed.value.body);
    const line = lineOf(context.brief.nodes, context.run.path);
    const article = await ensureArticle(tools.ground, context.brief, line, composition.language);
    const { revision, words, writes } = await addRevision(tools.ground, article, null, context.run.id, document);
    const doubts = articleDoubts(
      document,
      composition.passages.map(({ passage }) => passage),
    );
    return {
      kind: 'done',
      fields: {
        article: { id: article, revision, words },
        ...fields,
        ...(facts.length > 0 ? { passages: [...given.ids, ...facts.map(({ id }) => id)] } : {}),
        figuresNotFound: doubts.flatMap(({ kind, words }) => (kind === 'figure' ? [words] : [])),
        doubts: doubts.map(doubtWords),
        tidied,
        ...(composed.value.leftOut.length > 0 ? { sectionsLeftOut: composed.value.leftOut } : {}),
        ...(composition.step.words < step.words ? { askedWords: step.words, carriedWords: material } : {}),
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
