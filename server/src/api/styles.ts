import {
  type HouseStyle,
  HouseStyleChange,
  HouseStyles,
  HouseStyleWhole,
  Id,
  Made,
  NewHouseStyle,
  NewStyleText,
  ReplacementsTried,
  ReplacementTrial,
  StyleComparison,
  StyleSample,
  StyleVersions,
} from '@grivo/contract';
import {
  allSaid,
  type Block,
  blockText,
  byRules,
  isStatement,
  leadsSomewhere,
  pressedWords,
  type ReplacementRule,
  ruleProblem,
  templateFields,
  variantProblem,
} from '@grivo/core';
import { z } from 'zod';
import { getArticle, readRevision } from '../nouns/articles/repository.ts';
import { namer } from '../nouns/incidents/words.ts';
import {
  changeStyle,
  createStyle,
  getStyle,
  keepSample,
  listStyles,
  versionsOfStyle,
} from '../nouns/styles/repository.ts';
import {
  addText,
  asLearnt,
  besideStyle,
  LEAST_WORDS,
  learntOf,
  MOST_TEXTS,
  type NotLearnt,
  removeText,
  textsOf,
} from '../nouns/styles/texts.ts';
import { readPage } from '../ports/adapters/pages.ts';
import { writeSample } from '../steps/writing/sample.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';
import { changedMeanwhile, revFrom, tag } from './tags.ts';
import { standardWriter } from './writer.ts';

/** The longest a page is waited for, in milliseconds. */
const LONGEST_MS = 30_000;
const LONGEST_SAMPLE_MS = 120_000;

/** What the routes share. */
function helpers({ ground, bell, tools }: Product) {
  const { db } = ground;
  const whole = async (id: string): Promise<HouseStyleWhole> => {
    const found = await getStyle(db, id);
    if (!found) throw notFound('house style');
    return { ...found.style, ...(await learntOf(db, id)), sample: found.sample };
  };
  const save = async (id: string, rev: number, document: HouseStyle['document'], person: string) => {
    refuseUnsayable(document);
    if (!(await changeStyle(ground, id, rev, { document, person })))
      throw changedMeanwhile('house style', await whole(id));
    bell.ring({ kind: 'event' });
    return whole(id);
  };
  return { db, whole, save, ground, bell, tools };
}

type Helpers = ReturnType<typeof helpers>;

/** House styles: how a blog sounds and what it allows. */
export function styleRoutes(product: Product): Route[] {
  const shared = helpers(product);
  return [...listed(shared), ...versions(shared), ...learning(shared), ...tried(shared), ...heard(shared)];
}

/** @throws what stands in it that could never be said in an article */
function refuseUnsayable({ standing, call, closingLink, disclosure, cards, rules }: HouseStyle['document']): void {
  refuseUnusable(rules);
  const texts: { place: string; text: string; markup?: boolean }[] = [
    ...standing.flatMap(({ texts, markup }, i) => texts.map((text) => ({ place: `standing.${i}`, text, markup }))),
    { place: 'call', text: call?.before ?? '' },
    { place: 'call', text: call?.button ?? '' },
    { place: 'closingLink', text: closingLink?.before ?? '' },
    { place: 'closingLink', text: closingLink?.words ?? '' },
    { place: 'disclosure', text: disclosure },
    ...cards.flatMap(({ name, texts }) => texts.map(({ says }) => ({ place: `card ${name}`, text: says }))),
  ];
  for (const { place, text, markup = false } of texts) {
    // Braces of markup are its own.
    const read = templateFields(markup ? text : allSaid(text));
    const wrong = (markup ? null : variantProblem(text)) ?? (read.ok ? null : read.problem);
    if (wrong)
      throw problem(422, 'Cannot be said', wrong, 'Mend the braces of the text.', [
        { place, problem: text.slice(0, 80) },
      ]);
  }
  for (const [place, to] of [
    ['call.address', call],
    ['closingLink.address', closingLink],
  ] as const)
    if (to && !to.address.includes('{{') && !leadsSomewhere(to.address))
      throw problem(
        422,
        'Leads nowhere',
        `‘${to.address.slice(0, 80)}’ is no address.`,
        'Begin it with https:// or, for a page of the blog itself, with /.',
        [{ place, problem: 'not an address' }],
      );
}

