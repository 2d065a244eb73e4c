// How long twenty thousand phrases take to be grouped, in a worker of the page, and whether the page goes on meanwhile.
import { longest, onScreens } from './screens.mjs';

const PHRASES = 20_000;
const AT_ONCE = 5_000;

/** Ways of asking, each put to every thing. */
const WAYS =
  'how to make X|X recipe|easy X|best X|X for beginners|how long does X keep|X shelf life|how much salt for X|X salt ratio|is X safe|X gone soft|why is my X cloudy|X without salt|vegan X|X near me|buy X online|X price|X temperature|how warm for X|X in winter|mould on X|white film on X|X too sour|how to store X|can you freeze X|X jar size|X weight|X lid|cleaning X crock|X or pickles|X benefits|X with garlic|X with ginger|quick X|traditional X|X step by step|what to cook with X|leftover X|X substitute|X for a family'.split(
    '|',
  );
const SYLLABLES = 'ba ka lo mi tu re sa no fi du'.split(' ');

function phrases() {
  const noun = (i) => `${[1, 10, 100].map((ten) => SYLLABLES[Math.floor(i / ten) % 10]).join('')}n`;
  const out = [];
  for (let i = 0; out.length < PHRASES; i++)
    for (const way of WAYS) out.push(way.replace('X', `${noun(i * 7)} ${noun(i * 3 + 500)}`));
  return out.slice(0, PHRASES);
}

export const grouping = (tell) =>
  onScreens(async ({ all, call, source, page }) => {
    const given = phrases();
    for (let at = 0; at < given.length; at += AT_ONCE)
      await call('POST', `/sources/${source}/keywords`, { paste: given.slice(at, at + AT_ONCE).join('\n') });
    await page.goto(`${all.address}/intake/${source}`);
    await page.getByText(/keyword list, [\d,]+ phrases/).waitFor();
    await page.waitForTimeout(1_500);
    let ms = 0;
    const blocked = await longest(page, async () => {
      await page.getByRole('button', { name: /^Group them/ }).click();
      const from = performance.now();
      await page.getByRole('radio', { name: /^closely/ }).click();
      await page.getByText(/phrases in [\d,]+ groups/).waitFor();
      ms = performance.now() - from;
      await page.waitForTimeout(300);
    });
    tell(`grouped ${(await page.getByText(/phrases in/).textContent())?.trim()}: ${ms.toFixed(0)} ms`);
    tell(`longest task of the page meanwhile: ${blocked.toFixed(0)} ms`);
    return { 'intake.group20kMs': ms, 'intake.group20kLongestTaskMs': blocked };
  });
