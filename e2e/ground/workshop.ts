import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { spokenSamples, wavOf } from '@grivo/standins';

/**
 * A violin maker's corner of the web, a trade the demonstration knows nothing of: a sheet, a feed with its pages, a list of
 * a partner, a video with captions, a podcast, and a way to look pages up.
 */

/** What is known of each thing, in sentences that stand by themselves. */
const KNOWN: Record<string, string[]> = {
  bridge: [
    'The bridge of a violin stands between the inner notches of the sound holes and is held by the strings alone.',
    'A bridge that leans towards the fingerboard is pulled over by the strings sooner or later, mostly while it is tuned.',
    'To set it upright the strings are slackened by half a turn, and both thumbs push its top back towards the tailpiece.',
    'The back of the bridge makes a right angle with the top of the body, which is seen best from the side.',
    'Maple of eight years is cut for bridges, since younger wood bends within the first winter.',
    'A new bridge is fitted by a maker in about two hours and costs between 60 and 120 euros.',
    'The feet are cut to the curve of the top, so that no sheet of paper can be pushed under them.',
    'Under the E string the bridge is protected by a small skin or a drop of glue, for the steel cuts into the wood.',
    'After a fall of the bridge the sound post often lies loose in the body, and then all strings are let down first.',
    'A height of 3.5 millimetres between fingerboard and E string is easy for the hand and still clear in sound.',
  ],
  rosin: [
    'Rosin is cooked from the resin of pines and larches, and gives the hair of the bow its hold on the string.',
    'A new cake is roughened with fine sandpaper before it is used, otherwise it gives nothing to the hair.',
    'Four strokes from the frog to the tip are enough for two hours of playing.',
    'Too much rosin is heard as a scratch and seen as white dust on the body below the strings.',
    'Dust of rosin is wiped off with a dry cloth after playing, since it bites into the varnish within weeks.',
    'Dark rosin is softer and fits winter, light rosin is harder and fits the summer above 25 degrees.',
    'A cake that has broken still serves when its pieces are melted at 80 degrees in a form of paper.',
    'Hair that is black near the frog is dirty from fingers and takes no rosin there.',
    'A bow is haired anew once a year by those who play an hour a day.',
    'Alcohol cleans hair but must never touch the stick, whose varnish it dissolves at once.',
  ],
  pegs: [
    'Pegs of ebony hold by friction alone, so they slip in dry rooms and stick in damp ones.',
    'A peg that slips is pushed inwards while it is turned, and its string is wound towards the wall of the box.',
    'Peg paste is put on the two shiny rings only, as thin as breath on a pane.',
    'Chalk makes a peg hold for a day and wears its hole oval within a year.',
    'Between 45 and 60 per cent of humidity the pegs of a violin move as they should.',
    'A string has three turns on its peg; with fewer it slips, with more it breaks at the nut.',
    'Fine tuners on the tailpiece do for the last cents, never for a whole tone.',
    'When a peg stands out less than 3 millimetres on the thin side, its hole needs a bush of boxwood.',
    'Pencil graphite in the groove of the nut lets the string slide while it is tuned.',
    'New strings fall by a quarter tone each hour on their first day and hold from the third day on.',
  ],
};
export const TITLES: Record<string, string> = {
  bridge: 'Setting the bridge of a violin',
  rosin: 'Rosin and the hair of a bow',
  pegs: 'Pegs that slip or stick',
};
export const TOPICS = Object.keys(KNOWN);
export const textOf = (topic: string): string => KNOWN[topic]!.join(' ');

export const SHEET = `Thing,Article number,What we know
${TOPICS.map((topic) => `${TITLES[topic]},V-${topic.length}${topic[0]!.toUpperCase()},"${textOf(topic)}"`).join('\n')}
`;
export const MARKDOWN = `# ${TITLES['pegs']}\n\n${KNOWN['pegs']!.slice(0, 5).join(' ')}\n\n## What helps\n\n${KNOWN['pegs']!.slice(5).join(' ')}\n`;

export const CAPTIONS = `WEBVTT

${KNOWN['bridge']!.map((line, i) => `00:${String(Math.floor((i * 7) / 60)).padStart(2, '0')}:${String((i * 7) % 60).padStart(2, '0')}.000 --> 00:${String(Math.floor((i * 7 + 7) / 60)).padStart(2, '0')}:${String((i * 7 + 7) % 60).padStart(2, '0')}.000\n${line}`).join('\n\n')}
`;

/** Sound of what is known of a thing, in the speech the stand-in hears. */
export const soundOf = (topic: string): Buffer => wavOf(spokenSamples(textOf(topic)));

