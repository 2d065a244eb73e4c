import {
  alternativeFor,
  alternativeFrom,
  type Block,
  type BlockOf,
  languageName,
  mayDraw,
  type StepOf,
} from '@grivo/core';
import type { Performer, StepContext } from '../engine/performer.ts';
import { missing } from '../nouns/articles/fields.ts';
import { chooseOwn } from '../nouns/pictures/choose.ts';
import { keepPicture } from '../nouns/pictures/keep.ts';
import type { Tools } from '../ports/tools.ts';
import { instructed, subjectOf, withNote } from './asking.ts';
import { styleFor } from './inStyle.ts';
import { type OwnArticle, ownArticle } from './ownArticle.ts';
import { askerOf, serviceFor } from './tools.ts';
import { fenced } from './writing/fences.ts';
import { picturePrompt } from './writing/prompts.ts';
import { stillOf } from './writing/source.ts';

type Lead = BlockOf<'figure'>;
type Found = { kind: 'picture'; lead: Lead; from: 'drawn' | 'still' | 'own' } | { kind: 'none' };
type Ended = { kind: 'ended'; result: Awaited<ReturnType<Performer<StepOf<'illustrate'>>>> };

/** Puts a lead picture at the head of the article: the source's own, one of ours, or one that is drawn. */
export function performIllustrate(tools: Tools): Performer<StepOf<'illustrate'>> {
  return async (step, context) => {
    const article = await ownArticle(tools, context);
    if (!article) return missing('article');
    let found: Found | Ended = { kind: 'none' };
    if (step.lead === 'own') found = await ownOf(tools, article, context);
    if (step.lead === 'still') found = await still(tools, article, context);
    if (found.kind === 'none' && mayDraw(step)) found = await drawn(tools, step, article, context);
    if (found.kind === 'ended') return found.result;
    const { document } = article;
    const before = document.body.filter((block) => !(block.type === 'figure' && block.lead));
    const body: Block[] = found.kind === 'none' ? before : [found.lead, ...before];
    const { article: changed, writes } = await article.change({ ...document, body });
    const picture =
      found.kind === 'none'
        ? null
        : { file: found.lead.file, width: found.lead.width, height: found.lead.height, from: found.from };
    return { kind: 'done', fields: { article: changed, picture }, writes };
  };
}

/** A picture of ours whose words fit the article. */
async function ownOf(tools: Tools, { document }: OwnArticle, context: StepContext): Promise<Found> {
  const about = `${document.title} ${subjectOf(context)} ${document.keyPhrase}`;
  const chosen = await chooseOwn(tools.ground.db, about, document.language);
  if (!chosen) return { kind: 'none' };
  const { file, width, height, words, credit } = chosen;
  const alternative = alternativeFrom(words, document.title) ?? words;
  return { kind: 'picture', from: 'own', lead: leadOf({ file, width, height }, alternative, credit) };
}

const TIME_LIMIT_MS = 20_000;
const MOST_BYTES = 15_000_000;

/** The still of the video an article is made from, or the picture its product has. */
async function still(tools: Tools, { document }: OwnArticle, { fields }: StepContext): Promise<Found> {
  const source = stillOf(fields);
  if (!source) return { kind: 'none' };
  const outcome = await tools.network.call({
    method: 'GET',
    address: source.picture,
    timeLimitMs: TIME_LIMIT_MS,
    maxBytes: MOST_BYTES,
  });
  if (outcome.kind !== 'reply' || outcome.reply.status !== 200) return { kind: 'none' };
  const german = document.language.startsWith('de');
  const words = `${german ? 'Standbild aus' : 'Still of'} ${german ? '„' : '“'}${source.title}${german ? '“' : '”'}`;
  const credit = source.by || (source.address === '' ? '' : new URL(source.address).host);
  const kept = await keepPicture(tools.ground.db, outcome.reply.body, {
    kind: 'still',
    words,
    credit,
    origin: source.address,
    cost: 0,
  });
  if (!kept.ok) return { kind: 'none' };
  const lead = leadOf(kept, words, credit);
  const address = source.address;
  return {
    kind: 'picture',
    from: 'still',
    lead:
      address === '' || !lead.credit ? lead : { ...lead, credit: [{ text: credit, link: { to: 'address', address } }] },
  };
}

/** One the illustrator draws. */
async function drawn(
  tools: Tools,
  step: StepOf<'illustrate'>,
  { document }: OwnArticle,
  context: StepContext,
): Promise<Found | Ended> {
  const found = serviceFor(tools, 'illustrator', context);
  if (!found.ok) return { kind: 'ended', result: found.result };
  const own = await instructed(tools, { instruction: step.instruction }, context);
  if (!own.ok) return { kind: 'ended', result: own.result };
  const asked = picturePrompt({
    title: document.title,
    subject: subjectOf(context),
    manner: step.manner || ((await styleFor(tools, context, step))?.document.pictures ?? ''),
    language: languageName(document.language),
    instruction: withNote(own.texts.instruction, context),
  });
  const { material: prompt } = fenced(tools.secrets, { instructions: '', material: asked });
  const drew = await tools.illustrator.draw(found.service, prompt, askerOf(tools, context));
  if (!drew.ok) return { kind: 'ended', result: { kind: 'failed', failure: drew.failure } };
  context.spent(drew.value.micros);
  const alternative =
    alternativeFrom(drew.value.shows, document.title) ?? alternativeFor(document.title, document.language);
  const kept = await keepPicture(tools.ground.db, drew.value.bytes, {
    kind: 'drawn',
    words: alternative,
    credit: '',
    origin: found.service.name,
    cost: drew.value.micros,
  });
  if (!kept.ok)
    return {
      kind: 'ended',
      result: {
        kind: 'failed',
        failure: { code: 'reply-unusable', service: found.service.id, problem: kept.problem },
      },
    };
  return { kind: 'picture', from: 'drawn', lead: leadOf(kept, alternative, '') };
}

const leadOf = (
  { file, width, height }: { file: string; width: number; height: number },
  alternative: string,
  credit: string,
): Lead => ({
  type: 'figure',
  id: 'lead',
  file,
  width,
  height,
  alternative,
  ...(credit === '' ? {} : { credit: [{ text: credit }] }),
  lead: true,
});
