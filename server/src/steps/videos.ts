import { type Block, contentStems, type StepOf } from '@grivo/core';
import type { Performer, StepContext } from '../engine/performer.ts';
import { videoBlock } from '../formats/videos/block.ts';
import type { VideoPage } from '../formats/videos/page.ts';
import { missing } from '../nouns/articles/fields.ts';
import type { Tools } from '../ports/tools.ts';
import { subjectOf } from './asking.ts';
import { ownArticle } from './ownArticle.ts';
import { placeSharing } from './sharing.ts';
import { serviceFor } from './tools.ts';
import { withStills } from './videoStills.ts';

/** Pages that are read to choose from. */
const LOOKED_AT = 10;
/** Share of the words of a subject that a video must say in its title or description. */
const LEAST_FIT = 1 / 3;
const MOST_PAGE_BYTES = 5_000_000;
const TIME_LIMIT_MS = 20_000;
const YEAR_MS = 31_556_952_000;

interface Fitting {
  address: string;
  page: VideoPage;
  fits: number;
}

/** Finds videos on the subject and puts them into the article; without one that fits the article stays as it is. */
export function performVideos(tools: Tools): Performer<StepOf<'videos'>> {
  return async (step, context) => {
    const article = await ownArticle(tools, context);
    if (!article) return missing('article');
    const found = serviceFor(tools, 'video host', context);
    if (!found.ok) return found.result;
    const { document } = article;
    const own = `${step.id}v`;
    // What an earlier run of this step put there gives way.
    const body = document.body.filter(({ id }) => !id.startsWith(own));
    const subject = subjectOf(context);
    const asked = await tools.videoHost.videos(found.service, subject, document.language, context.signal);
    if (!asked.ok)
      return {
        kind: 'failed',
        failure: { code: 'service-unreachable', service: found.service.id, detail: asked.reason },
      };
    const there = new Set(body.flatMap((block) => (block.type === 'video' ? [block.address] : [])));
    const fitting: Fitting[] = [];
    for (const address of asked.addresses.filter((one) => !there.has(one)).slice(0, LOOKED_AT)) {
      const page = await pageAt(tools, address, context);
      const fits = page ? fitOf(page, subject, document.language) : 0;
      if (page && fits >= LEAST_FIT && isWanted(page, step, document.language, tools.ground.desk.now()))
        fitting.push({ address, page, fits });
    }
    const chosen = fitting.sort((a, b) => b.fits - a.fits).slice(0, step.most);
    const placed =
      step.where === 'at headings'
        ? atHeadings(body, chosen, step, own, document.language)
        : whereTheyFit(body, chosen, step, own, document.language);
    const { article: changed, writes } = await article.change({
      ...document,
      body: await withStills(tools, placed.body, context.signal),
    });
    const videos = placed.put.map(({ address, page: { title, channel } }) => ({ address, title, channel }));
    return { kind: 'done', fields: { article: changed, videos }, writes };
  };
}

async function pageAt(tools: Tools, address: string, { signal }: StepContext): Promise<VideoPage | null> {
  const outcome = await tools.network.call({
    method: 'GET',
    address,
    timeLimitMs: TIME_LIMIT_MS,
    maxBytes: MOST_PAGE_BYTES,
    signal,
  });
  if (outcome.kind !== 'reply' || outcome.reply.status !== 200) return null;
  const { body: bytes, headers, address: at } = outcome.reply;
  const read = await tools.reader.read('video', { bytes, mime: headers['content-type'] ?? '', address: at });
  return read.ok ? read.value : null;
}

/** How much of the subject a video says it is about, 0 to 1. */
function fitOf({ title, description }: VideoPage, subject: string, language: string): number {
  const words = new Set(contentStems(subject, language));
  const said = new Set(contentStems(`${title} ${description}`, language));
  return [...words].filter((stem) => said.has(stem)).length / Math.max(1, words.size);
}

const isOf = (channel: string, names: readonly string[]): boolean =>
  names.some((name) => name.localeCompare(channel, undefined, { sensitivity: 'base' }) === 0);

