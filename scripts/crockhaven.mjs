// The demonstration: a small shop for fermenting gear, its blogs, its keywords and its pipelines. Everything is asked of
// the API, as a person would; nothing is written into the database.
import { SHIPPED, sheetColumns } from '@grivo/core';
import { BLOGS, KEYWORDS, SEARCHES } from '@grivo/standins';
import { quiet, until } from './client.mjs';
import { houseLinks } from './houseLinks.mjs';
import { houseStyle } from './houseVoice.mjs';

const DAY = 86_400_000;

/** Connects the stand-ins through the API, as a person would. */
export async function connect(
  call,
  standIns,
  { model = 'one', blogs = ['journal'], timeLimits = { service: 60_000, blog: 15_000 } } = {},
) {
  const price =
    model === 'one'
      ? { microsPerThousandIn: 400, microsPerThousandOut: 1_600, microsPerPicture: 40_000 }
      : { microsPerThousandIn: 900, microsPerThousandOut: 2_700, microsPerPicture: 25_000 };
  const service = {
    address: `${standIns}/${model}/v1`,
    model: 'stand-in',
    secret: `${model}-test-key`,
    price,
    timeLimitMs: timeLimits.service,
  };
  await call('POST', '/services', { role: 'writer', name: 'Stand-in writer', ...service });
  await call('POST', '/services', { role: 'illustrator', name: 'Stand-in illustrator', ...service });
  await call('POST', '/services', {
    role: 'look-up',
    name: 'Small web',
    address: `${standIns}/look-up`,
    price,
    timeLimitMs: timeLimits.service,
  });
  await call('POST', '/services', {
    role: 'video host',
    name: 'Stand-in videos',
    address: `${standIns}/videos/find`,
    price: { microsPerThousandIn: 0, microsPerThousandOut: 0, microsPerPicture: 0 },
    timeLimitMs: timeLimits.service,
  });
  await call('POST', '/services', {
    role: 'keyword service',
    name: 'Stand-in keyword figures',
    address: `${standIns}/keywords`,
    price: { microsPerThousandIn: 0, microsPerThousandOut: 0, microsPerPicture: 0 },
    timeLimitMs: timeLimits.service,
  });
  await call('POST', '/services', {
    role: 'transcriber',
    name: 'Stand-in transcriber',
    ...service,
    price: { microsPerThousandIn: 0, microsPerThousandOut: 0, microsPerPicture: 0, microsPerMinute: 6_000 },
  });
  for (const [slug, name] of [
    ['harbour-light', 'Harbour Light Pictures'],
    ['plain-view', 'Plain View'],
  ])
    await call('POST', '/services', {
      role: 'picture library',
      name,
      address: `${standIns}/libraries/${slug}`,
      price: { microsPerThousandIn: 0, microsPerThousandOut: 0, microsPerPicture: 0 },
      timeLimitMs: timeLimits.service,
    });
  const ids = [];
  for (const slug of blogs) {
    const site = BLOGS.find((blog) => blog.slug === slug);
    const { id } = await call('POST', '/blogs', {
      name: site.name,
      address: `${standIns}/blogs/${slug}`,
      endpoint: `${standIns}/blogs/${slug}/micropub`,
      secret: site.token,
      language: site.language,
      cadence: CADENCES[slug] ?? CADENCES.journal,
      timeLimitMs: timeLimits.blog,
    });
    ids.push(id);
  }
  return ids;
}

const CADENCES = {
  journal: {
    rate: { kind: 'count', n: 5, per: 'week' },
    days: [1, 2, 3, 4, 5],
    hours: { from: '08:00', to: '10:00' },
    gapMinutes: 240,
    start: '2024-01-01',
    zone: 'Europe/Dublin',
  },
  kitchen: {
    rate: { kind: 'count', n: 3, per: 'week' },
    days: [2, 4, 6],
    hours: { from: '16:00', to: '18:30' },
    gapMinutes: 600,
    start: '2024-01-01',
    zone: 'Europe/Dublin',
  },
  gaertagebuch: {
    rate: { kind: 'count', n: 1, per: 'week' },
    days: [3],
    hours: { from: '06:30', to: '08:00' },
    gapMinutes: 1_440,
    start: '2024-01-01',
    zone: 'Europe/Berlin',
  },
};

