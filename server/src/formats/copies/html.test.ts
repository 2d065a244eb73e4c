import {
  type ArticleDocument,
  articleHtml,
  type Block,
  ONE_OF_EACH_BLOCK as EACH,
  EMPTY_ARTICLE,
  type Resolve,
} from '@grivo/core';
import { HtmlValidate } from 'html-validate';
import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { copyOf } from './copy.ts';

const CHART = 'c'.repeat(64);
const resolve: Resolve = {
  file: (digest) => `https://pictures.example/${digest}.png`,
  article: (id) => (id === 'out' ? 'https://strings.example/rosin' : null),
  chart: () => ({ file: CHART, width: 640, height: 360 }),
};
// A ‘>’ in a text is itself (HTML Living Standard 13.1.3).
const validator = new HtmlValidate({
  extends: ['html-validate:standard'],
  rules: { 'no-raw-characters': 'off' },
});
/** What a validator finds against the standard, a line each. */
async function faults(html: string): Promise<string[]> {
  const { results } = await validator.validateString(html);
  return results.flatMap(({ messages }) =>
    messages.map(({ line, ruleId, message }) => `${line} ${ruleId}: ${message}`),
  );
}

const article = (body: Block[], more: Partial<ArticleDocument> = {}): ArticleDocument => ({
  ...EMPTY_ARTICLE,
  title: 'Rosin <and> bows',
  description: 'What “dark” means & when it matters.',
  body,
  ...more,
});
const png = await sharp({ create: { width: 30, height: 20, channels: 3, background: '#888888' } })
  .png()
  .toBuffer();
const page = async (document: ArticleDocument, bytes: Buffer | null = png) => {
  const copied = await copyOf('HTML page', document, resolve, async () => bytes);
  if (!copied.ok) throw new Error(copied.problem);
  return copied.body.toString('utf8');
};

describe('what is published is HTML by the standard', () => {
  test.each(Object.values(EACH).map((block) => [block.type, block] as const))('a %s by itself', async (_, block) => {
    expect(await faults(articleHtml(article([block]), resolve))).toEqual([]);
  });

  test('all together, from the left and from the right', async () => {
    const all = Object.values(EACH);
    expect(await faults(articleHtml(article(all), resolve))).toEqual([]);
    expect(await faults(articleHtml(article(all, { language: 'ar' }), resolve))).toEqual([]);
  });

  test('the validator sees what is wrong', async () => {
    expect(await faults('<p><ul><li>one</li></ul></p><img src="a.png">')).not.toEqual([]);
  });
});

describe('an article as a page', () => {
  test('is valid, says what it is and in which language, and escapes its title', async () => {
    const html = await page(article(Object.values(EACH), { language: 'ar' }));
    expect(await faults(html)).toEqual([]);
    expect(html).toContain('<html lang="ar" dir="rtl">');
    expect(html).toMatch(/<title>Rosin (?:<|&#x3C;|&lt;)and> bows<\/title>/);
    expect(html).toMatch(/<h1>Rosin (?:&#x3C;|&lt;)and> bows<\/h1>/);
  });

  test('holds its pictures, and leads to those that are gone', async () => {
    const held = await page(article([EACH.figure, EACH.chart]));
    expect(held.match(/src="data:image\/png;base64,/g)).toHaveLength(2);
    expect(held).not.toContain('pictures.example');
    expect(await page(article([EACH.figure]), null)).toContain(
      `src="https://pictures.example/${EACH.figure.file}.png"`,
    );
    // What claims to be a picture and is none is not held.
    expect(await page(article([EACH.figure]), Buffer.from('<svg onload="x()">'))).not.toContain('data:');
  });
});