/** @throws rules that cannot be used, each with what is wrong */
function refuseUnusable(rules: readonly ReplacementRule[]): void {
  const wrong = problemsOf(rules);
  if (wrong.length > 0)
    throw problem(
      422,
      'Cannot be replaced',
      wrong[0]!.problem,
      'Mend the rule, or take it out.',
      wrong.map(({ rule, problem }) => ({ place: `rules.${rule}`, problem })),
    );
}

const problemsOf = (rules: readonly ReplacementRule[]): { rule: number; problem: string }[] =>
  rules.flatMap((rule, i) => {
    const problem = ruleProblem(rule);
    return problem === null ? [] : [{ rule: i, problem }];
  });

/** Read, made, changed. */
function listed({ db, whole, save, ground, bell }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/styles',
      shared: true,
      says: 'House styles, with what keeps to each',
      role: 'proofreader',
      answer: HouseStyles,
      handle: async () => ({ styles: await listStyles(db) }),
    }),
    route({
      method: 'get',
      path: '/styles/{id}',
      says: 'One house style, with the texts it was learnt from and what they have in common',
      role: 'proofreader',
      answer: HouseStyleWhole,
      handle: async ({ params, response }) => {
        const now = await whole(params['id']!);
        tag(response, now.rev);
        return now;
      },
    }),
    route({
      method: 'post',
      path: '/styles',
      says: 'Makes a house style that asks for nothing yet, or a copy of another',
      role: 'editor',
      body: NewHouseStyle,
      answer: Made,
      status: 201,
      handle: async ({ body: { name, from }, person }) => {
        if (from !== undefined && !(await getStyle(db, from))) throw notFound('house style');
        const id = await createStyle(ground, { name, from, person: person.id });
        if (id === null)
          throw problem(
            409,
            'Name taken',
            `There is a house style ‘${name}’ already.`,
            'Choose another name, so that they can be told apart.',
          );
        bell.ring({ kind: 'event' });
        return { id };
      },
    }),
    route({
      method: 'put',
      path: '/styles/{id}',
      says: 'Changes a house style: a new version, which articles keep to from now on',
      role: 'editor',
      body: HouseStyleChange,
      answer: HouseStyleWhole,
      handle: async ({ params, body, person, request, response }) => {
        const now = await save(params['id']!, revFrom(request), body.document, person.id);
        tag(response, now.rev);
        return now;
      },
    }),
  ];
}

function versions({ db, whole }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/styles/{id}/versions',
      says: 'The versions of a house style, the newest first',
      role: 'proofreader',
      answer: StyleVersions,
      handle: async ({ params }) => {
        await whole(params['id']!);
        return { versions: await versionsOfStyle(db, params['id']!) };
      },
    }),
  ];
}

const WHY: Record<NotLearnt, { says: string; mend: string }> = {
  'too short': {
    says: `It has fewer than ${LEAST_WORDS} words: that tells nothing of how it sounds.`,
    mend: 'Give a whole text.',
  },
  'there already': { says: 'This text is there already.', mend: 'Give another.' },
  'too many': { says: `A house style is learnt from ${MOST_TEXTS} texts at most.`, mend: 'Take one out first.' },
};

/** Texts to learn from. */
/** A text to learn from: as it was given, or as it is read. */
async function textAt({ db, tools }: Pick<Helpers, 'db' | 'tools'>, body: z.infer<typeof NewStyleText>) {
  if ('text' in body) return { name: body.name, address: '', text: body.text, language: body.language ?? null };
  if ('article' in body) {
    const article = await getArticle(db, body.article);
    if (!article?.current) throw notFound('article');
    const document = await readRevision(db, article.current);
    const text = document.body.filter(isStatement).map(blockText).join('\n');
    return { name: document.title || 'An article', address: '', text, language: document.language };
  }
  const read = await readPage(tools, body.address, 'en', AbortSignal.timeout(LONGEST_MS));
  if (!read.ok)
    throw problem(
      422,
      'Cannot be read',
      `${body.address} cannot be read: ${read.reason}.`,
      'Give the address of a page with the text on it, or paste the text.',
    );
  const { title, paragraphs, language } = read.page;
  return { name: title || body.address, address: body.address, text: paragraphs.join('\n'), language };
}

