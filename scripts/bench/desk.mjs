// How long the page people live in makes them wait: ten thousand briefs, and typing in a procedure of thirty steps.
import { stepKinds } from '@grivo/core';
import { Database } from '../../server/src/ground/store/database.ts';
import { median } from './ground.mjs';
import { longest, onScreens, strokesOf } from './screens.mjs';

const BRIEFS = 10_000;
const STEPS = 12;

/** Thirty steps, a third of them with an instruction of some length. */
function thirty(source, blog) {
  const kinds = ['look up', 'judge', 'outline', 'notes', 'write', 'title', 'illustrate', 'link', 'check'];
  const steps = [{ ...stepKinds.take.fresh('s1'), sources: [source] }];
  for (let i = 2; i < 30; i++) {
    const step = stepKinds[kinds[(i - 2) % kinds.length]].fresh(`s${i}`);
    if (step.kind === 'link') step.blog = blog;
    if ('instruction' in step) step.instruction = 'Speak of {{ subject }} as one who has done it. '.repeat(8);
    steps.push(step);
  }
  steps.push({ ...stepKinds.publish.fresh('s30'), blog });
  return { grivo: 1, language: 'en', steps };
}

/** Briefs of a pipeline with all their step runs, straight into the tables: the list is what is measured. */
async function fill(url, pipeline, steps) {
  const db = await Database.open(url, 2);
  const id = (kind, i) => `${kind}${String(i).padStart(18, '0')}`;
  const [{ procedure_id, version }] = await db.rows('SELECT procedure_id, version FROM pipeline WHERE id = ?', [
    pipeline,
  ]);
  for (let at = 0; at < BRIEFS; at += 1_000) {
    const rows = Array.from({ length: 1_000 }, (_, i) => at + i);
    await db.run('INSERT INTO brief (id, pipeline, standing, seed, subject, fields, made_desk) VALUES ?', [
      rows.map((i) => [
        id('00', i),
        pipeline,
        i % 9 === 0 ? 'held' : 'out',
        's',
        `what to know about ${i} jars`,
        '{}',
        i,
      ]),
    ]);
    await db.run('INSERT INTO brief_pin (brief, procedure_id, version, main) VALUES ?', [
      rows.map((i) => [id('00', i), procedure_id, version, 1]),
    ]);
    for (const [n, step] of steps.slice(1, 1 + STEPS).entries())
      await db.run('INSERT INTO step_run (id, brief, path, kind, state, home_lane, attempts) VALUES ?', [
        rows.map((i) => [id(`${'0123456789abcdef'[n]}r`, i), id('00', i), step.id, step.kind, 'done', '-:5', 1]),
      ]);
  }
  await db.close();
}

export const desk = (tell) =>
  onScreens(async ({ all, call, blog, source, page }) => {
    const document = thirty(source, blog);
    const { id: pipeline } = await call('POST', '/pipelines', { name: 'Thirty steps', document });
    await fill(all.mariadb.url, pipeline, document.steps);
    const first = [];
    for (let i = 0; i < 5; i++) {
      await page.goto(`${all.address}/pipelines/${pipeline}`);
      await page.getByText('30 steps.').waitFor();
      await page.waitForTimeout(700);
      first.push(
        await page.evaluate(async () => {
          const tab = [...document.querySelectorAll('button')].find((one) => one.textContent === 'Briefs');
          const from = performance.now();
          tab.click();
          while (!document.querySelector('[aria-label="Briefs against steps"] li'))
            await new Promise((resolve) => requestAnimationFrame(resolve));
          return performance.now() - from;
        }),
      );
    }
    tell(`first rows of 10,000 briefs: ${first.map((ms) => ms.toFixed(0)).join(', ')} ms`);
    const scrolling = await longest(page, async () => {
      await page.mouse.move(600, 500);
      for (let i = 0; i < 160; i++) {
        await page.mouse.wheel(0, i % 12 === 0 ? 9_000 : 700);
        await page.waitForTimeout(16);
      }
    });
    tell(`longest task scrolling them: ${scrolling.toFixed(0)} ms`);
    await page.goto(`${all.address}/pipelines/${pipeline}`);
    await page.getByRole('button', { name: 'write, own instruction' }).first().click();
    const editor = page.getByRole('textbox', { name: 'Own instruction' });
    await editor.click();
    await page.waitForTimeout(500);
    const strokes = await strokesOf(page, async () => {
      await page.keyboard.type('Name the jar and the salt in the first line. ', { delay: 60 });
      await page.waitForTimeout(300);
    });
    tell(
      `a key in an instruction to its paint: median ${median(strokes).toFixed(0)}, at most ${Math.max(...strokes).toFixed(0)} ms`,
    );
    return {
      'web.briefsFirstRowsMs': median(first),
      'web.briefsLongestTaskMs': scrolling,
      'web.wordToPaintMs': median(strokes),
    };
  });
