import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import {
  ByLabel,
  ChannelFound,
  ChannelSought,
  Items,
  ItemWhole,
  Looked,
  Looks,
  LooksQuery,
  Made,
  NewSource,
  OfferItems,
  SheetPreview,
  SheetSettings,
  SourceChange,
  Sources,
  SourceWhole,
  Uploaded,
  UploadQuery,
  VideoText,
} from '@grivo/contract';
import { pressedWords, slugOf, spokenCarries } from '@grivo/core';
import type { Response } from 'express';
import { Procedures } from '../engine/briefState.ts';
import { byMachine, readTranscript, readUploaded } from '../formats/videos/transcript.ts';
import { storeUpload } from '../ground/files/upload.ts';
import { carrying } from '../nouns/labels/repository.ts';
import { findChannel } from '../nouns/sources/findChannel.ts';
import { takeFor } from '../nouns/sources/look.ts';
import { previewSheet } from '../nouns/sources/preview.ts';
import {
  changeSource,
  createSource,
  itemsOf,
  itemWhole,
  listSources,
  looksOf,
  offerItems,
  sourceWhole,
} from '../nouns/sources/repository.ts';
import { listWrittenBack, writtenBack } from '../nouns/sources/writtenBack.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';
import { changedMeanwhile, revFrom, tag } from './tags.ts';

/** No file that is taken up is larger, in bytes. */
const MOST_UPLOAD = 100_000_000;

/** What the routes share. */
function helpers(product: Product) {
  const { ground, bell, tools } = product;
  const { db } = ground;
  const whole = async (id: string) => {
    const source = await sourceWhole(db, id);
    if (!source) throw notFound('source');
    return source;
  };
  return { ground, bell, tools, db, whole, product };
}

type Helpers = ReturnType<typeof helpers>;

/** Sources of every kind: what they hold, how they are looked at, and what each look found. */
export function sourceRoutes(product: Product): Route[] {
  const shared = helpers(product);
  return [
    ...listed(shared),
    ...looking(shared),
    ...sheets(shared),
    ...brought(shared),
    ...items(shared),
    ...itemsOfSource(shared),
  ];
}

/** Sources: read, made, changed. */
function listed({ ground, bell, db, whole }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/sources',
      shared: true,
      says: 'All sources, with how much they hold and how much of it was taken',
      role: 'proofreader',
      answer: Sources,
      query: ByLabel,
      handle: async ({ query: { label } }) => ({ sources: carrying(await listSources(db), label) }),
    }),
    route({
      method: 'post',
      path: '/sources',
      says: 'Makes a source; an empty keyword list when its settings do not say otherwise',
      role: 'editor',
      body: NewSource,
      answer: Made,
      status: 201,
      handle: async ({ body }) => {
        const id = await createSource(ground, body.settings, body.name);
        bell.ring({ kind: 'event' });
        return { id };
      },
    }),
    route({
      method: 'get',
      path: '/sources/{id}',
      says: 'A source with how it is looked at',
      role: 'proofreader',
      answer: SourceWhole,
      handle: async ({ params, response }) => {
        const source = await whole(params['id']!);
        tag(response, source.rev);
        return source;
      },
    }),
    route({
      method: 'put',
      path: '/sources/{id}',
      says: 'Changes how a source is looked at, or its name',
      role: 'editor',
      body: SourceChange,
      answer: SourceWhole,
      handle: async ({ params, body, request, response }) => {
        const source = await whole(params['id']!);
        if (body.settings && body.settings.kind !== source.kind)
          throw problem(422, 'Another kind', 'A source stays what it is.', 'Make a new source of that kind.');
        const rev = await changeSource(ground, source.id, revFrom(request), body);
        if (rev === null) throw changedMeanwhile('source', await whole(source.id));
        bell.ring({ kind: 'event' });
        tag(response, rev);
        return whole(source.id);
      },
    }),
  ];
}

/** Looking at a source, and what a look found. */
function looking({ ground, bell, tools, db, whole, product }: Helpers) {
  return [
    route({
      method: 'post',
      path: '/sources/{id}/look',
      says: 'Looks at a source now: keeps what is new there, takes nothing',
      role: 'editor',
      answer: Looked,
      handle: async ({ params }) => {
        const { id } = await whole(params['id']!);
        const refreshed = await product.look(id);
        if (refreshed.kind === 'busy')
          throw problem(409, 'Being looked at', 'This source is being looked at just now.', 'Wait until it is done.');
        if (refreshed.kind === 'gone') throw notFound('source');
        bell.ring({ kind: 'event' });
        return refreshed.looked;
      },
    }),
    route({
      method: 'get',
      path: '/sources/{id}/looks',
      shared: true,
      says: 'Visits to a source, newest first, with what each found',
      role: 'proofreader',
      query: LooksQuery,
      answer: Looks,
      handle: async ({ params, query }) => ({
        looks: await looksOf(db, (await whole(params['id']!)).id, query.before ?? 'z', query.limit),
      }),
    }),
    route({
      method: 'post',
      path: '/sources/{id}/offer',
      says: 'Leaves items out, or offers them in spite of what a look found',
      role: 'editor',
      body: OfferItems,
      handle: async ({ params, body }) => {
        const source = await whole(params['id']!);
        await offerItems(ground, source.id, body.items, body.offer);
        // What was handed in waits for nothing but this word.
        if (body.offer && source.kind === 'hook') {
          const briefs = await takeFor(tools, new Procedures(), source.id);
          if (briefs.length > 0) bell.ring({ kind: 'admit' });
        }
        bell.ring({ kind: 'event' });
      },
    }),
  ];
}