/** Whether it is in the language of the article and as the step says; what a page does not say of it is not wanted where it is asked for. */
export function isWanted(
  page: Pick<VideoPage, 'channel' | 'seconds' | 'published' | 'language'>,
  step: Pick<StepOf<'videos'>, 'minutes' | 'years' | 'only' | 'never'>,
  language: string,
  now: number,
): boolean {
  const { channel, seconds, published } = page;
  const of = (tag: string) => tag.slice(0, 2).toLowerCase();
  if (page.language !== null && of(page.language) !== of(language)) return false;
  if (step.minutes !== null && !(seconds > 0 && seconds <= step.minutes * 60)) return false;
  if (step.years !== null && !(published !== null && now - Date.parse(published) <= step.years * YEAR_MS)) return false;
  if (step.only.length > 0 && !isOf(channel, step.only)) return false;
  return !isOf(channel, step.never);
}

interface Placed {
  body: Block[];
  put: Fitting[];
}

/** Below headings by their number; a picture that stands there gives way. */
function atHeadings(
  body: readonly Block[],
  chosen: readonly Fitting[],
  step: StepOf<'videos'>,
  own: string,
  language: string,
): Placed {
  const headings = body.filter(({ type }) => type === 'heading').map(({ id }) => id);
  const named = step.headings.split(',').map((word) => word.trim());
  const wanted = [...new Set(named.map((word) => (word === 'last' ? headings.at(-1) : headings[Number(word) - 1])))];
  const places = wanted.filter((id) => id !== undefined);
  const put = chosen.slice(0, places.length);
  let out = [...body];
  for (const [n, one] of put.entries()) {
    const at = out.findIndex(({ id }) => id === places[n]) + 1;
    const rest = out.slice(at);
    // In the same place: right below the heading, before or after its first paragraph.
    const givesWay = rest.slice(0, 2).find((block) => block.type === 'figure' && !block.lead);
    out = [
      ...out.slice(0, at),
      ...blocksOf(one, step, `${own}${n + 1}`, language),
      ...rest.filter((block) => block !== givesWay),
    ];
  }
  return { body: out, put };
}

/** Each after the paragraph that says most of what it is about, one in a section. */
function whereTheyFit(
  body: readonly Block[],
  chosen: readonly Fitting[],
  step: StepOf<'videos'>,
  own: string,
  language: string,
): Placed {
  let out = [...body];
  const taken = new Set<string>();
  const put: Fitting[] = [];
  for (const [n, one] of chosen.entries()) {
    const about = `${one.page.title} ${one.page.description}`;
    const isTaken = (place: number) => taken.has(sectionAt(out, place));
    const at = placeSharing(out, about, language, { least: 0, isTaken });
    if (at === null) continue;
    taken.add(sectionAt(out, at));
    const after = out[at];
    out = [
      ...out.slice(0, at),
      ...blocksOf(one, step, `${own}${n + 1}`, language),
      // A picture in the same place gives way.
      ...out.slice(after?.type === 'figure' && !after.lead ? at + 1 : at),
    ];
    put.push(one);
  }
  return { body: out, put };
}

/** The heading a place is under; empty above the first. */
const sectionAt = (body: readonly Block[], at: number): string =>
  body.slice(0, at).findLast(({ type }) => type === 'heading')?.id ?? '';

function blocksOf({ address, page }: Fitting, { led }: StepOf<'videos'>, id: string, language: string): Block[] {
  const video = videoBlock(id, address, page);
  return led ? [{ type: 'standing text', id: `${id}w`, content: [{ text: leading(page, language) }] }, video] : [video];
}

/** The sentence before a video: what it is, whose, and how long; all of it is said by its own page. */
function leading({ title, channel, seconds }: VideoPage, language: string): string {
  const minutes = Math.round(seconds / 60);
  if (language.startsWith('de')) {
    const long = minutes > 0 ? ` (${minutes} ${minutes === 1 ? 'Minute' : 'Minuten'})` : '';
    return `Zum Ansehen: „${title}“${channel ? ` von ${channel}` : ''}${long}.`;
  }
  const long = minutes > 0 ? ` (${minutes} ${minutes === 1 ? 'minute' : 'minutes'})` : '';
  return `To watch: “${title}”${channel ? ` by ${channel}` : ''}${long}.`;
}
