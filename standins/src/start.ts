import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import express, { type Express } from 'express';
import { addressesOf, type BlogAddresses, blogSites, postingByXml } from './blog/all.ts';
import { type BlogAct, type BlogSite, type Post, Posts } from './blog/posts.ts';
import { type PartnerShop, partnerShops } from './catalogue/partner.ts';
import { controlRoutes, type Introduction } from './control/routes.ts';
import { type WhatThereIs, welcome } from './control/welcome.ts';
import { type DocumentMaterial, documentHost } from './documents/documents.ts';
import { Journal } from './ground/journal.ts';
import type { ModelCall } from './ground/modelWire.ts';
import { type ServiceName, type Trouble, Troubles, type Watch } from './ground/trouble.ts';
import { type FoundElsewhere, keywordService, type Searches } from './keywords/keywords.ts';
import { SentenceMemory } from './model/phrasings.ts';
import { MODEL_ONE, MODEL_TWO, type ModelHouse, modelService } from './model/service.ts';
import { LIBRARIES, pictureLibraries } from './pictures/libraries.ts';
import { mailServer, type Received, receivers } from './receive/receivers.ts';
import { toldPlaces } from './receive/told.ts';
import { type SheetAct, type SheetMaterial, Sheets, sheetHost } from './sheets/sheets.ts';
import { type Podcast, podcastHost } from './sound/podcasts.ts';
import { transcription } from './sound/transcribe.ts';
import { type ChannelMaterial, Channels, type VideoAct, videoHost } from './videos/videos.ts';
import { News, type NewsAct, type NewsSite, newsSites } from './web/feeds.ts';
import { smallWeb, type WebPage } from './web/pages.ts';

export interface StandInOptions {
  port?: number;
  /** Where what was received is kept over a restart; in memory without. */
  folder?: string | null;
  /** Where mail is taken by SMTP. */
  mailPort?: number;
  pages: readonly WebPage[];
  blogs: readonly BlogSite[];
  channels?: readonly ChannelMaterial[];
  sheets?: readonly SheetMaterial[];
  /** Pages that searches give beside those of the small web, and what people search for. */
  elsewhere?: readonly FoundElsewhere[];
  searches?: Searches;
  news?: readonly NewsSite[];
  shops?: readonly PartnerShop[];
  documents?: readonly DocumentMaterial[];
  podcasts?: readonly Podcast[];
  keys?: { one: string; two: string };
}

export interface StandIns {
  address: string;
  /** Addresses by service, as a person would enter them. */
  services: {
    writerOne: string;
    writerTwo: string;
    lookUp: string;
    videoHost: string;
    keywords: string;
    transcriber: string;
    libraries: string[];
  };
  /** What owners of channels and sheets do there. */
  channels: Channels;
  sheets: Sheets;
  news: News;
  /** As smtp://host:port. */
  mail: string;
  keys: { one: string; two: string };
  blog(slug: string): BlogAddresses;
  trouble(at: ServiceName, trouble: Trouble, times?: number, path?: string, holding?: string): void;
  calm(): void;
  watch(watch: Watch): void;
  received(): {
    calls: readonly ModelCall[];
    micros: number;
    acts: readonly BlogAct[];
    posts(blog: string): Post[];
    /** Mails, messages and hook calls that arrived. */
    inbox: readonly Received[];
    troubles: number;
  };
  close(): Promise<void>;
}

