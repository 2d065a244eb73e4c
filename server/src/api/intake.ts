import {
  CataloguePreview,
  CatalogueSettings,
  FeedSought,
  FeedsFound,
  HookDoor,
  ItemText,
  ListedFeeds,
  Made,
  NewRequest,
  OpmlFile,
  Recorded,
  type SourceKind,
  type SourceSettings,
  type SourceWhole,
} from '@grivo/contract';
import { slugOf, wordsOf } from '@grivo/core';
import type { Response } from 'express';
import { Procedures } from '../engine/briefState.ts';
import { openCatalogue } from '../formats/catalogue/open.ts';
import { opmlOf } from '../formats/feeds/opml.ts';
import { mostSeconds } from '../formats/media/aboutSound.ts';
import { fileAbout, fileBody } from '../ground/files/repository.ts';
import { callsOf, openHook, renewHook } from '../nouns/hooks/repository.ts';
import { noteAct } from '../nouns/people/acts.ts';
import { findFeeds } from '../nouns/sources/findFeeds.ts';
import { takeFor } from '../nouns/sources/look.ts';
import { putRequest } from '../nouns/sources/putIn.ts';
import { itemWhole, sourceWhole } from '../nouns/sources/repository.ts';
import { itemText } from '../nouns/sources/text.ts';
import { microsOf } from '../ports/adapters/transcriber.ts';
import { aboutRecording, openRecording, RecordingField } from '../ports/sound/recording.ts';
import { shownSecret } from '../ports/telling/hook.ts';
import { actorOf } from './access.ts';
import { baseOf } from './base.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';
import { sendBytes } from './send.ts';

const MOST_OPML = 5_000_000;
const NEWEST = 8;
/** How long a recording may take to be handed on: as long as listening to a long one. */
const LISTENED_MS = 2 * 3_600_000;

/** What the routes share. */
function helpers(product: Product) {
  const { ground, tools, bell, secrets } = product;
  const { db } = ground;
  const ofKind = async <Kind extends SourceKind>(id: string, kind: Kind) => {
    const source = await sourceWhole(db, id);
    if (source?.settings.kind !== kind) throw notFound(`source of kind ‘${kind}’`);
    return source as SourceWhole & { settings: Extract<SourceSettings, { kind: Kind }> };
  };
  const item = async (id: string) => {
    const found = await itemWhole(db, id);
    if (!found) throw notFound('item');
    return found;
  };
  return { ground, tools, bell, secrets, db, ofKind, item, product };
}

type Helpers = ReturnType<typeof helpers>;

/** What single kinds of source have of their own: feeds, catalogues, recordings, hooks, requests. */
export function intakeRoutes(product: Product): Route[] {
  const shared = helpers(product);
  return [...feeds(shared), ...subscriptions(shared), ...lists(shared), ...hooks(shared), ...reads(shared)];
}

/** Feeds: found, read from a list, written as one. */
function feeds({ tools, db }: Helpers) {
  return [
    route({
      method: 'post',
      path: '/feeds/find',
      says: 'Feeds by the address of one or of a site, or by a subject, with their newest titles',
      role: 'editor',
      body: FeedSought,
      answer: FeedsFound,
      status: 200,
      handle: async ({ body }) => {
        const found = await findFeeds(tools, body.text, AbortSignal.timeout(60_000));
        if (!found.ok) throw problem(422, 'No feed found', `‘${body.text}’: ${found.reason}.`, found.mend);
        return {
          feeds: found.feeds.map(({ address, feed }) => ({
            address,
            name: feed.title,
            form: feed.form,
            entries: feed.entries.length,
            pushes: feed.hub !== null,
            newest: feed.entries.slice(0, NEWEST).map(({ title, link, published }) => ({ title, link, published })),
          })),
        };
      },
    }),
    route({
      method: 'post',
      path: '/feeds/list',
      says: 'The feeds an uploaded OPML list names',
      role: 'editor',
      body: OpmlFile,
      answer: ListedFeeds,
      status: 200,
      handle: async ({ body }) => {
        const about = await fileAbout(db, body.file);
        if (!about) throw notFound('file');
        if (about.bytes > MOST_OPML)
          throw problem(
            422,
            'Too large',
            `A list of feeds may be ${MOST_OPML / 1_000_000} MB.`,
            'Choose another file.',
          );
        const came = await tools.reader.read('opml', { bytes: await fileBody(db, body.file) });
        const read = came.ok ? came.value : came;
        if (!read.ok)
          throw problem(422, 'No list of feeds', `The file: ${read.problem}.`, 'Choose a list of feeds in OPML.');
        return { feeds: read.feeds };
      },
    }),
  ];
}