/** Sheets, and files and channels a source is made of. */
function sheets({ tools, db, whole }: Helpers) {
  return [
    route({
      method: 'post',
      path: '/sources/{id}/sheet',
      says: 'A sheet as it would be read with these settings; changes nothing',
      role: 'editor',
      body: SheetSettings,
      answer: SheetPreview,
      status: 200,
      handle: async ({ params, body }) => {
        const previewed = await previewSheet(tools, await whole(params['id']!), body, AbortSignal.timeout(120_000));
        if (!previewed.ok) throw problem(422, 'Could not be read', `The sheet: ${previewed.problem}.`, previewed.mend);
        return previewed.preview;
      },
    }),
    route({
      method: 'get',
      path: '/sources/{id}/written-back',
      says: 'A sheet or keyword list as CSV with what was made of each row: standing, title, address, day',
      role: 'proofreader',
      mime: 'text/csv',
      handle: async ({ params, response }) => {
        const source = await whole(params['id']!);
        if (source.settings.kind === 'keywords')
          return sendCsv(response, source.name, listWrittenBack(db, source.id, source.settings));
        if (source.settings.kind !== 'sheet')
          throw problem(422, 'No rows', 'Only sheets and keyword lists are written back.', 'Choose one of them.');
        const lines = writtenBack(tools, source, source.settings, AbortSignal.timeout(120_000));
        const first = await lines.next();
        if (first.done && first.value)
          throw problem(422, 'Could not be read', `The sheet: ${first.value.problem}.`, first.value.mend);
        return sendCsv(response, source.name, begunWith(first.done ? '' : first.value, lines));
      },
    }),
  ];
}

/** Files that are brought in, and channels. */
function brought({ tools, db }: Helpers) {
  return [
    route({
      method: 'post',
      path: '/uploads',
      says: 'Keeps a file, sent as the body, and says its SHA-256',
      role: 'editor',
      query: UploadQuery,
      answer: Uploaded,
      status: 201,
      handle: async ({ query, request }) => {
        const stored = await storeUpload(db, request as AsyncIterable<Buffer>, {
          mime: query.mime,
          mostBytes: MOST_UPLOAD,
        });
        if (stored.ok) return { file: stored.digest, bytes: stored.bytes };
        request.resume();
        throw stored.problem === 'empty'
          ? problem(422, 'Empty file', 'The file holds nothing.', 'Choose another file.')
          : problem(
              413,
              'File too large',
              `A file may be ${MOST_UPLOAD / 1_000_000} MB.`,
              'Split it into several files, or give an address that is looked at.',
            );
      },
    }),
    route({
      method: 'post',
      path: '/channels/find',
      says: 'The channel of videos a handle, a name or an address means',
      role: 'editor',
      body: ChannelSought,
      answer: ChannelFound,
      status: 200,
      handle: async ({ body }) => {
        const found = await findChannel(tools, body.text, AbortSignal.timeout(30_000));
        if (!found.ok) throw problem(422, 'No such channel', `‘${body.text}’: ${found.reason}.`, found.mend);
        return found.channel;
      },
    }),
  ];
}

/** Items, and what would be read of one. */
function items({ tools, db }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/items/{id}',
      says: 'One item with everything it brings along',
      role: 'proofreader',
      answer: ItemWhole,
      handle: async ({ params }) => {
        const item = await itemWhole(db, params['id']!);
        if (!item) throw notFound('item');
        return item;
      },
    }),
    route({
      method: 'get',
      path: '/items/{id}/video',
      says: 'What is said in a video, by its captions, with chapters and what it carries',
      role: 'proofreader',
      answer: VideoText,
      handle: async ({ params }) => {
        const item = await itemWhole(db, params['id']!);
        const link = item?.fields['link'];
        const file = item?.fields['captions'];
        if (!item || (typeof link !== 'string' && typeof file !== 'string')) throw notFound('video');
        const read =
          typeof file === 'string'
            ? await readUploaded(tools, file, item.subject)
            : await readTranscript(tools, String(link), null, AbortSignal.timeout(40_000));
        if (!read.ok) {
          const { problem: title, sentence, mend } = pressedWords(read.failure);
          throw problem(422, title, sentence, mend);
        }
        const { video, track, language, cleaned } = read.transcript;
        const { chapters, words } = read.transcript.passages;
        return {
          title: video.title,
          address: video.address,
          channel: video.channel,
          published: video.published,
          seconds: video.seconds || (cleaned.spoken.at(-1)?.end ?? 0),
          thumbnail: video.thumbnail,
          language,
          captions: track.label === 'uploaded' ? 'uploaded' : byMachine(track) ? 'by machine' : 'by hand',
          chapters: chapters.map(({ start, title, words: said }) => ({ start, title, words: said })),
          lines: cleaned.spoken,
          words,
          carries: spokenCarries(words),
          left: cleaned.left,
        };
      },
    }),
  ];
}

/** What a source holds. */
function itemsOfSource({ db, whole }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/sources/{id}/items',
      says: 'What a source holds, with the briefs made of it',
      role: 'proofreader',
      answer: Items,
      handle: async ({ params }) => {
        const { id, kind } = await whole(params['id']!);
        return itemsOf(db, id, kind);
      },
    }),
  ];
}

/** Sends parts of a CSV as a file, as fast as they are read on the other side; ends when that goes away. */
async function sendCsv(response: Response, name: string, parts: AsyncIterable<string>): Promise<void> {
  const file = `${slugOf(name) || 'rows'}.csv`;
  response.type('text/csv').setHeader('content-disposition', `attachment; filename="${file}"`);
  try {
    await pipeline(Readable.from(begunWith('\ufeff', parts)), response);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ERR_STREAM_PREMATURE_CLOSE') throw error;
  }
}

async function* begunWith(first: string, rest: AsyncIterable<string>): AsyncGenerator<string> {
  yield first;
  yield* rest;
}
