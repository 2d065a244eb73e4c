import { type Block, type LaidOutPart, type PictureAsked, plainInline, type VideoAsked } from '@grivo/core';
import type { StepContext } from '../engine/performer.ts';
import { pictureAs } from '../formats/pictures/read.ts';
import { videoBlock } from '../formats/videos/block.ts';
import { storeFile } from '../ground/files/repository.ts';
import type { Tools } from '../ports/tools.ts';
import { fetchedPicture } from './fetchedPicture.ts';
import { withStills } from './videoStills.ts';

const WIDEST = 1_600;
const TIME_LIMIT_MS = 20_000;
const MOST_VIDEO_PAGE_BYTES = 5_000_000;
/** Fetched for one text; what a text names beyond is said. */
const MOST_FETCHED = 60;

/**
 * Fetches what a text names: pictures become figures, addresses of videos become videos. What cannot be had is said, and
 * of a picture its words stay.
 */
export async function fetchedParts(
  tools: Tools,
  context: StepContext,
  parts: readonly LaidOutPart[],
): Promise<{ body: Block[]; left: string[] }> {
  const body: Block[] = [];
  const left: string[] = [];
  let fetched = 0;
  for (const part of parts) {
    if (part.type !== 'picture asked' && part.type !== 'video asked') {
      body.push(part);
      continue;
    }
    const mayFetch = fetched++ < MOST_FETCHED;
    if (part.type === 'video asked') body.push(...(mayFetch ? await videoOf(tools, context, part) : part.words));
    else {
      const figure = mayFetch
        ? await figureOf(tools, context, part)
        : `it is one of more than ${MOST_FETCHED} things to fetch`;
      if (typeof figure !== 'string') body.push(figure);
      else {
        left.push(`the picture ${nameOf(part)}: ${figure}`);
        const said = [part.alternative, part.caption, part.credit].filter((text) => text).join('. ');
        if (said !== '') body.push({ type: 'paragraph', id: part.id, content: [{ text: said }] });
      }
    }
  }
  return { body, left };
}

function nameOf({ alternative, address }: PictureAsked): string {
  const at = address.startsWith('data:') ? 'in the text itself' : address.slice(0, 200) || 'without an address';
  return alternative === '' ? at : `“${alternative.slice(0, 100)}” ${at.startsWith('http') ? `at ${at}` : at}`;
}

/** A picture as a figure; else why not. */
async function figureOf(tools: Tools, context: StepContext, part: PictureAsked): Promise<Block | string> {
  const bytes = part.address.startsWith('data:')
    ? inAddress(part.address)
    : await fetchedPicture(tools, part.address, context.signal);
  if (typeof bytes === 'string') return bytes;
  const picture = await pictureAs(bytes, WIDEST, (open) => open.webp({ quality: 80, effort: 0 }));
  if (!picture.ok) return picture.problem;
  const size = { width: picture.width, height: picture.height };
  const file = await storeFile(tools.ground.db, picture.body, { mime: 'image/webp', ...size });
  const { id, alternative, caption, credit } = part;
  return {
    type: 'figure',
    id,
    file,
    ...size,
    alternative: alternative || caption || '',
    ...(caption === undefined ? {} : { caption: plainInline(caption) }),
    ...(credit === undefined ? {} : { credit: plainInline(credit) }),
    lead: false,
  };
}

/** The bytes an address holds itself (RFC 2397). */
function inAddress(address: string): Buffer | string {
  const comma = address.indexOf(',');
  if (comma < 0 || comma > 200) return 'its address holds no picture';
  const head = address.slice(0, comma);
  if (!/;base64$/i.test(head)) return 'its address holds no picture in base64';
  const bytes = Buffer.from(address.slice(comma + 1), 'base64');
  return bytes.length === 0 ? 'its address holds nothing' : bytes;
}

/** The video of a page; where there is none, or the page cannot be had, the words that stood there. */
async function videoOf(tools: Tools, context: StepContext, part: VideoAsked): Promise<Block[]> {
  const outcome = await tools.network.call({
    method: 'GET',
    address: part.address,
    timeLimitMs: TIME_LIMIT_MS,
    maxBytes: MOST_VIDEO_PAGE_BYTES,
    signal: context.signal,
  });
  if (outcome.kind !== 'reply' || outcome.reply.status !== 200) return part.words;
  const mime = outcome.reply.headers['content-type'] ?? '';
  if (mime.startsWith('video/'))
    return [{ type: 'video', id: part.id, address: part.address, title: nameIn(part), film: part.address }];
  const read = await tools.reader.read('video', {
    bytes: outcome.reply.body,
    mime,
    address: outcome.reply.address,
  });
  const video = read.ok ? read.value : null;
  if (!video) return part.words;
  const block = videoBlock(part.id, part.address, { ...video, title: video.title || nameIn(part) });
  return withStills(tools, [block], context.signal);
}

/** What the text calls it, else the last part of its address. */
function nameIn({ words, address }: VideoAsked): string {
  const [block] = words;
  const said = block?.type === 'paragraph' ? block.content.map(({ text }) => text).join('') : '';
  return said !== '' && said !== address ? said : new URL(address).pathname.split('/').at(-1) || address;
}
