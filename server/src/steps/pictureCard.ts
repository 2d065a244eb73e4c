import { blogMeant, cardCalled, newCard, type StepOf } from '@grivo/core';
import type { StepContext } from '../engine/performer.ts';
import { getBlog } from '../nouns/blogs/repository.ts';
import { keepCard } from '../nouns/cards/keep.ts';
import type { Tools } from '../ports/tools.ts';
import { houseValues, styleFor } from './inStyle.ts';
import { type Found, figureOf, type PictureWanted } from './picture.ts';

/** Draws a card of the house style with a title set into it. A house style without cards has a plain one. */
export async function drawnCard(
  tools: Tools,
  step: Parameters<typeof styleFor>[2] & { id: string; card: string },
  { document, title }: Pick<PictureWanted, 'document' | 'title'>,
  context: StepContext,
): Promise<Awaited<ReturnType<typeof keepCard>> & { name: string }> {
  const { db, desk } = tools.ground;
  const cards = (await styleFor(tools, context, step))?.document.cards ?? [];
  const card = cardCalled(cards, step.card) ?? (step.card === '' ? newCard('Plain') : null);
  if (!card)
    return { ok: false, name: step.card, sentence: 'its house style has no such card.', mend: 'Choose another one.' };
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
  return { ...kept, name: card.name };
}

/** A card as the picture of an article. */
export async function cardPicture(
  tools: Tools,
  step: StepOf<'illustrate'>,
  wanted: PictureWanted,
  context: StepContext,
): Promise<Found> {
  const kept = await drawnCard(tools, step, wanted, context);
  return kept.ok
    ? { kind: 'picture', from: 'card', figure: figureOf(wanted, kept, kept.alternative, '') }
    : { kind: 'none', why: `The card ‘${kept.name}’: ${kept.sentence} ${kept.mend}` };
}
