import { blogMeant, cardCalled, newCard, type StepOf } from '@grivo/core';
import type { StepContext } from '../engine/performer.ts';
import { getBlog } from '../nouns/blogs/repository.ts';
import { keepCard } from '../nouns/cards/keep.ts';
import type { Tools } from '../ports/tools.ts';
import { houseValues, styleFor } from './inStyle.ts';
import { type Found, figureOf, type PictureWanted } from './picture.ts';

/** A card of the house style with the article's title set into it. A house style without cards has a plain one. */
export async function cardPicture(
  tools: Tools,
  step: StepOf<'illustrate'>,
  wanted: PictureWanted,
  context: StepContext,
): Promise<Found> {
  const { db, desk } = tools.ground;
  const { document, title } = wanted;
  const cards = (await styleFor(tools, context, step))?.document.cards ?? [];
  const card = cardCalled(cards, step.card) ?? (step.card === '' ? newCard('Plain') : null);
  if (!card) return { kind: 'none', why: `Its house style has no card ‘${step.card}’.` };
  const blog = blogMeant(context.brief.document.steps, step.id);
  const kept = await keepCard(db, card, {
    fields: context.fields,
    title,
    keyPhrase: document.keyPhrase,
    language: document.language,
    blog: blog === null ? '' : ((await getBlog(db, blog))?.name ?? ''),
    house: await houseValues(tools, context),
    now: desk.now(),
  });
  return kept.ok
    ? { kind: 'picture', from: 'card', figure: figureOf(wanted, kept, kept.alternative, '') }
    : { kind: 'none', why: `The card ‘${card.name}’: ${kept.sentence} ${kept.mend}` };
}
