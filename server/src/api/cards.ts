import { setImmediate as breathe } from 'node:timers/promises';
import { ArticleCards, type CardSample, CardSamples, DrawArticleCard, DrawCard, Picture } from '@grivo/contract';
import { type CardDocument, cardCalled, LanguageTag, newCard } from '@grivo/core';
import { z } from 'zod';
import { drawingAsPng } from '../formats/pictures/drawing.ts';
import { getArticle, readRevision } from '../nouns/articles/repository.ts';
import { getBlog } from '../nouns/blogs/repository.ts';
import { type CardPictures, drawnFor, picturesOfCard } from '../nouns/cards/draw.ts';
import { keepCard } from '../nouns/cards/keep.ts';
import { titlesFor } from '../nouns/cards/titles.ts';
import { getPicture } from '../nouns/pictures/repository.ts';
import { styleOfBlog, styleOfBrief } from '../nouns/styles/meant.ts';
import { getStyle } from '../nouns/styles/repository.ts';
import { shownPicture } from './pictures.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';

const MANY = 10;
/** Pictures of ten small cards need no more dots than that. */
const IN_SAMPLES = 480;

const valuesOf = (values: readonly { name: string; text: string }[]): Record<string, string> =>
  Object.fromEntries(values.map(({ name, text }) => [name, text]));

/** Cards of house styles, drawn before they are kept, as files, and for articles. */
export function cardRoutes(product: Product): Route[] {
  return [...ofStyles(product), ...ofArticles(product)];
}

function ofStyles({ ground: { db, desk } }: Product): Route[] {
  const styleAt = async (id: string) => {
    const found = await getStyle(db, id);
    if (!found) throw notFound('house style');
    return found.style.document;
  };
  return [
    route({
      method: 'post',
      path: '/styles/{id}/cards/drawn',
      says: 'A card as it is typed, drawn with ten titles of ours from short to long; nothing is kept',
      role: 'proofreader',
      body: DrawCard,
      answer: CardSamples,
      status: 200,
      secret: 'again',
      handle: async ({ params, body: { card, draw } }) => {
        const { values } = await styleAt(params['id']!);
        const { madeUp, titles } = await titlesFor(db, params['id']!, MANY, draw);
        const pictures = await picturesOfCard(db, card, IN_SAMPLES);
        const samples: CardSample[] = [];
        for (const { title, language, blog } of titles) {
          const subject = { title, keyPhrase: '', language, blog, house: valuesOf(values), now: desk.now() };
          const { svg, texts, problems } = drawnFor(card, subject, pictures);
          samples.push({ title, blog, language, svg, texts, problems });
          // Others are answered between two of them.
          await breathe();
        }
        return { madeUp, samples };
      },
    }),
    route({
      method: 'get',
      path: '/styles/{id}/cards/{card}/file',
      says: 'A card of a house style with a title, as a PNG',
      role: 'proofreader',
      query: CardFileQuery,
      mime: 'image/png',
      handle: async ({ params, query: { title, blog, language }, response }) => {
        const { cards, values } = await styleAt(params['id']!);
        const card = cards.find(({ name }) => name === params['card']);
        if (!card) throw notFound('card');
        const subject = { title, keyPhrase: '', language, blog, house: valuesOf(values), now: desk.now() };
        const { svg } = mustDraw(card, subject, await picturesOfCard(db, card, Math.max(card.width, card.height)));
        const name = `${card.name} ${title}`.replace(/[^\p{L}\p{N}]+/gu, '-').slice(0, 80);
        response.setHeader('content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}.png`);
        response.type('image/png').send(drawingAsPng(svg));
      },
    }),
  ];
}

const CardFileQuery = z.object({
  title: z.string().trim().min(1).max(500),
  blog: z.string().max(200).default(''),
  language: LanguageTag.default('en'),
});

/** @throws what keeps the card from being drawn */
function mustDraw(card: CardDocument, subject: Parameters<typeof drawnFor>[1], pictures: CardPictures) {
  const drawn = drawnFor(card, subject, pictures);
  const stops = drawn.problems.find((one) => one.stops);
  if (stops) throw problem(422, 'Not drawn', stops.sentence, stops.mend);
  return drawn;
}

function ofArticles({ ground: { db, desk } }: Product): Route[] {
  const about = async (id: string) => {
    const article = await getArticle(db, id);
    if (!article?.current) throw notFound('article');
    const style =
      (await styleOfBrief(db, article.brief)) ?? (article.blog === null ? null : await styleOfBlog(db, article.blog));
    return { article, current: article.current, style: style?.document ?? null };
  };
  return [
    route({
      method: 'get',
      path: '/articles/{id}/cards',
      says: 'The cards that can be drawn for an article: those of its house style, by name',
      role: 'proofreader',
      answer: ArticleCards,
      handle: async ({ params }) => {
        const { style } = await about(params['id']!);
        return { cards: (style?.cards ?? []).map(({ name }) => name) };
      },
    }),
    route({
      method: 'post',
      path: '/articles/{id}/card',
      says: 'Draws a card with the title of an article into the library; the article stays as it is until that is used',
      role: 'proofreader',
      body: DrawArticleCard,
      answer: Picture,
      status: 200,
      handle: async ({ params, body }) => {
        const { article, current, style } = await about(params['id']!);
        const card = cardCalled(style?.cards ?? [], body.card) ?? (body.card === '' ? newCard('Plain') : null);
        if (!card) throw notFound('card');
        const document = await readRevision(db, current);
        const blog = article.blog === null ? null : await getBlog(db, article.blog);
        const subject = {
          title: document.title,
          keyPhrase: document.keyPhrase,
          language: document.language,
          blog: blog?.name ?? '',
          house: valuesOf(style?.values ?? []),
          now: desk.now(),
        };
        const kept = await keepCard(db, card, subject);
        if (!kept.ok) throw problem(422, 'Not drawn', kept.sentence, kept.mend);
        const picture = await getPicture(db, kept.file);
        if (!picture) throw notFound('picture');
        return shownPicture(picture);
      },
    }),
  ];
}
