import type { Article } from '@grivo/contract';
import { articleText, stepKinds as k, shipped, withoutSources } from '@grivo/core';
import { expect, test } from 'vitest';
import { readRevision } from '../src/nouns/articles/repository.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { intakeAt } from './ground/intake.ts';

let desk: Desk;
atTheDesk((open) => {
  desk = open;
});
const { sourceOf } = intakeAt(() => desk);

async function run(document: object, subject: string, standing: 'out' | 'stopped') {
  const { ask, w } = desk;
  const made = await ask<{ id: string }>('POST', '/pipelines', { name: `About ${subject}`, document });
  expect(made.status < 300 ? null : made.problem).toBeNull();
  const took = await ask<{ briefs: string[] }>('POST', `/pipelines/${made.body.id}/take`, {});
  expect(took.status < 300 ? null : took.problem).toBeNull();
  await w.settled(took.body.briefs, [standing]);
  return took.body.briefs[0]!;
}

test('a phrase is written without sources when that was chosen, nothing in it rests on anything, and it says so', async () => {
  const { ask, w } = desk;
  const list = await sourceOf({ kind: 'requests' }, 'Phrases');
  const subject = 'bridge of a violin leans';
  expect((await ask('POST', `/sources/${list}/requests`, { subject, notes: '' })).status).toBeLessThan(300);
  const made = shipped('guides').make({ source: list, blog: w.blog, language: 'en' });
  const document = withoutSources(made);
  document.steps = document.steps
    .filter(({ kind }) => !['illustrate', 'link', 'hold'].includes(kind))
    .map((step) => (step.kind === 'publish' ? { ...step, when: 'at once' as const } : step))
    .map((step) => (step.kind === 'check' ? { ...step, words: { from: 10, to: 5_000 } } : step));
  const brief = await run(document, subject, 'out');
  const { articles } = (await ask<{ articles: Article[] }>('GET', '/articles?limit=20')).body;
  const { id } = articles.find((article) => article.brief === brief)!;
  const whole = (await ask<{ passages: unknown[] }>('GET', `/articles/${id}`)).body;
  expect(whole.passages).toEqual([]);
  const [row] = await w.product.ground.db.rows<{ current: string }>('SELECT current FROM article WHERE id = ?', [id]);
  const { body } = await readRevision(w.product.ground.db, row!.current);
  const paragraphs = body.filter(({ type }) => type === 'paragraph');
  expect(paragraphs.length).toBeGreaterThan(2);
  for (const block of paragraphs) expect(block.evidence).toEqual([]);
  expect(articleText({ body })).toContain(subject);
});

test('without that choice it is said before it runs that there is nothing to write from', async () => {
  const { ask, w } = desk;
  const list = await sourceOf({ kind: 'requests' }, 'Phrases besides');
  await ask('POST', `/sources/${list}/requests`, { subject: 'pegs slip', notes: '' });
  const document = {
    grivo: 1,
    language: 'en',
    steps: [
      { ...k.take.fresh('s1'), sources: [list] },
      k.outline.fresh('s2'),
      k.write.fresh('s3'),
      k.title.fresh('s4'),
      { ...k.publish.fresh('s5'), blog: w.blog, when: 'at once' },
    ],
  };
  const { body } = await ask<{ id: string; problems: { sentence: string }[] }>('POST', '/pipelines', {
    name: 'From nothing',
    document,
  });
  expect(body.problems.map(({ sentence }) => sentence)).toContain(
    'It needs the passages, and no step above gives one.',
  );
  expect((await ask('POST', `/pipelines/${body.id}/take`, {})).status).toBe(422);
});