/** The feeds of a source as a list other readers take. */
function subscriptions({ ofKind }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/sources/{id}/opml',
      says: 'The feeds of a source as an OPML list',
      role: 'proofreader',
      mime: 'text/x-opml',
      handle: async ({ params, response }) => {
        const { name, settings } = await ofKind(params['id']!, 'feed');
        sendFile(response, 'text/x-opml', `${slugOf(name) || 'feeds'}.opml`, opmlOf(name, settings.feeds));
      },
    }),
  ];
}

/** Catalogues, requests and hooks. */
function lists({ ground, tools, bell, ofKind }: Helpers) {
  return [
    route({
      method: 'post',
      path: '/sources/{id}/catalogue',
      says: 'A partner’s list as it would be read with these settings; changes nothing',
      role: 'editor',
      body: CatalogueSettings,
      answer: CataloguePreview,
      status: 200,
      handle: async ({ params, body }) => {
        await ofKind(params['id']!, 'catalogue');
        const opened = await openCatalogue(tools, body, AbortSignal.timeout(120_000));
        if (!opened.ok) throw problem(422, 'Could not be read', `The list: ${opened.problem}.`, opened.mend);
        const { about } = opened;
        await opened.close();
        return {
          settings: { ...body, columns: about.columns },
          format: about.format,
          columns: about.named,
          products: about.products,
          passing: about.passing,
          first: about.first.map(({ subject, fields: { about: says, partnerLink } }) => ({
            name: subject,
            about: String(says),
            link: typeof partnerLink === 'string' ? partnerLink : null,
          })),
        };
      },
    }),
    route({
      method: 'post',
      path: '/sources/{id}/requests',
      says: 'Puts a subject with notes into a source of requests; pipelines that take from it take it at once',
      role: 'editor',
      body: NewRequest,
      answer: Made,
      status: 201,
      handle: async ({ params, body, person }) => {
        const source = await ofKind(params['id']!, 'requests');
        const id = await putRequest(ground, source.id, body, person.name);
        const briefs = await takeFor(tools, new Procedures(), source.id, id);
        if (briefs.length > 0) bell.ring({ kind: 'admit' });
        bell.ring({ kind: 'event' });
        return { id };
      },
    }),
  ];
}

/** The address a hook is called at. */
function hooks({ ground, secrets, db, ofKind, product }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/sources/{id}/hook',
      says: 'How a hook is called: its secret address, what calls are signed with, lines to try it',
      role: 'editor',
      answer: HookDoor,
      handle: async ({ params, request, person }) => {
        const source = await ofKind(params['id']!, 'hook');
        const { token, secret } = await openHook(ground, secrets, source.id);
        const address = `${baseOf(product, request)}/hooks/${token}`;
        return {
          address,
          secret: person.role === 'owner' ? shownSecret(secret) : null,
          ...curlLines(address, source.settings),
          calls: await callsOf(db, source.id),
        };
      },
    }),
    route({
      method: 'post',
      path: '/sources/{id}/hook/renew',
      says: 'Gives a hook another address and secret; those before are worth nothing any more',
      role: 'owner',
      handle: async ({ params, person, request }) => {
        const { id, name } = await ofKind(params['id']!, 'hook');
        await renewHook(ground, secrets, id);
        await noteAct(ground, actorOf(person, request), 'hook renewed', name);
      },
    }),
  ];
}

