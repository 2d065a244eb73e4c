import { stepKinds as k } from '@grivo/core';
import { expect, type Page, test } from '@playwright/test';
import { faultsOf } from './ground/access.ts';
import { address, asking, signedIn } from './ground/desk.ts';

const base = () => address('WEEK');
const ask = asking(base);

test.beforeEach(async ({ page }) => signedIn(page, base()));

/** Fifty subjects of a trade of their own, two at a time, by a procedure that is going to fail. */
async function fiftyFailing(page: Page): Promise<string> {
  const { id: source } = await ask<{ id: string }>(page, 'post', '/sources', {
    name: 'Asked at the bench',
    settings: { kind: 'requests' },
  });
  for (let n = 1; n <= 50; n++)
    await ask(page, 'post', `/sources/${source}/requests`, {
      subject: `Peg ${String(n).padStart(2, '0')} of a violin`,
      notes: 'Pegs slip when the air is dry.',
    });
  const { id } = await ask<{ id: string }>(page, 'post', '/pipelines', {
    name: 'Pegs, one by one',
    document: {
      grivo: 1,
      language: 'en',
      steps: [
        { ...k.take.fresh('s1'), sources: [source], most: null, atOnce: 2 },
        { ...k.wait.fresh('s2'), minutes: 600 },
        { ...k['work out'].fresh('s3'), as: 'turns', expression: '12 / 0' },
        { ...k['lay out'].fresh('s4'), body: '{{ text }}', title: '{{ subject }}' },
      ],
    },
  });
  await ask(page, 'post', `/pipelines/${id}/take`, {});
  return id;
}

test('fifty wait; a correction reaches those that wait and, when asked, those begun; all are stopped, let go on, one is begun now', async ({
  page,
}) => {
  test.setTimeout(180_000);
  const id = await fiftyFailing(page);
  await page.goto(`${base()}/pipelines/${id}?show=briefs`);
  const rows = page.getByRole('group', { name: 'Briefs against steps' }).getByRole('listitem');
  await expect(page.getByRole('button', { name: /^in work 2/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^waiting 48/ })).toBeVisible();
  await expect(rows.filter({ hasText: 'waits for others to end' }).first()).toContainText('before it');

  // The correction.
  await page.goto(`${base()}/pipelines/${id}`);
  await page.getByRole('button', { name: /^work out, expression/ }).click();
  await page.getByRole('textbox').last().fill('12 / 2');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Save as version 2' }).click();
  await expect(
    page.getByText(/48 waiting briefs begin with it\. 2 briefs already begun go by an older version\./),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Bring them to the newest' }).click();
  await expect(page.getByText('2 briefs of those begun go on by it now.')).toBeVisible();
  await page.goto(`${base()}/pipelines/${id}?show=briefs`);
  await expect(page.getByRole('button', { name: /^in work 2/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^waiting 48/ })).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);

  // All stopped: none begins, nothing is lost.
  await page.getByRole('button', { name: 'Stop all 50' }).click();
  await expect(page.getByText('50 briefs stopped.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^stopped 50/ })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: /^stopped 50/ })).toBeVisible();
  await page.getByRole('button', { name: 'Let 50 go on' }).click();
  await expect(page.getByText('50 briefs going on.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^stopped 0/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^in work 2/ })).toBeVisible();

  // One begins before its turn, beside the two that may.
  await page.getByRole('textbox', { name: 'Find a subject' }).fill('Peg 40');
  await expect(rows).toHaveCount(1);
  await page.getByRole('checkbox', { name: 'Peg 40 of a violin' }).click();
  await page.getByRole('button', { name: 'Begin now' }).click();
  await expect(page.getByText('1 brief beginning now.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^in work 3/ })).toBeVisible();
  await expect(rows.first()).not.toContainText('waits for others');
});
