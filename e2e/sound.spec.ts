import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { spokenSamples, wavOf } from '@grivo/standins';
import { expect, test } from '@playwright/test';
import { address, asking, pipelineForIt, signedIn, watched } from './ground/desk.ts';

const base = () => address('WEEK');
const ask = asking(base);

/** What is said into the microphone, in the speech the stand-in hears. */
const SAID =
  'Today I packed a crock with 6 kilograms of cabbage. I used 132 grams of salt, which is 2.2 per cent. After an hour there was enough brine to cover the leaves. The room has 18 degrees, so I will taste it after 21 days. If it is still sweet then, I give it one more week. The last crock stood beside the oven at 24 degrees and was sour after 10 days, but it went soft. So this one stays by the door, where it is cool. I write the date and the weight on a strip of tape and stick it on the lid. Next week I skim it and fill the moat with 120 millilitres of water. The neighbours get the first two jars, because they lent me the slicer.';

/** Two seconds of quiet first: the microphone is open before anybody listens. */
const SOUND = join(mkdtempSync(join(tmpdir(), 'grivo-said-')), 'said.wav');
const spoken = spokenSamples(SAID);
const samples = new Float32Array(16_000 + spoken.length + 8_000);
samples.set(spoken, 16_000);
writeFileSync(SOUND, wavOf(samples));

test.use({
  permissions: ['microphone'],
  launchOptions: {
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      `--use-file-for-fake-audio-capture=${SOUND}%noloop`,
    ],
  },
});

test('what is spoken into the microphone is kept, heard, and published; an episode too', async ({ page }) => {
  test.setTimeout(180_000);
  await signedIn(page, base());
  const { services } = await ask<{ services: { address: string }[] }>(page, 'get', '/services');
  const podcast = `${new URL(services[0]!.address).origin}/podcasts/over-the-crock/feed`;
  await page.goto(`${base()}/intake?new=recordings`);
  await page.getByLabel('Address of a podcast’s feed').fill(podcast);
  await page.getByLabel('Called').fill('Spoken and heard');
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page).toHaveURL(/\/intake\/\w{20}/);
  const list = page.url();
  await page.getByLabel('Speak about').fill('Packing a crock');
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  // Nothing is heard any more once all is said, however slowly a busy machine plays it.
  await expect(page.getByText('it hears you')).toBeVisible();
  await expect(page.getByText('no sound yet')).toBeVisible({ timeout: 90_000 });
  await page.getByRole('button', { name: 'Keep it' }).click();
  await page.getByRole('button', { name: 'Packing a crock' }).click();
  await expect(page.getByText(/Transcribing it costs at most/)).toBeVisible();
  await pipelineForIt(page, 'From the voice', null);
  await page.goto(list);
  await page.getByRole('checkbox', { name: 'Packing a crock' }).click();
  await page.getByRole('checkbox', { name: 'A morning at the kiln' }).click();
  await page.getByRole('button', { name: /^Take 2 recordings/ }).click();
  await watched(page);
  for (const subject of ['Packing a crock', 'A morning at the kiln'])
    await expect(page.getByRole('listitem').filter({ hasText: subject }).first()).toContainText(/out$/, {
      timeout: 60_000,
    });
  await page.getByRole('listitem').filter({ hasText: 'Packing a crock' }).first().click();
  // Every word of it was recorded and heard, however busy the machine.
  const brief = /brief=(\w{20})/.exec(page.url())![1];
  const { runs } = await ask<{ runs: { id: string; kind: string }[] }>(page, 'get', `/briefs/${brief}`);
  const hearing = runs.find(({ kind }) => kind === 'hear')!.id;
  const { run } = await ask<{ run: { gave: { spokenWords: number } } }>(page, 'get', `/runs/${hearing}`);
  expect(run.gave.spokenWords).toBe(SAID.split(' ').length);
  await page.getByRole('link', { name: 'Read the article' }).click();
  await expect(page.getByText(/132 grams|6 kilograms|18 degrees|24 degrees|strip of tape/).first()).toBeVisible();
});
