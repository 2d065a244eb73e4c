import { type ArticleDocument, stepKinds as k, type Step } from '@grivo/core';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { readRevision } from '../src/nouns/articles/repository.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { intakeAt } from './ground/intake.ts';

let desk: Desk;
atTheDesk((open) => {
  desk = open;
});
const { sourceOf } = intakeAt(() => desk);

async function laidOut(
  subject: string,
  notes: string,
  reads: 'Markdown' | 'HTML' | 'plain text',
): Promise<{ document: ArticleDocument; told: string; post: string }> {
  const { ask, w } = desk;
  const asked = await sourceOf({ kind: 'requests' }, `Texts, ${subject}`);
  const steps: Step[] = [
    { ...k.take.fresh('s1'), sources: [asked] },
    { ...k['lay out'].fresh('s2'), body: '{{ text }}', title: '{{ subject }}', reads },
    { ...k['work out'].fresh('s3'), as: 'told', expression: 'notTaken' },
    { ...k.publish.fresh('s4'), blog: w.blog, when: 'at once' },
  ];
  const { id } = (
    await ask<{ id: string }>('POST', '/pipelines', { name: subject, document: { grivo: 1, language: 'en', steps } })
  ).body;
  expect((await ask('POST', `/sources/${asked}/requests`, { subject, notes })).status).toBeLessThan(300);
  const { briefs } = (await ask<{ briefs: string[] }>('POST', `/pipelines/${id}/take`, {})).body;
  await w.settled(briefs, ['out']);
  const [row] = await w.product.ground.db.rows<{ revision: string; address: string }>(
    'SELECT p.revision, p.address FROM publication p JOIN article a ON a.id = p.article WHERE a.brief = ?',
    [briefs[0]],
  );
  const [run] = await w.product.ground.db.rows<{ proposed: string }>(
    "SELECT o.proposed FROM output o JOIN step_run r ON r.id = o.step_run WHERE r.brief = ? AND r.path = 's2'",
    [briefs[0]],
  );
  return {
    document: await readRevision(w.product.ground.db, row!.revision),
    told: JSON.stringify(run!.proposed),
    post: await (await fetch(row!.address)).text(),
  };
}

test('a text comes over with its pictures, videos, tables and credits; what cannot be had is said, its words stay', async () => {
  const { w } = desk;
  const png = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#a33' } })
    .png()
    .toBuffer();
  const film = `${w.standIns.address}/videos/watch/salt-by-weight`;
  const gone = `${w.standIns.address}/pages/no-such-picture.png`;
  const text = [
    'A plate is scraped thin. A plate is scraped thin.',
    `![The plate](data:image/png;base64,${png.toString('base64')} "Scraped. Photo: N. Luthier")`,
    film,
    `<figure><img src="${gone}" alt="The bridge"><figcaption>How it leans</figcaption></figure>`,
    '<form><input></form>',
    '<p>Cut <b>slowly</b>.</p>',
    '| Wood | Use |\n|---|---|\n| Maple | ribs |',
  ].join('\n\n');
  const { document, told, post } = await laidOut('A violin’s plate', text, 'Markdown');
  expect(document.body).toMatchObject([
    { type: 'paragraph', content: [{ text: 'A plate is scraped thin. A plate is scraped thin.' }] },
    {
      type: 'figure',
      width: 40,
      height: 30,
      alternative: 'The plate',
      caption: [{ text: 'Scraped.' }],
      credit: [{ text: 'Photo: N. Luthier' }],
    },
    { type: 'video', address: film, title: expect.stringMatching(/salt/i) },
    { type: 'paragraph', content: [{ text: 'The bridge. How it leans' }] },
    { type: 'paragraph', content: [{ text: 'Cut ' }, { text: 'slowly', marks: ['strong'] }, { text: '.' }] },
    { type: 'table', head: [[{ text: 'Wood' }], [{ text: 'Use' }]], rows: [[[{ text: 'Maple' }], [{ text: 'ribs' }]]] },
  ]);
  expect(told).toContain('a form');
  expect(told).toContain('The bridge');
  expect(told).toContain('it answers 404');
  expect(post).toContain('<img');
  expect(post).toContain('N. Luthier');
  expect(post).toContain('<table');
  expect(post).not.toContain('data:image');
});

test('HTML given as Markdown or as HTML, and a plain text, come to the same words', async () => {
  const html = '<h2>Pegs</h2>\n\n    <p>They slip in winter.</p>\n<ul><li>Chalk</li><li>Soap</li></ul>';
  const body = [
    { type: 'heading', level: 2, text: 'Pegs' },
    { type: 'paragraph', content: [{ text: 'They slip in winter.' }] },
    { type: 'list', ordered: false, items: [[{ text: 'Chalk' }], [{ text: 'Soap' }]] },
  ];
  expect((await laidOut('Pegs one', html, 'Markdown')).document.body).toMatchObject(body);
  expect((await laidOut('Pegs two', html, 'HTML')).document.body).toMatchObject(body);
  expect((await laidOut('Pegs three', 'They slip.\n\nIn winter.', 'plain text')).document.body).toMatchObject([
    { type: 'paragraph', content: [{ text: 'They slip.' }] },
    { type: 'paragraph', content: [{ text: 'In winter.' }] },
  ]);
});