/** What a person would be told to connect the stand-ins: addresses, keys, prices. */
function introduction(address: string, key: string, blogs: readonly BlogSite[]): Introduction {
  const price = {
    microsPerThousandIn: MODEL_ONE.price.in,
    microsPerThousandOut: MODEL_ONE.price.out,
    microsPerPicture: MODEL_ONE.price.picture,
  };
  const free = { microsPerThousandIn: 0, microsPerThousandOut: 0, microsPerPicture: 0 };
  const model = `${address}/one/v1`;
  return {
    services: [
      { role: 'writer', name: 'Stand-in writer', address: model, secret: key, price },
      { role: 'illustrator', name: 'Stand-in illustrator', address: model, secret: key, price },
      { role: 'look-up', name: 'Small web', address: `${address}/look-up`, secret: null, price: free },
      { role: 'video host', name: 'Stand-in videos', address: `${address}/videos/find`, secret: null, price: free },
      {
        role: 'keyword service',
        name: 'Stand-in keyword figures',
        address: `${address}/keywords`,
        secret: null,
        price: free,
      },
      {
        role: 'transcriber',
        name: 'Stand-in transcriber',
        address: model,
        secret: key,
        price: { ...free, microsPerMinute: MICROS_PER_MINUTE },
      },
      ...LIBRARIES.map(({ slug, name }) => ({
        role: 'picture library' as const,
        name,
        address: `${address}/libraries/${slug}`,
        secret: null,
        price: free,
      })),
    ],
    blogs: blogs.map(({ slug, name, token, language, user }) => ({
      name,
      address: `${address}/blogs/${slug}`,
      secret: token,
      language,
      user,
    })),
  };
}

/** The sources there are to read from, with the address a person would enter. */
function sourcesOf(address: string, options: StandInOptions): WhatThereIs[] {
  const of = <T extends { slug: string }>(
    all: readonly T[] | undefined,
    name: (one: T) => string,
    path: (slug: string) => string,
  ) => (all ?? []).map((one) => ({ name: name(one), address: `${address}${path(one.slug)}` }));
  const named = ({ name }: { name: string }) => name;
  const titled = ({ title }: { title: string }) => title;
  return [
    {
      title: 'Channels of videos',
      use: 'For a source of videos.',
      entries: (options.channels ?? []).map(({ handle, name }) => ({ name, address: `${address}/videos/${handle}` })),
    },
    { title: 'Feeds', use: 'For a source of a feed.', entries: of(options.news, named, (slug) => `/news/${slug}/`) },
    {
      title: 'Lists of products',
      use: 'For a source of a catalogue.',
      entries: of(options.shops, named, (slug) => `/partner/${slug}/list.csv`),
    },
    {
      title: 'Sheets',
      use: 'For a source of a sheet.',
      entries: of(options.sheets, titled, (slug) => `/sheets/${slug}.csv`),
    },
    {
      title: 'Podcasts',
      use: 'For a source of recordings.',
      entries: of(options.podcasts, named, (slug) => `/podcasts/${slug}/feed`),
    },
    {
      title: 'Pages and documents',
      use: 'For a source of pages and documents: the sitemap names all of them.',
      entries: [
        { name: 'Sitemap', address: `${address}/sitemap.xml` },
        ...(options.documents ?? []).map(({ slug, title, form }) => ({
          name: title,
          address: `${address}/documents/${slug}.${form}`,
        })),
      ],
    },
  ];
}

/** What a minute of sound costs. */
const MICROS_PER_MINUTE = 6_000;

async function listening(port: number): Promise<{ app: Express; server: Server; address: string }> {
  const app = express();
  app.disable('x-powered-by');
  const server = createServer(app);
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  return { app, server, address: `http://127.0.0.1:${(server.address() as AddressInfo).port}` };
}

/** Two writers that also draw, and two that hear. */
function addModels(app: Express, keys: StandIns['keys'], house: ModelHouse): void {
  const { troubles, received } = house;
  app.use('/one', modelService('one', MODEL_ONE, keys.one, house));
  app.use('/two', modelService('two', MODEL_TWO, keys.two, house));
  for (const name of ['one', 'two'] as const)
    app.use(`/${name}`, transcription(name, MICROS_PER_MINUTE, keys[name], troubles, received));
}

/** What reads the bodies of calls; posts by XML are read as they came. */
function addReading(
  app: Express,
  { blogs }: StandInOptions,
  posts: Posts,
  troubles: Troubles,
  origin: () => string,
): void {
  app.use('/blogs/:blog', (request, _response, next) => {
    posts.heard(String(request.params['blog']), request.header('date'));
    next();
  });
  app.use(postingByXml(blogs, posts, troubles, origin));
  app.use(express.json({ limit: '5mb' }));
  app.use(express.urlencoded({ extended: false }));
}