/** From a keyword to a published guide. */
export function guide(source, blog, when, change = {}) {
  const {
    language = 'en',
    most = null,
    everyMinutes = null,
    words = 900,
    person = 'second person',
    parts,
    least = 200,
    alone = true,
  } = change;
  return {
    grivo: 1,
    language,
    steps: [
      { id: 's1', kind: 'take', sources: [source], most, everyMinutes, atOnce: null, apartMinutes: 0 },
      { id: 's2', kind: 'look up', pages: 6, country: null, since: null, ours: alone },
      { id: 's3', kind: 'outline', sections: { from: 4, to: 6 } },
      {
        id: 's4',
        kind: 'write',
        words,
        person,
        tone: 'plain and friendly',
        parts: parts ?? ['contents', 'key points', 'lists'],
      },
      { id: 's5', kind: 'title', most: 60, choices: 3 },
      { id: 's6', kind: 'illustrate', lead: 'drawn', manner: 'flat shapes, calm colours' },
      { id: 's7', kind: 'link', own: 3, blog },
      // The stand-in writer has few ways of saying each thing: held against all its articles, many would repeat another.
      { id: 's8', kind: 'check', words: { from: least, to: 2_000 }, likeness: 30, figures: true, alone, again: 1 },
      { id: 's9', kind: 'publish', blog, when, as: 'live' },
    ],
  };
}

/** What readers asked, made with care: judged, with a person at the title, and a short version of it as a draft. */
export function careful(source, blog) {
  const document = guide(source, blog, 'next free slot', { most: 1, everyMinutes: 4 * 1_440, words: 700 });
  const [take, lookUp, outline, write, title, illustrate, link, check, publish] = document.steps;
  return {
    ...document,
    steps: [
      take,
      lookUp,
      {
        id: 'j1',
        kind: 'judge',
        of: 'the sources',
        qualities: 'substance, figures and examples',
        least: 3,
        otherwise: 'set it aside',
        instruction: 'A page that only sells something has no substance.',
      },
      outline,
      write,
      { ...title, hold: true },
      {
        id: 'w1',
        kind: 'when',
        join: 'all',
        tests: [{ field: 'judgement.score', is: 'above', value: '6' }],
        holds: [illustrate],
        otherwise: [{ ...illustrate, id: 'i2', manner: 'plain line drawing' }],
      },
      link,
      {
        ...check,
        avoid: ['game changer', 'must-have'],
        own: 25,
        otherwise: 'hold it for me',
      },
      {
        id: 'm1',
        kind: 'meanwhile',
        name: 'short',
        ifStopped: 'go on without it',
        steps: [
          {
            id: 'v1',
            kind: 'vary',
            variants: ['{In short|At a glance}: {{ subject }}'],
            for: 'the title',
            as: 'variant',
          },
          { id: 'v2', kind: 'publish', blog, when: 'at once', as: 'draft' },
        ],
      },
      publish,
    ],
  };
}

async function keywordList(call, name, phrases, settings = {}) {
  const { id } = await call('POST', '/sources', { name, settings: { kind: 'keywords', ...settings } });
  await call('POST', `/sources/${id}/keywords`, { paste: phrases.join('\n') });
  await call('POST', `/sources/${id}/figures`);
  return id;
}

/** What was pasted of a keyword tool, to be gone through: groups, some of them answered, and what is not meant. */
function workshopList(call) {
  const pasted = SEARCHES.fermenting.slice(0, 22).flat();
  const stray = [
    'pickle crock near me',
    'second hand crock',
    'kahm yeast or mold',
    'salt lamp benefits',
    'Kimchi  Recipe',
  ];
  return keywordList(call, 'Salt, brine and crocks', [...pasted, ...stray], {
    exclude: ['near me', 'second hand', 'salt lamp'],
    spelling: 'British',
    group: 'closely',
  });
}

