import type { ArticleWhole, CardSamples, HouseStyleWhole, Picture, PictureWhole } from '@grivo/contract';
import { newCard } from '@grivo/core';
import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { illustrating } from './ground/illustrating.ts';

let desk: Desk;
atTheDesk(
  (open) => {
    desk = open;
  },
  { upkeep: [] },
);
const illustrated = illustrating(() => desk);
const whole = async (file: string) => (await desk.ask<PictureWhole>('GET', `/pictures/${file}`)).body;

describe('cards', () => {
  const onACard = (subject: string, more: object = {}) =>
    illustrated(subject, { lead: 'card', otherwise: 'none', ...more });
  const plain = async (file: string) =>
    sharp(
      Buffer.from(
        await (
          await fetch(`${desk.http.address}/api/files/${file}`, { headers: { cookie: desk.cookie } })
        ).arrayBuffer(),
      ),
    )
      .raw()
      .toBuffer();

  test('carry the title of their article; where no house style has one there is a plain one', async () => {
    const { article, lead } = await onACard('Rosin for cellos');
    expect(lead).toMatchObject({ width: 1_200, height: 630, lead: true });
    expect(lead!.alternative).toBe(`Card with the words “${article.document.title}”`);
    expect((await whole(lead!.file)).picture).toMatchObject({ kind: 'card', origin: 'Plain', cost: 0 });
    // Another title is another picture.
    const other = (await onACard('Rosin for violas')).lead!;
    expect((await plain(other.file)).equals(await plain(lead!.file))).toBe(false);
  });

  test('that cannot be drawn give way to what the step says, and why is kept', async () => {
    const { ask } = desk;
    const other = (await ask<{ id: string }>('POST', '/styles', { name: 'Not of this blog' })).body.id;
    const { document, rev } = (await ask<HouseStyleWhole>('GET', `/styles/${other}`)).body;
    const cards = [newCard('Not here')];
    await ask('PUT', `/styles/${other}`, { document: { ...document, cards } }, { 'if-match': `"${rev}"` });
    const { lead, article } = await onACard('Rosin for basses', { card: 'Not here' });
    expect(lead).toBeNull();
    const [row] = await desk.w.product.ground.db.rows<{ result: string }>(
      "SELECT CAST(o.proposed AS CHAR) AS result FROM output o JOIN step_run r ON r.id = o.step_run WHERE r.brief = ? AND r.kind = 'illustrate'",
      [article.brief],
    );
    expect(row!.result).toContain('The card ‘Not here’: its house style has no such card.');
  });

  test('are drawn with titles before they are kept, short to long, and told where one does not fit', async () => {
    const { ask } = desk;
    const style = (await ask<{ id: string }>('POST', '/styles', { name: 'Luthier' })).body.id;
    const card = newCard('Wide');
    const drawn = await ask<CardSamples>('POST', `/styles/${style}/cards/drawn`, { card });
    const titles = drawn.body.samples.map(({ title }) => title.length);
    expect(drawn.body.madeUp).toBe(false);
    expect(titles).toEqual([...titles].sort((a, b) => a - b));
    expect(drawn.body.samples.every(({ problems, svg }) => problems.length === 0 && svg.startsWith('<svg'))).toBe(true);
    const texts = card.texts.map((text) => ({ ...text, from: 600, to: 600 }));
    const large = await ask<CardSamples>('POST', `/styles/${style}/cards/drawn`, { card: { ...card, texts } });
    expect(large.body.samples[0]!.problems[0]).toMatchObject({ stops: true });

    const { body: now } = await ask<HouseStyleWhole>('GET', `/styles/${style}`);
    const put = (cards: unknown) =>
      ask('PUT', `/styles/${style}`, { document: { ...now.document, cards } }, { 'if-match': `"${now.rev}"` });
    expect((await put([card, card])).status).toBe(422);
    expect((await put([{ ...card, texts: [{ ...card.texts[0], says: '{{ title' }] }])).status).toBe(422);
    expect((await put([{ ...card, texts: [{ ...card.texts[0], from: 90, to: 20 }] }])).status).toBe(422);
    expect((await put([card])).status).toBe(200);
    const file = (name: string) =>
      fetch(`${desk.http.address}/api/styles/${style}/cards/${name}/file?title=Rosin`, {
        headers: { cookie: desk.cookie },
      });
    const png = Buffer.from(await (await file('Wide')).arrayBuffer());
    expect(await sharp(png).metadata()).toMatchObject({ format: 'png', width: 1_200, height: 630 });
    expect((await file('Tall')).status).toBe(404);
  });

  test('are drawn for an article that is there, which stays as it is', async () => {
    const { article } = await onACard('Rosin, powdered');
    const { ask } = desk;
    expect((await ask<{ cards: string[] }>('GET', `/articles/${article.id}/cards`)).body).toEqual({
      cards: [],
    });
    const drawn = await ask<Picture>('POST', `/articles/${article.id}/card`, {});
    expect(drawn.body).toMatchObject({ kind: 'card', words: expect.stringContaining(article.document.title) });
    expect((await ask('POST', `/articles/${article.id}/card`, { card: 'Tall' })).status).toBe(404);
    const now = (await ask<ArticleWhole>('GET', `/articles/${article.id}`)).body;
    expect(now.rev).toBe(article.rev);
  });
});
