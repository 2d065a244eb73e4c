import { describe, expect, test } from 'vitest';
import { readHead } from '../documents/head.ts';
import { namedFeeds } from './find.ts';
import { opmlOf, readOpml } from './opml.ts';
import { unwrapped } from './unwrap.ts';

describe('unwrapping', () => {
  test.each([
    ['https://go.example/url?u=https%3A%2F%2Fa.example%2Fone%3Fx%3D1&t=9', 'https://a.example/one?x=1'],
    ['https://go.example/redirect?to=https://go.example/click?url=https%3A%2F%2Fa.example%2F', 'https://a.example/'],
    ['https://a.example/one?utm_source=feed&x=1#part', 'https://a.example/one?x=1'],
    // A page that speaks of an address is not a redirect to it.
    ['https://a.example/archive?of=https://b.example/', 'https://a.example/archive?of=https://b.example/'],
    ['https://go.example/url?u=javascript:alert(1)', 'https://go.example/url?u=javascript:alert(1)'],
  ])('%s', (wrapped, inner) => expect(unwrapped(wrapped)).toBe(inner));

  test('by a rule of one’s own, where path and parameter are unusual', () => {
    const wrapped = 'https://t.example/r7/x?dst=https%3A%2F%2Fa.example%2Ftwo';
    expect(unwrapped(wrapped)).toBe(wrapped);
    expect(unwrapped(wrapped, [{ begins: 'https://t.example/r7/', parameter: 'dst' }])).toBe('https://a.example/two');
  });

  test('one that wraps itself ends', () => {
    const round = 'https://go.example/go?url=https://go.example/go';
    expect(unwrapped(round)).toBe('https://go.example/go');
  });
});

describe('lists of feeds', () => {
  test('nested outlines, each feed once, what is no feed passed over', () => {
    const read =
      readOpml(`<?xml version="1.0"?><opml version="1.1"><body><outline text="Trade"><outline text="A &amp; B" xmlUrl="https://a.example/feed"/>
      <outline title="again" xmlUrl="https://a.example/feed"/><outline xmlUrl="not an address"/></outline><outline type="rss" title="C" xmlUrl="https://c.example/rss"/></body></opml>`);
    expect(read).toEqual({
      ok: true,
      feeds: [
        { address: 'https://a.example/feed', name: 'A & B' },
        { address: 'https://c.example/rss', name: 'C' },
      ],
    });
  });

  test('what goes out comes in again', () => {
    const feeds = [{ address: 'https://a.example/feed?a=1&b=2', name: 'Salt "and" <brine>' }];
    expect(readOpml(opmlOf('Mine & yours', feeds))).toEqual({ ok: true, feeds });
  });

  test.each(['<opml/>', '<rss/>', 'words'])('%s is none', (text) => expect(readOpml(text).ok).toBe(false));
});

test('a page names feeds beside its own address or its base', () => {
  const link = (type: string, href: string) => `<link rel="alternate" type="${type}" href="${href}">`;
  const page = (head: string) => readHead(`<!doctype html><html><head>${head}</head></html>`);
  expect(
    namedFeeds(
      page(link('application/rss+xml', '/feed') + link('text/html', '/de') + link('application/atom+xml', 'atom')),
      'https://a.example/x/y',
    ),
  ).toEqual(['https://a.example/feed', 'https://a.example/x/atom']);
  expect(
    namedFeeds(page(`<base href="https://b.example/">${link('application/rss+xml', 'feed')}`), 'https://a.example/'),
  ).toEqual(['https://b.example/feed']);
});