/** The stock sheet and the video channel of the shop, each looked at once. */
async function outside(call, standIns) {
  const add = async (name, settings) => {
    const { id } = await call('POST', '/sources', { name, settings });
    await call('POST', `/sources/${id}/look`);
    return id;
  };
  // What is only of use in the shop is nothing to write from.
  const sheet = { kind: 'sheet', address: `${standIns}/sheets/stock.csv`, startFrom: { at: 'the last', n: 12 } };
  const stock = await call('POST', '/sources', { name: 'Stock sheet', settings: sheet });
  const { settings } = await call('POST', `/sources/${stock.id}/sheet`, sheet);
  const columns = settings.columns.map((column) =>
    ['Shelf', 'In stock', 'Arrived'].includes(column.header) ? { ...column, field: null } : column,
  );
  await call('PUT', `/sources/${stock.id}`, { settings: { ...settings, columns } }, { 'if-match': '"1"' });
  await call('POST', `/sources/${stock.id}/look`);
  const { address, name } = await call('POST', '/channels/find', { text: '@crockhaven-bench' });
  return {
    stock: stock.id,
    bench: await add(name, { kind: 'videos', channel: address, channelName: name, exclude: ['per cent off'] }),
  };
}

/** The trade's news, a partner's list, two documents, a podcast, and doors for people and programs. */
async function furtherSources(call, standIns, journal) {
  const add = async (name, settings, looks = true) => {
    const { id } = await call('POST', '/sources', { name, settings });
    if (looks) await call('POST', `/sources/${id}/look`);
    return id;
  };
  const { feeds } = await call('POST', '/feeds/find', { text: `${standIns}/news/brine-gazette/` });
  const wire = await call('POST', '/feeds/find', { text: `${standIns}/news/cellar-wire/` });
  const news = await add('Trade news', {
    kind: 'feed',
    feeds: [...feeds, ...wire.feeds].map(({ address, name }) => ({ address, name })),
  });
  const partner = await add('Northquay catalogue', {
    kind: 'catalogue',
    address: `${standIns}/partner/northquay/list.xml`,
    languages: ['en'],
    order: 'most popular',
    spread: true,
    exclude: ['barrel'],
    partnerLink: '{link}?partner={partner}',
    partner: 'crockhaven-7',
  });
  await add('Handbooks', {
    kind: 'documents',
    addresses: [`${standIns}/documents/keeping-a-cellar.pdf`, `${standIns}/documents/shop-handbook.docx`],
  });
  await add('Over the Crock', {
    kind: 'recordings',
    podcast: `${standIns}/podcasts/over-the-crock/feed`,
    podcastName: 'Over the Crock',
  });
  await add('What the Journal published', { kind: 'publications', blogs: [journal], startFrom: { at: 'now' } });
  await add(
    'From the shop’s till',
    { kind: 'hook', fields: [{ name: 'litres', type: 'number', needed: false }], confirm: true },
    false,
  );
  const asked = await add('Asked at the counter', { kind: 'requests' }, false);
  await call('POST', `/sources/${asked}/requests`, {
    subject: 'Why is my kraut pink?',
    notes:
      'Two people asked this week. Pink kraut comes from yeasts that grow when the salt was more than 3 per cent or lay in lumps, or when the crock stood above 24 degrees. It is not poisonous but soft and tastes flat; we tell people to throw it away. Salt at 2 per cent, 20 grams to the kilogram, rubbed in evenly before packing, keeps it white. Beetroot in the crock colours it too, and that is meant.',
  });
  return { news, partner };
}

/** A shipped procedure fed by a source, looking so often. */
function shipped(key, source, blog, everyMinutes, columns = []) {
  const document = SHIPPED.find((one) => one.key === key).make({ source, blog, language: 'en', columns });
  return {
    ...document,
    steps: document.steps.map((step) =>
      step.kind === 'take' ? { ...step, most: step.gather ?? 1, everyMinutes } : step,
    ),
  };
}

