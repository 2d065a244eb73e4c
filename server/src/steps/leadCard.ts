import { blogMeant, cardCalled, newCard, type StepOf } from '@grivo/core';
import type { StepContext } from '../engine/performer.ts';
import { drawingAsPng } from '../formats/pictures/drawing.ts';
import { getBlog } from '../nouns/blogs/repository.ts';
import { cardAlternative, drawnFor, picturesOfCard } from '../nouns/cards/draw.ts';
import { keepPicture } from '../nouns/pictures/keep.ts';
import type { Tools } from '../ports/tools.ts';
import { houseValues, styleFor } from './inStyle.ts';
import { type Found, leadOf } from './lead.ts';
import type { OwnArticle } from './ownArticle.ts';

/** A card of the house style with the article's title set into it. A house style without cards has a plain one. */
export async function cardLead(
  tools: Tools,
  step: StepOf<'illustrate'>,
  { document }: OwnArticle,
  context: StepContext,
): Promise<Found> {
  const { db, desk } = tools.ground;
  const cards = (await styleFor(tools, context, step))?.document.cards ?? [];
  const card = cardCalled(cards, step.card) ?? (step.card === '' ? newCard('Plain') : null);
  if (!card) return { kind: 'none', why: `Its house style has no card ‘${step.card}’.` };
  const blog = blogMeant(context.brief.document.steps, step.id);
  const drawn = drawnFor(
    card,
    {
      fields: context.fields,
      title: document.title,
      keyPhrase: document.keyPhrase,
      language: document.language,
      blog: blog === null ? '' : ((await getBlog(db, blog))?.name ?? ''),
      house: await houseValues(tools, context),
      now: desk.now(),
    },
    await picturesOfCard(db, card, Math.max(card.width, card.height)),
  );
  const stops = drawn.problems.find((problem) => problem.stops);
  if (stops) return { kind: 'none', why: `The card ‘${card.name}’: ${stops.sentence} ${stops.mend}` };
  const alternative = cardAlternative(drawn.says, document.language);
  const kept = await keepPicture(db, drawingAsPng(drawn.svg), {
    kind: 'card',
    words: alternative,
    credit: '',
    origin: card.name,
    cost: 0,
  });
  return kept.ok
    ? { kind: 'picture', from: 'card', lead: leadOf(kept, alternative, '') }
    : { kind: 'none', why: kept.problem };
}
