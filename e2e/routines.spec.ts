import { expect, test } from '@playwright/test';
import { address, asking, ownCopy, signedIn } from './ground/desk.ts';

const base = () => address('WEEK');
const ask = asking(base);

interface Routine {
  id: string;
  name: string;
  rev: number;
  version: number;
  document: { inputs: { name: string; otherwise: string | null }[]; outputs: string[]; steps: { kind: string }[] };
  usedBy: { name: string }[];
}

test.beforeEach(async ({ page }) => signedIn(page, base()));

test('a routine is made, told what it is given and gives back, used by a pipeline, and two people do not overwrite it', async ({
  page,
}) => {
  await page.goto(`${base()}/pipelines`);
  await page.getByRole('button', { name: 'Make a routine' }).click();
  await page.getByLabel('Its name').fill('What readers ask');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page).toHaveURL(/\/pipelines\/routines\/\w{20}/);
  await page.getByRole('button', { name: /^What it is given/ }).click();
  await page.getByRole('button', { name: 'One more' }).click();
  await page.getByLabel('Name', { exact: true }).last().fill('For whom');
  await expect(page.getByText('A name begins with a small letter')).toBeVisible();
  await page.getByLabel('Name', { exact: true }).last().fill('audience');
  await page.getByLabel('Asked for as').last().fill('For whom it is written');
  await page.getByLabel('Otherwise').last().fill('beginners');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Add a step', exact: true }).click();
  await page.getByRole('combobox', { name: 'Which step?' }).fill('answer');
  await page.getByRole('option').first().click();
  // What nothing gives yet is said, and goes away with the step that gives it.
  await page.getByRole('button', { name: /^What it gives back/ }).click();
  await page.getByRole('checkbox', { name: 'passages' }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /Save as version 2/ }).click();
  await expect(page.getByText('Saved as version 2.')).toBeVisible();
  const id = /routines\/(\w{20})/.exec(page.url())![1]!;
  const read = async () =>
    (await ask<{ routines: Routine[] }>(page, 'get', '/routines')).routines.find((one) => one.id === id)!;
  const { document, rev } = await read();
  expect(document.inputs).toMatchObject([
    { name: 'subject', otherwise: null },
    { name: 'audience', otherwise: 'beginners' },
  ]);
  expect(document.outputs).toEqual(['passages']);
  expect(document.steps.map(({ kind }) => kind)).toEqual(['look up', 'answer']);

  // Somebody else takes the first step out meanwhile; what is typed here is not lost.
  await page.getByRole('button', { name: 'Line 2, answer' }).focus();
  await page.keyboard.press('d');
  await expect(page.getByRole('button', { name: /^Line \d, answer/ })).toHaveCount(2);
  const theirs = { ...document, outputs: [], steps: document.steps.slice(1) };
  const put = await page.request.put(`${base()}/api/routines/${id}`, {
    data: { name: 'What readers ask', document: theirs },
    headers: { 'if-match': `"${rev}"` },
  });
  expect(put.status()).toBe(200);
  await page.getByRole('button', { name: /^Save as version/ }).click();
  await expect(page.getByRole('alert').first()).toContainText('Somebody else has changed this routine');
  await page.getByRole('button', { name: 'keep mine and save again' }).click();
  await page.getByRole('button', { name: /^Save as version/ }).click();
  await expect(page.getByText('Saved as version 4.')).toBeVisible();
  expect((await read()).document.steps.map(({ kind }) => kind)).toEqual(['look up', 'answer', 'answer']);

  // A pipeline uses it, and the list says so.
  await ownCopy(page, base(), 'What readers asked', 'With a routine');
  await page.getByRole('button', { name: 'Line 2, look up' }).waitFor();
  await page.getByRole('button', { name: 'Add a step', exact: true }).click();
  await page.getByRole('combobox', { name: 'Which step?' }).fill('use');
  await page.getByRole('option').first().click();
  await page.getByRole('button', { name: /Save as version/ }).click();
  await expect(page.getByText(/Saved as version/)).toBeVisible();
  await page.goto(`${base()}/pipelines`);
  const row = page.getByRole('listitem').filter({ hasText: 'What readers ask' });
  await expect(row).toContainText('subject, audience → passages');
  await expect(row).toContainText('used by With a routine');
});

test('an article is saved as Word and as PDF from its page', async ({ page }) => {
  const { articles } = await ask<{ articles: { id: string; title: string }[] }>(page, 'get', '/articles?standing=out');
  await page.goto(`${base()}/articles/${articles[0]!.id}`);
  for (const [form, ending, begins] of [
    ['Word', 'docx', 'PK'],
    ['PDF', 'pdf', '%P'],
  ] as const) {
    const saving = page.waitForEvent('download');
    await page.getByRole('button', { name: `Save as ${form}` }).click();
    const saved = await saving;
    expect(saved.suggestedFilename()).toMatch(new RegExp(`^[\\p{L}\\p{N}-]+\\.${ending}$`, 'u'));
    const parts: Buffer[] = [];
    for await (const part of await saved.createReadStream()) parts.push(part as Buffer);
    expect(Buffer.concat(parts).subarray(0, 2).toString()).toBe(begins);
  }
});