function learning({ db, whole, save, ground, bell, tools }: Helpers) {
  return [
    route({
      method: 'post',
      path: '/styles/{id}/texts',
      says: 'Adds a text to learn from: pasted, read at an address, or an article of ours',
      role: 'editor',
      body: NewStyleText,
      answer: HouseStyleWhole,
      status: 200,
      handle: async ({ params, body }) => {
        await whole(params['id']!);
        const not = await addText(ground, tools.reader, params['id']!, await textAt({ db, tools }, body));
        if (not !== null) {
          const { says, mend } =
            typeof not === 'string' ? WHY[not] : { says: `The text: ${not.problem}.`, mend: 'Give a shorter text.' };
          throw problem(422, 'Not taken', says, mend);
        }
        bell.ring({ kind: 'event' });
        return whole(params['id']!);
      },
    }),
    route({
      method: 'delete',
      path: '/styles/{id}/texts/{text}',
      says: 'Takes a text out of those a house style is learnt from',
      role: 'editor',
      answer: HouseStyleWhole,
      handle: async ({ params }) => {
        if (!(await removeText(ground, params['id']!, params['text']!))) throw notFound('text');
        bell.ring({ kind: 'event' });
        return whole(params['id']!);
      },
    }),
    route({
      method: 'post',
      path: '/styles/{id}/learn',
      says: 'Puts a house style as its texts have it: its ranges, its person, and a description where it is asked for or there is none',
      role: 'editor',
      body: z.strictObject({ describe: z.boolean().default(false) }),
      answer: HouseStyleWhole,
      status: 200,
      handle: async ({ params, body, person, request, response }) => {
        const before = await whole(params['id']!);
        if (!before.learnt)
          throw problem(409, 'Nothing to learn from', 'It has no texts yet.', 'Add at least one text, better six.');
        const now = await save(
          before.id,
          revFrom(request),
          asLearnt(before.document, before.learnt, body.describe),
          person.id,
        );
        tag(response, now.rev);
        return now;
      },
    }),
  ];
}

/** Rules tried on a text before they are kept. */
function tried({ db }: Helpers) {
  return [
    route({
      method: 'post',
      path: '/styles/replacements/tried',
      says: 'What rules of replacement would change in an article or a text; nothing is changed',
      role: 'proofreader',
      body: ReplacementTrial,
      answer: ReplacementsTried,
      handle: async ({ body: { rules, article, text } }) => {
        const of = article === undefined ? null : await getArticle(db, article);
        if (article !== undefined && !of?.current) throw notFound('article');
        const document = of?.current ? await readRevision(db, of.current) : null;
        const body = document?.body ?? readPlain(text ?? '');
        const { replaced } = byRules(body, rules);
        return {
          title: document?.title ?? '',
          problems: problemsOf(rules),
          places: replaced.slice(0, MOST_PLACES),
          found: replaced.length,
        };
      },
    }),
  ];
}

/** Places shown of a text in which rules change more. */
const MOST_PLACES = 500;

const readPlain = (text: string): Block[] =>
  text.split(/\n+/).map((line, i) => ({ type: 'paragraph', id: `p${i}`, content: [{ text: line }] }));

/** Set beside an article, and heard. */
function heard({ db, whole, ground, bell, tools }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/styles/{id}/beside',
      says: 'An article beside a house style, point by point',
      role: 'proofreader',
      query: z.object({ article: Id }),
      answer: StyleComparison,
      handle: async ({ params, query }) => {
        const { document: style, id } = await whole(params['id']!);
        const article = await getArticle(db, query.article);
        if (!article?.current) throw notFound('article');
        const document = await readRevision(db, article.current);
        return besideStyle({ id: article.id, document }, style, await textsOf(db, id));
      },
    }),
    route({
      method: 'post',
      path: '/styles/{id}/sample',
      says: 'Has two paragraphs written in a house style, of what its texts speak of',
      role: 'editor',
      answer: StyleSample,
      status: 200,
      handle: async ({ params }) => {
        const style = await whole(params['id']!);
        const service = standardWriter(tools);
        const texts = await textsOf(db, style.id);
        if (texts.length === 0)
          throw problem(409, 'Nothing to write of', 'It has no texts to write of.', 'Add a text to learn from first.');
        const written = await writeSample(tools, service, style, texts, {
          stepRun: ground.ids(),
          draw: style.version * 1_000 + (style.sample ? style.sample.atDesk % 1_000 : 0),
          signal: AbortSignal.timeout(LONGEST_SAMPLE_MS),
        });
        if (!written.ok) {
          const { sentence, mend } = pressedWords(written.failure, await namer(db));
          throw problem(502, 'Not written', sentence, mend);
        }
        const sample = { ...written.value, version: style.version, atDesk: ground.desk.now() };
        await keepSample(ground, style.id, sample);
        bell.ring({ kind: 'event' });
        return sample;
      },
    }),
  ];
}
