// How long the page where an article is made right makes people wait: opened from the list, typed in, and gone through by keys.
import { median } from './ground.mjs';
import { longest, onScreens, strokesOf } from './screens.mjs';

const HELD = 16;
const WORDS = 1_500;
const LONG_WORDS = 20_000;
const KEYS = 80;
/** The ninety-fifth of a hundred, of however many there are. */
const p95 = (times) => [...times].sort((a, b) => a - b)[Math.ceil(times.length * 0.95) - 1];

const SENTENCES = [
  'A bow is rehaired once the hair no longer takes the rosin.',
  'Loosen it after playing, so that the stick keeps its curve.',
  'In a dry winter the hair gets shorter by some millimetres.',
  'The tip is of bone, and it is glued with hide glue at 60 degrees.',
  'A player of eight hours a week has it done once a year.',
];

/** A text of so many words in paragraphs of five sentences, a heading before every sixth. */
function textOf(words, n) {
  const out = [];
  for (let said = 0, i = n; said < words; i++) {
    if (i % 6 === n % 6) out.push(`## Part ${i}`);
    const paragraph = SENTENCES.map((_, k) => SENTENCES[(i + k * 2) % SENTENCES.length]).join(' ');
    out.push(`${paragraph} Number ${i}.`);
    said += paragraph.split(' ').length + 2;
  }
  return out.join('\n\n');
}

async function heldArticles(call, blog) {
  const titles = Array.from({ length: HELD }, (_, n) => `Rehairing a bow, part ${n + 1}`);
  for (const [n, title] of titles.entries()) await call('POST', '/articles', { blog, title, text: textOf(WORDS, n) });
  await call('POST', '/articles', { blog, title: 'All about bows', text: textOf(LONG_WORDS, 0) });
  for (;;) {
    const { articles } = await call('GET', '/articles?limit=50&standing=held');
    if (articles.length === HELD + 1 && articles.every(({ outOfRange }) => outOfRange !== null)) return articles;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
}

/** From something done on the page until its first heading reads otherwise and what it stands over is drawn, in milliseconds. */
const untilDrawn = (page, does) =>
  page.evaluate(async (act) => {
    const heading = () => document.querySelector('.page h1, h1')?.textContent ?? '';
    const before = heading();
    const from = performance.now();
    if (act.key) document.activeElement.dispatchEvent(new KeyboardEvent('keydown', { key: act.key, bubbles: true }));
    else [...document.querySelectorAll('a')].find((one) => one.textContent === act.link).click();
    while (heading() === before || !document.querySelector('.page p')?.textContent)
      await new Promise((resolve) => requestAnimationFrame(resolve));
    return performance.now() - from;
  }, does);

export const proofPage = (tell) =>
  onScreens(async ({ all, call, blog, page }) => {
    const held = await heldArticles(call, blog);
    const long = held.find(({ title }) => title === 'All about bows');
    const opened = [];
    await page.goto(`${all.address}/articles`);
    for (const { title } of held.filter((one) => one !== long).slice(0, 11)) {
      const line = page.getByRole('link', { name: title, exact: true });
      await line.waitFor();
      await page.waitForTimeout(500);
      // Whoever presses a line has come to it before.
      await line.hover();
      await page.waitForTimeout(250);
      opened.push(await untilDrawn(page, { link: title }));
      await page.goBack();
    }
    tell(`from a press in the list to the article: ${opened.map((ms) => ms.toFixed(0)).join(', ')} ms`);

    await page.goto(`${all.address}/articles`);
    await page.getByRole('link', { name: /^Look over the/ }).click();
    await page.getByRole('region', { name: 'Your word on it' }).waitFor();
    const next = [];
    for (let i = 0; i < HELD - 1; i++) {
      await page.waitForTimeout(700);
      next.push(await untilDrawn(page, { key: 'p' }));
    }
    tell(`from the key that passes to the next: ${next.map((ms) => ms.toFixed(0)).join(', ')} ms`);

    await page.goto(`${all.address}/articles/${long.id}`);
    await page.getByRole('heading', { level: 1 }).first().waitFor();
    await page.keyboard.press('e');
    const editor = page.getByRole('textbox', { name: 'The text of the article' });
    await editor.waitFor();
    await page.waitForTimeout(3_000);
    await page.keyboard.press('Control+Home');
    let task = 0;
    const strokes = await strokesOf(page, async () => {
      task = await longest(page, async () => {
        const words = 'Rosin is melted resin, and it is sold as a cake in a cloth. '.repeat(2);
        await page.keyboard.type(words.slice(0, KEYS), { delay: 60 });
        await page.waitForTimeout(1_500);
      });
    });
    tell(
      `a key in ${LONG_WORDS.toLocaleString('en-GB')} words to its paint: median ${median(strokes).toFixed(0)}, 95 of 100 within ${p95(strokes).toFixed(0)}, at most ${Math.max(...strokes).toFixed(0)} ms; longest task ${task.toFixed(0)} ms`,
    );
    return {
      'proof.openMs': median(opened),
      'proof.nextMs': p95(next),
      'proof.typeToPaintMs': p95(strokes),
      'proof.longestTaskMs': task,
    };
  });
