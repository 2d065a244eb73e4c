import {
  alternativeFrom,
  type Block,
  type BlockOf,
  mayDraw,
  type PicturePlace,
  placesAtHeadings,
  placesWhereTheyFit,
  type StepOf,
  withPictures,
} from '@grivo/core';
import type { Performer, StepContext, StepResult } from '../engine/performer.ts';
import { missing } from '../nouns/articles/fields.ts';
import type { Tools } from '../ports/tools.ts';
import { filled, subjectOf } from './asking.ts';
import { type OwnArticle, ownArticle } from './ownArticle.ts';
import type { Found, PictureWanted } from './picture.ts';
import { cardPicture } from './pictureCard.ts';
import { drawnPicture } from './pictureDrawn.ts';
import { libraryPicture } from './pictureLibrary.ts';
import { namedPicture } from './pictureNamed.ts';
import { ownPicture } from './pictureOwn.ts';
import { pagePicture } from './picturePage.ts';
import { stillPicture } from './pictureStill.ts';

type Step = StepOf<'illustrate'>;

const FROM: Record<
  Step['lead'],
  (tools: Tools, step: Step, wanted: PictureWanted, context: StepContext) => Promise<Found>
> = {
  drawn: drawnPicture,
  own: (tools, _, wanted) => ownPicture(tools, wanted),
  still: stillPicture,
  library: (tools, _, wanted, context) => libraryPicture(tools, wanted, context),
  card: cardPicture,
  field: namedPicture,
  page: pagePicture,
};

/** Puts pictures into the article, of the kind the step asks for, else drawn ones where they may be: one at its head, or several in its text. */
export function performIllustrate(tools: Tools): Performer<Step> {
  return async (step, context) => {
    const article = await ownArticle(tools, context);
    if (!article) return missing('article');
    return step.place === 'lead' ? leads(tools, step, article, context) : inText(tools, step, article, context);
  };
}

type WithWhy = Found & { kind: Found['kind']; notFound?: string };

/** A picture of the kind that is asked for, else a drawn one; and why the first was not to be had. */
async function find(tools: Tools, step: Step, wanted: PictureWanted, context: StepContext): Promise<WithWhy> {
  const found = await said(tools, step, wanted, context, await FROM[step.lead](tools, step, wanted, context));
  if (found.kind !== 'none') return found;
  const why = found.why === undefined ? {} : { notFound: found.why };
  if (step.lead === 'drawn' || !mayDraw(step)) return { ...found, ...why };
  return { ...(await drawnPicture(tools, step, wanted, context)), ...why };
}

/** A picture with the alternative text the step gives it, where it gives one. */
async function said(
  tools: Tools,
  { alternative }: Step,
  { title }: PictureWanted,
  context: StepContext,
  found: Found,
): Promise<Found> {
  if (alternative === '' || found.kind !== 'picture') return found;
  const own = await filled(tools, { alternative }, context);
  if (!own.ok) return { kind: 'ended', result: own.result };
  const text = alternativeFrom(own.texts.alternative, title);
  return text === null ? found : { ...found, figure: { ...found.figure, alternative: text } };
}

const isLead = (block: Block): boolean => block.type === 'figure' && block.lead;

async function leads(tools: Tools, step: Step, article: OwnArticle, context: StepContext): Promise<StepResult> {
  const { document } = article;
  const { title } = document;
  const before = document.body.filter((block) => !isLead(block));
  const wanted = { document, title, subject: subjectOf(context), about: '', id: 'lead', lead: true };
  const found = await find(tools, step, { ...wanted, there: filesIn(before) }, context);
  if (found.kind === 'ended') return found.result;
  const body: Block[] = found.kind === 'none' ? before : [found.figure, ...before];
  const { article: changed, writes } = await article.change({ ...document, body });
  const picture = found.kind === 'none' ? null : fieldOf(found.figure, found.from);
  const said = found.notFound === undefined ? {} : { pictureSaid: found.notFound };
  return { kind: 'done', fields: { article: changed, picture, ...said }, writes };
}

/** Pictures in the text; a place for which there is none stays as it is. */
async function inText(tools: Tools, step: Step, article: OwnArticle, context: StepContext): Promise<StepResult> {
  const { document } = article;
  const own = `${step.id}p`;
  // What an earlier run of this step put there gives way.
  const before = document.body.filter(({ type, id }) => !(type === 'figure' && id.startsWith(own)));
  const places =
    step.place === 'at headings' ? placesAtHeadings(before, step.headings) : placesWhereTheyFit(before, step.most);
  const there = new Set(filesIn(before));
  const put: { place: PicturePlace; figure: BlockOf<'figure'>; from: string }[] = [];
  const whys = new Set<string>();
  for (const [n, place] of places.entries()) {
    const { heading: title, about } = place;
    const subject = `${subjectOf(context)}: ${title}`;
    const wanted = { document, title, subject, about, id: `${own}${n + 1}`, lead: false, there };
    const found = await find(tools, step, wanted, context);
    if (found.kind === 'ended') return found.result;
    if (found.notFound !== undefined) whys.add(found.notFound);
    if (found.kind === 'none' || there.has(found.figure.file)) continue;
    there.add(found.figure.file);
    put.push({
      place,
      figure: { ...found.figure, ...(step.size === 'full' ? {} : { size: step.size }) },
      from: found.from,
    });
  }
  const { article: changed, writes } = await article.change({ ...document, body: withPictures(before, put) });
  const pictures = put.map(({ figure, from }) => fieldOf(figure, from));
  const said = whys.size === 0 ? {} : { pictureSaid: [...whys].join(' ') };
  const picture = context.fields['picture'] ?? pictures[0] ?? null;
  return { kind: 'done', fields: { article: changed, picture, pictures, ...said }, writes };
}

const filesIn = (body: readonly Block[]): Set<string> =>
  new Set(body.flatMap((block) => (block.type === 'figure' ? [block.file] : [])));

const fieldOf = ({ file, width, height }: BlockOf<'figure'>, from: string) => ({ file, width, height, from });