/** Blogs, lists and pipelines, all off. */
export async function setUp(call, standIns) {
  const [journal, kitchen, diary] = await connect(call, standIns, { blogs: ['journal', 'kitchen', 'gaertagebuch'] });
  const guides = await keywordList(call, 'Crockhaven keywords', KEYWORDS.guides);
  const recipes = await keywordList(call, 'Recipe ideas', KEYWORDS.recipes);
  const german = await keywordList(call, 'Stichwörter', KEYWORDS.german);
  // Of what the recipes are about already one is asked all the same.
  const ofReaders = KEYWORDS.guides
    .slice(-14)
    .filter((phrase) => phrase === 'kimchi for beginners' || !KEYWORDS.recipes.includes(phrase));
  const asked = await keywordList(call, 'What readers asked', ofReaders);
  await workshopList(call);
  const { stock, bench } = await outside(call, standIns);
  const { news, partner } = await furtherSources(call, standIns, journal);
  const { sources } = await call('GET', '/sources');
  const columns = sheetColumns(sources.find(({ id }) => id === stock).brings);
  const weekly = { everyMinutes: 7 * 1_440 };
  await houseStyle(call, [journal, kitchen]);
  await houseLinks(call, standIns, { journal, kitchen });
  const pipelines = [];
  for (const [name, document] of [
    ['Guides for the Journal', guide(guides, journal, 'next free slot', { most: 6, ...weekly })],
    [
      'Recipes for Kitchen Notes',
      guide(recipes, kitchen, 'next free slot', {
        most: 3,
        ...weekly,
        words: 700,
        person: 'first person plural',
        parts: ['key points', 'lists'],
      }),
    ],
    ['What readers asked', careful(asked, kitchen)],
    [
      'Gärtagebuch',
      guide(german, diary, 'next free slot', { language: 'de', most: 1, ...weekly, words: 240, least: 90 }),
    ],
    ['Bench videos to guides', shipped('video', bench, journal, 5 * 1_440)],
    ['Notes on new stock', shipped('rows', stock, kitchen, 7 * 1_440, columns)],
    ['Trade news, gathered', shipped('round-up', news, journal, 14 * 1_440)],
    ['Partner products', shipped('products', partner, kitchen, 10 * 1_440)],
  ])
    pipelines.push((await call('POST', '/pipelines', { name, document })).id);
  return pipelines;
}

/**
 * Weeks of history: the desk clock is put back, the pipelines are switched on, and the clock is moved from one due moment
 * to the next, Grivo doing at each what it would have done.
 * @param {(line: string) => void} tell
 */
export async function live(call, pipelines, weeks, now, tell) {
  const from = now - weeks * 7 * DAY;
  const put = (ms, speed = 0) => call('PUT', '/desk-clock', { at: new Date(ms).toISOString(), speed });
  await put(from);
  for (const id of pipelines) await call('POST', `/pipelines/${id}/on`);
  let at = from;
  let told = -1;
  for (;;) {
    const due = await quiet(call);
    // A person comes by and passes what is held, but for the last two days.
    if (at < now - 2 * DAY) {
      const { holds } = await call('GET', '/holds');
      for (const { brief, run } of holds) await call('POST', `/briefs/${brief}/holds/${run}`, { decide: 'pass' });
      if (holds.length > 0) continue;
    }
    if (due === null || due > now) break;
    // Never back: what is due already is being begun.
    at = Math.max(at + 1, due + 1);
    await put(at);
    const day = Math.floor((at - from) / DAY);
    if (day !== told) {
      told = day;
      tell(`  ${new Date(at).toISOString().slice(0, 10)}, day ${day + 1} of ${weeks * 7}`);
    }
  }
  await call('PUT', '/desk-clock', { at: null, speed: 1 });
  await until(async () => (await call('GET', '/system')).work.running === 0, 60_000, 'the end of the last steps');
}
