import { describe, expect, test } from 'vitest';
import { plain } from '../documents/plain.ts';
import { momentOf } from './entry.ts';
import { readFeed } from './feed.ts';

const AT = 'https://news.example/trade/feed';
const feedOf = (text: string) => {
  const read = readFeed(text, AT);
  if (!read.ok) throw new Error(read.problem);
  return read.feed;
};

describe('forms', () => {
  test('RSS 2.0 with what feeds get wrong: a bare ampersand, HTML escaped twice, no date, no name, addresses beside it', () => {
    const feed =
      feedOf(`\ufeff  <?xml version="1.0"?><rss version="2.0" xmlns:atom="http://www.w3.org/2005/Atom"><channel>
      <title>Salt & brine</title><link>/trade/</link><atom:link rel="hub" href="https://hub.example/"/><atom:link rel="self" href="feed?all"/>
      <item><title>One &amp; two</title><link>/one</link><guid isPermaLink="false">g1</guid><pubDate>Tue, 03 Nov 2026 07:30:00 GMT</pubDate><description>&lt;p&gt;Salt &amp;amp; water&lt;/p&gt;&lt;p&gt;for all&lt;/p&gt;</description></item>
      <item><title></title><link>two</link><description><![CDATA[<p>A text&nbsp;without a title that goes on and on for long</p>]]></description></item>
      <item><guid>https://news.example/three</guid><title>Three</title></item></channel></rss>`);
    expect(feed).toMatchObject({
      form: 'RSS 2.0',
      title: 'Salt & brine',
      home: 'https://news.example/trade/',
      hub: 'https://hub.example/',
      self: 'https://news.example/trade/feed?all',
    });
    const [one, two, three] = feed.entries;
    expect(one).toMatchObject({
      id: 'g1',
      link: 'https://news.example/one',
      title: 'One & two',
      text: 'Salt & water for all',
      published: '2026-11-03T07:30:00.000Z',
    });
    expect(two).toMatchObject({
      id: null,
      link: 'https://news.example/trade/two',
      title: 'A text without a title that goes on and on …',
      published: null,
    });
    expect(three?.link).toBe('https://news.example/three');
  });

  test('RSS without a channel', () => {
    expect(
      feedOf(
        '<rss version="2.0"><title>Plain</title><item><title>One</title><link>https://a.example/1</link></item></rss>',
      ),
    ).toMatchObject({ title: 'Plain', entries: [{ title: 'One' }] });
  });

  test('RSS 1.0: items beside the channel, dates of Dublin Core', () => {
    const feed =
      feedOf(`<rdf:RDF xmlns:rdf="x" xmlns="y" xmlns:dc="z"><channel rdf:about="a"><title>Old</title><link>https://a.example/</link></channel>
      <item rdf:about="https://a.example/1"><title>One</title><link>https://a.example/1</link><dc:date>2026-11-03</dc:date><dc:creator>Jo</dc:creator></item></rdf:RDF>`);
    expect(feed.form).toBe('RSS 1.0');
    expect(feed.entries[0]).toMatchObject({
      id: 'https://a.example/1',
      author: 'Jo',
      published: '2026-11-03T00:00:00.000Z',
    });
  });

  test('Atom: the link of a reader among others, the longer of content and summary, the base of addresses', () => {
    const feed =
      feedOf(`<feed xmlns="http://www.w3.org/2005/Atom" xml:lang="de-AT" xml:base="https://b.example/x/"><title type="html">Neu &lt;b&gt;hier&lt;/b&gt;</title>
      <entry><id>tag:1</id><title>Eins</title><link rel="edit" href="e"/><link href="eins"/><link rel="enclosure" href="eins.mp3" type="audio/mpeg" length="1000"/>
      <summary>kurz</summary><content type="xhtml"><div><p>lang und <b>fett</b></p></div></content><updated>2026-11-04T10:00:00+01:00</updated><author><name>Lena</name></author></entry></feed>`);
    expect(feed).toMatchObject({ form: 'Atom', language: 'de', title: 'Neu hier' });
    expect(feed.entries[0]).toMatchObject({
      link: 'https://b.example/x/eins',
      text: 'lang und fett',
      author: 'Lena',
      published: '2026-11-04T09:00:00.000Z',
      enclosure: { address: 'https://b.example/x/eins.mp3', mime: 'audio/mpeg', bytes: 1000 },
    });
  });

  test('JSON Feed: figures as ids, items that are none passed over, its hub', () => {
    const feed = feedOf(
      JSON.stringify({
        version: 'https://jsonfeed.org/version/1.1',
        title: 'J',
        hubs: [{ type: 'WebSub', url: 'https://hub.example/' }],
        items: [7, { id: 3, url: '/three', content_html: '<p>T</p>', date_published: 'soon' }, null],
      }),
    );
    expect(feed.hub).toBe('https://hub.example/');
    expect(feed.entries).toEqual([
      expect.objectContaining({ id: '3', link: 'https://news.example/three', title: 'T', published: null }),
    ]);
  });

  test('how long episodes last, as clocks and as seconds', () => {
    const of = (said: string) =>
      feedOf(
        `<rss><channel><title>P</title><item><title>E</title><enclosure url="e.mp3"/>${said}</item></channel></rss>`,
      ).entries[0]?.seconds;
    expect(of('<itunes:duration>1:02:03</itunes:duration>')).toBe(3_723);
    expect(of('<itunes:duration>754</itunes:duration>')).toBe(754);
    expect(of('<media:content duration="90"/>')).toBe(90);
    expect(of('<itunes:duration>long</itunes:duration>')).toBeNull();
  });
});

test.each([
  ['', 'it is empty'],
  ['<!DOCTYPE html><html><p>Hello', 'it is a web page, not a feed'],
  ['<opml version="2.0"/>', 'it is XML of another kind (‘opml’)'],
  ['{"items": []}', 'it is JSON, but no JSON Feed'],
  ['{"items": [', /broken JSON/],
  ['plain words', 'it is not a feed'],
  ['<!DOCTYPE r [<!ENTITY a "b">]><rss/>', /entities of its own/],
  [`<rss><channel>${'<x>'.repeat(200)}`, /100 deep/],
])('%j is no feed, and says why', (text, says) => {
  const read = readFeed(text, AT);
  expect(read.ok).toBe(false);
  if (!read.ok) expect(read.problem).toMatch(says);
});

test.each([
  ['Tue, 03 Nov 2026 07:30:00 +0100', '2026-11-03T06:30:00.000Z'],
  ['Di, 03 Nov 2026 07:30:00 GMT', '2026-11-03T07:30:00.000Z'],
  ['2026-11-03T07:30:00Z', '2026-11-03T07:30:00.000Z'],
  ['3rd Nov 2026', expect.stringMatching(/^2026-11-0[23]T/)],
  ['Thu, 01 Jan 1970 00:00:00 GMT', null],
  ['yesterday', null],
  ['', null],
])('the moment %j', (text, moment) => expect(momentOf(text)).toEqual(moment));

test('plain text parts what stands in blocks and leaves scripts out', () => {
  expect(plain('<h2>A</h2><p>b<br>c</p><script>d()</script>')).toBe('A b c');
  expect(plain('no marks   here')).toBe('no marks here');
});
