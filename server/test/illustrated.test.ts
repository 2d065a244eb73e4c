import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { ArticleWhole } from '@grivo/contract';
import { stepKinds as k, LONGEST_ALTERNATIVE, type ProcedureDocument } from '@grivo/core';
import sharp from 'sharp';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';

let desk: Desk;
atTheDesk((open) => {
  desk = open;
});

/** What the illustrator says beside its picture, and what it was asked. */
let beside: Record<string, unknown> = {};
const asked: string[] = [];
let service = '';
const paper = sharp({ create: { width: 300, height: 200, channels: 3, background: '#e9efea' } })
  .png()
  .toBuffer();

const server = createServer((request, response) => {
  let text = '';
  request.on('data', (part: Buffer) => {
    text += part.toString();
  });
  request.on('end', () => {
    const { prompt } = JSON.parse(text) as { prompt: string };
    asked.push(prompt);
    void paper.then((png) =>
      response
        .writeHead(200, { 'content-type': 'application/json' })
        .end(JSON.stringify({ created: 1, data: [{ b64_json: png.toString('base64'), ...beside }] })),
    );
  });
});

beforeAll(async () => {
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  desk.w.product.allowed.add(address);
  const owner = await desk.http.as('owner');
  const made = await owner<{ id: string }>('POST', '/services', {
    role: 'illustrator',
    name: 'Pegs and paint',
    address,
    model: 'paint-1',
    secret: null,
    price: { microsPerThousandIn: 0, microsPerThousandOut: 0, microsPerPicture: 10 },
  });
  service = made.body.id;
});
afterAll(() => server.close());
beforeEach(() => {
  beside = {};
  asked.length = 0;
});

let n = 0;

/** The lead picture of an article laid out and illustrated by that service. */
async function illustrated(language = 'en') {
  n++;
  const { ask, w } = desk;
  const source = await ask<{ id: string }>('POST', '/sources', { name: `Typed ${n}`, settings: { kind: 'requests' } });
  const subject = `How a violin peg is fitted ${n}`;
  await ask('POST', `/sources/${source.body.id}/requests`, { subject, notes: 'A peg is turned until it holds.' });
  const document: ProcedureDocument = {
    grivo: 1,
    language,
    services: { illustrator: service },
    steps: [
      { ...k.take.fresh('s1'), sources: [source.body.id], most: null },
      { ...k['lay out'].fresh('s2'), body: 'A peg is turned until it holds, and chalk helps it.', reads: 'plain text' },
      k.illustrate.fresh('s3'),
    ],
  };
  const made = await ask<{ id: string }>('POST', '/pipelines', { name: `Laid out ${n}`, document });
  const { briefs } = (await ask<{ briefs: string[] }>('POST', `/pipelines/${made.body.id}/take`, {})).body;
  await w.settled(briefs, ['out']);
  const [row] = await w.product.ground.db.rows<{ id: string }>('SELECT id FROM article WHERE brief = ?', briefs);
  const { document: written } = (await ask<ArticleWhole>('GET', `/articles/${row!.id}`)).body;
  const lead = written.body.find((block) => block.type === 'figure' && block.lead);
  if (lead?.type !== 'figure') throw new Error('it has no lead picture');
  return { lead, title: written.title };
}

describe('the alternative text of a drawn picture', () => {
  test('is what its maker says was drawn, without ‘a picture of’', async () => {
    beside = { revised_prompt: 'An illustration of four pegs in a row,\n on a bench of maple.' };
    expect((await illustrated()).lead.alternative).toBe('Four pegs in a row, on a bench of maple.');
  });

  test.each([
    ['says nothing', {}],
    ['says null', { revised_prompt: null }],
    ['says too little', { revised_prompt: 'A peg' }],
    ['says what is no text', { revised_prompt: { en: 'Four pegs in a row' } }],
  ])('is what it was made for where the maker %s', async (_says, reply) => {
    beside = reply;
    const { lead, title } = await illustrated();
    expect(lead.alternative).toBe(`Drawing made for “${title}”`);
  });

  test('is short, seen and on one line, whatever is said', async () => {
    beside = { revised_prompt: `Four pegs\u202e in a row. <b>Buy</b>\u200b now ${'and more pegs '.repeat(20_000)}` };
    const { alternative } = (await illustrated()).lead;
    expect(alternative).toBe('Four pegs in a row.');
    expect(alternative.length).toBeLessThanOrEqual(LONGEST_ALTERNATIVE);
  });

  test('is asked for in the language of the article', async () => {
    await illustrated();
    await illustrated('de');
    expect(asked.map((prompt) => /What is shown is said in (\w+)\./.exec(prompt)?.[1])).toEqual(['English', 'German']);
  });
});