type Answer = { type: string; body: string | Buffer };

function answers(origin: string): Record<string, () => Answer> {
  const html = (title: string, body: string, head = ''): Answer => ({
    type: 'text/html; charset=utf-8',
    body: `<!doctype html><html lang="en"><head><title>${title}</title>${head}</head><body><main><h1>${title}</h1>${body}</main></body></html>`,
  });
  const paragraphs = (topic: string) =>
    [KNOWN[topic]!.slice(0, 5), KNOWN[topic]!.slice(5)].map((part) => `<p>${part.join(' ')}</p>`).join('');
  const feed = TOPICS.map(
    (topic, i) =>
      `<item><title>${TITLES[topic]}</title><link>${origin}/notes/${topic}</link><guid>${origin}/notes/${topic}</guid><pubDate>${new Date(Date.UTC(2026, 9, 1 + i)).toUTCString()}</pubDate><description>${KNOWN[topic]![0]}</description></item>`,
  ).join('');
  const video = {
    '@context': 'https://schema.org',
    '@type': 'VideoObject',
    name: TITLES['bridge'],
    description: 'At the bench.',
    duration: 'PT1M10S',
    inLanguage: 'en',
    author: { '@type': 'Person', name: 'The workshop' },
  };
  const rss = (title: string, items: string): Answer => ({
    type: 'application/rss+xml',
    body: `<?xml version="1.0"?><rss version="2.0"><channel><title>${title}</title><link>${origin}/</link><language>en</language>${items}</channel></rss>`,
  });
  return {
    '/': () =>
      html(
        'The workshop',
        '<p>Notes on violins.</p>',
        `<link rel="alternate" type="application/rss+xml" href="/notes.xml">`,
      ),
    '/notes.xml': () => rss('Notes of the workshop', feed),
    ...Object.fromEntries(TOPICS.map((topic) => [`/notes/${topic}`, () => html(TITLES[topic]!, paragraphs(topic))])),
    '/things.csv': () => ({
      type: 'text/csv',
      body: `id,name,link,price,currency,category,description\n${TOPICS.map((topic, i) => `T${i},${TITLES[topic]},${origin}/notes/${topic},${12 + i}.50,EUR,violins,${KNOWN[topic]![0]!.replace(/,/g, ';')}`).join('\n')}\n`,
    }),
    '/watch/bridge': () =>
      html(
        TITLES['bridge']!,
        `<video controls><track kind="captions" src="/watch/bridge.vtt" srclang="en" label="by hand"></video>`,
        `<script type="application/ld+json">${JSON.stringify(video)}</script>`,
      ),
    '/watch/bridge.vtt': () => ({ type: 'text/vtt', body: CAPTIONS }),
    '/talks.xml': () =>
      rss(
        'Talks of the workshop',
        `<item><title>${TITLES['rosin']}</title><link>${origin}/notes/rosin</link><guid>talk-1</guid><pubDate>${new Date(Date.UTC(2026, 9, 9)).toUTCString()}</pubDate><description>A talk on rosin.</description><enclosure url="${origin}/talks/rosin.wav" type="audio/wav" length="1000"/></item>`,
      ),
    '/talks/rosin.wav': () => ({ type: 'audio/wav', body: soundOf('rosin') }),
  };
}

/** Pages that hold words of what is asked for, most of them first. */
function lookUp(origin: string, asked: string): Answer {
  const words = asked.toLowerCase().match(/[a-z]{3,}/g) ?? [];
  const pages = TOPICS.map((topic) => ({
    topic,
    held: words.filter((word) => `${TITLES[topic]} ${textOf(topic)}`.toLowerCase().includes(word)).length,
  }))
    .filter(({ held }) => held > 0)
    .sort((a, b) => b.held - a.held)
    .map(({ topic }) => ({ address: `${origin}/notes/${topic}`, title: TITLES[topic], date: null }));
  return { type: 'application/json', body: JSON.stringify({ pages }) };
}

export interface Workshop {
  origin: string;
  close: () => Promise<void>;
}

export async function workshop(): Promise<Workshop> {
  let known: Record<string, () => Answer> = {};
  let origin = '';
  const server = createServer((request, response) => {
    const at = new URL(request.url!, origin);
    const found =
      at.pathname === '/look-up' ? lookUp(origin, at.searchParams.get('q') ?? '') : (known[at.pathname]?.() ?? null);
    response.writeHead(found ? 200 : 404, { 'content-type': found?.type ?? 'text/plain' });
    response.end(found?.body ?? 'There is nothing here.');
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  known = answers(origin);
  return { origin, close: () => new Promise((resolve) => server.close(() => resolve())) };
}