/** Everything that is read, or written to, by addresses. */
function addWeb(
  app: Express,
  options: StandInOptions,
  { posts, news, channels, sheets }: { posts: Posts; news: News; channels: Channels; sheets: Sheets },
  troubles: Troubles,
  origin: () => string,
): void {
  app.use(newsSites(news, troubles));
  app.use(partnerShops(options.shops ?? [], troubles, origin));
  app.use(podcastHost(options.podcasts ?? [], troubles, origin));
  const paths = options.pages.map(({ site, slug }) => `/pages/${site}/${slug}`);
  app.use(documentHost(options.documents ?? [], paths, troubles, origin));
  app.use(smallWeb(options.pages, troubles));
  app.use(blogSites(options.blogs, posts, troubles, origin));
  app.use(videoHost(channels, troubles, origin));
  app.use(sheetHost(sheets, troubles));
  app.use(keywordService(options.pages, options.elsewhere ?? [], options.searches ?? {}, troubles, origin));
  app.use(pictureLibraries(troubles, origin));
}

const servicesAt = (address: string): StandIns['services'] => ({
  writerOne: `${address}/one/v1`,
  writerTwo: `${address}/two/v1`,
  lookUp: `${address}/look-up`,
  videoHost: `${address}/videos/find`,
  keywords: `${address}/keywords`,
  transcriber: `${address}/one/v1`,
  libraries: LIBRARIES.map(({ slug }) => `${address}/libraries/${slug}`),
});

const ordering =
  (troubles: Troubles): StandIns['trouble'] =>
  (at, trouble, times = 1, path, holding) =>
    troubles.order({
      at,
      trouble,
      times,
      ...(path === undefined ? {} : { path }),
      ...(holding === undefined ? {} : { holding }),
    });

/** Starts every stand-in in one process on loopback. */
export async function start(options: StandInOptions): Promise<StandIns> {
  const folder = options.folder ?? null;
  const keys = options.keys ?? { one: 'one-test-key', two: 'two-test-key' };
  const troubles = new Troubles();
  const calls = new Journal<ModelCall>(folder, 'model-calls');
  const { app, server, address } = await listening(options.port ?? 0);
  const origin = () => address;
  const posts = new Posts(
    new Journal<BlogAct>(folder, 'blog-acts'),
    options.blogs,
    (blog, slug) => `${address}/blogs/${blog}/${slug}`,
  );
  addReading(app, options, posts, troubles, origin);
  app.use(
    welcome(
      () => introduction(address, keys.one, options.blogs),
      () => sourcesOf(address, options),
    ),
  );
  addModels(app, keys, { troubles, received: calls, memory: new SentenceMemory() });
  const news = new News(options.news ?? [], new Journal<NewsAct>(folder, 'news-acts'), origin);
  const channels = new Channels(options.channels ?? [], new Journal<VideoAct>(folder, 'video-acts'));
  const sheets = new Sheets(options.sheets ?? [], new Journal<SheetAct>(folder, 'sheet-acts'));
  addWeb(app, options, { posts, news, channels, sheets }, troubles, origin);
  const inbox = new Journal<Received>(folder, 'inbox');
  app.use(receivers(inbox, troubles), toldPlaces(inbox, troubles));
  const mail = await mailServer(inbox, options.mailPort ?? 0);
  app.use(controlRoutes(troubles, calls, posts, () => introduction(address, keys.one, options.blogs), channels, news));
  return {
    address,
    services: servicesAt(address),
    channels,
    sheets,
    news,
    keys,
    mail: mail.address,
    blog: (slug) => addressesOf(options.blogs, slug, address),
    trouble: ordering(troubles),
    calm: () => troubles.clear(),
    watch: (watch) => {
      troubles.watch = watch;
    },
    received: () => ({
      calls: calls.entries,
      micros: calls.entries.reduce((sum, call) => sum + call.micros, 0),
      acts: posts.acts,
      posts: (blog) => posts.all(blog),
      inbox: inbox.entries,
      troubles: troubles.met,
    }),
    async close() {
      await mail.close();
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}
