import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { spokenSamples, wavOf } from '@grivo/standins';
import { expect, test } from '@playwright/test';
import { address, asking, pipelineForIt, signedIn } from './ground/desk.ts';

const base = () => address('WEEK');
const ask = asking(base);

/** What is said into the microphone, in the speech the stand-in hears. */
const SAID =
  'Today I packed a crock with 6 kilograms of cabbage. I used 132 grams of salt, which is 2.2 per cent. After an hour there was enough brine to cover the leaves. The room has 18 degrees, so I will taste it after 21 days. If it is still sweet then, I give it one more week. The last crock stood beside the oven at 24 degrees and was sour after 10 days, but it went soft. So this one stays by the door, where it is cool. I write the date and the weight on a strip of tape and stick it on the lid. Next week I skim it and fill the moat with 120 millilitres of water. The neighbours get the first two jars, because they lent me the slicer.';

/** A second of quiet first: the microphone is open before anybody listens. */
const SOUND = join(mkdtempSync(join(tmpdir(), 'grivo-said-')), 'said.wav');
const spoken = spokenSamples(SAID);
const samples = new Float32Array(8_000 + spoken.length + 8_000);
samples.set(spoken, 8_000);
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
  test.setTimeout(120_000);
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
  const lasts = Math.ceil(samples.length / 8_000) + 1;
  await expect(page.getByText(new RegExp(`^00:${String(lasts).padStart(2, '0')}$`))).toBeVisible({ timeout: 40_000 });
  await page.getByRole('button', { name: 'Keep it' }).click();
  await page.getByRole('button', { name: 'Packing a crock' }).click();
  await expect(page.getByText(/Having it heard costs at most/)).toBeVisible();
  // A busy machine drops a piece of sound now and then: what is lost of a sentence is no reason to hold the rest.
  await pipelineForIt(page, 'From the voice', null, async () => {
    await page.getByRole('button', { name: /^hear, otherwise/ }).click();
    await page.getByRole('radio', { name: /^go on all the same/ }).click();
  });
  await page.goto(list);
  await page.getByRole('checkbox', { name: 'Packing a crock' }).click();
  await page.getByRole('checkbox', { name: 'A morning at the kiln' }).click();
  await page.getByRole('button', { name: /^Take 2 recordings/ }).click();
  await page.getByRole('link', { name: 'Watch them' }).click();
  for (const subject of ['Packing a crock', 'A morning at the kiln'])
    await expect(page.getByRole('listitem').filter({ hasText: subject }).first()).toContainText(/out$/, {
      timeout: 60_000,
    });
  await page.getByRole('listitem').filter({ hasText: 'Packing a crock' }).first().click();
  await page.getByRole('link', { name: 'Read the article' }).click();
  await expect(page.getByText(/132 grams|6 kilograms|18 degrees|24 degrees|strip of tape/).first()).toBeVisible();
});