/** What would be read or heard of an item. */
function reads({ tools, db, item }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/items/{id}/text',
      says: 'What would be read of an item now: its page, its document, its notes',
      role: 'proofreader',
      answer: ItemText,
      handle: async ({ params }) => {
        const read = await itemText(tools, await item(params['id']!), AbortSignal.timeout(60_000));
        if (read.ok) return read.text;
        const { problem: title, sentence } = wordsOf(read.failure);
        throw problem(422, title, sentence, 'It would be refused with this reason; open the address to see why.');
      },
    }),
    route({
      method: 'get',
      path: '/items/{id}/recording',
      says: 'How long a recording is, and what having it heard costs at most',
      role: 'proofreader',
      answer: Recorded,
      handle: async ({ params }) => {
        const recording = RecordingField.safeParse((await item(params['id']!)).fields['recording']).data;
        if (!recording) throw notFound('recording');
        const got = await aboutRecording({ network: tools.network, db }, recording, AbortSignal.timeout(30_000));
        if (!got.ok)
          throw problem(422, 'Cannot be transcribed', `The recording: ${got.reason}.`, 'Give another recording.');
        const service = tools.services.standard('transcriber');
        return {
          seconds: got.about.seconds,
          form: got.about.form,
          micros: service ? microsOf(service, mostSeconds(got.about, got.bytes)) : null,
        };
      },
    }),
    route({
      method: 'get',
      path: '/items/{id}/sound',
      says: 'The recording of an item, to be listened to',
      role: 'proofreader',
      mime: 'audio/*',
      handle: async ({ params, response }) => {
        const recording = RecordingField.safeParse((await item(params['id']!)).fields['recording']).data;
        if (!recording) throw notFound('recording');
        const limit = AbortSignal.timeout(LISTENED_MS);
        const got = await openRecording({ network: tools.network, db }, recording, limit);
        if (!got.ok)
          throw problem(422, 'Cannot be transcribed', `The recording: ${got.reason}.`, 'Give another recording.');
        await sendBytes(response, got.body, { name: 'recording', bytes: got.bytes }).finally(got.end);
      },
    }),
  ];
}

function sendFile(response: Response, mime: string, name: string, text: string): void {
  response.type(mime).setHeader('content-disposition', `attachment; filename="${name}"`);
  response.send(text);
}

/** Lines for a shell by which a hook can be tried: one that hands a subject in, one that asks what became of it. */
function curlLines(
  address: string,
  settings: Extract<SourceSettings, { kind: 'hook' }>,
): { curl: string; ask: string } {
  const example = {
    subject: 'What it is about',
    key: 'first-try',
    notes: 'What you know of it, as much as you have.',
    ...Object.fromEntries(
      settings.fields.map(({ name, type }) => [
        name,
        { text: 'a text', number: 1, 'yes or no': true, address: 'https://shop.example/page' }[type],
      ]),
    ),
  };
  const body = JSON.stringify(example);
  const ask = `curl '${address}/first-try'`;
  if (!settings.signed) return { curl: `curl '${address}' -H 'content-type: application/json' -d '${body}'`, ask };
  return {
    curl: [
      `BODY='${body}'; ID=$(date +%s%N); T=$(date +%s); KEY=$(printf %s "\${SECRET#whsec_}" | base64 -d | od -An -tx1 | tr -d ' \\n')`,
      'SIGN=$(printf %s "$ID.$T.$BODY" | openssl dgst -sha256 -mac HMAC -macopt hexkey:$KEY -binary | base64)',
      `curl '${address}' -H 'content-type: application/json' -H "webhook-id: $ID" -H "webhook-timestamp: $T" -H "webhook-signature: v1,$SIGN" -d "$BODY"`,
    ].join('\n'),
    ask,
  };
}
