import { look } from './zzlook.mjs';

await look({ width: 1280, height: 1500 }, async (p, base) => {
  await p.goto(`${base}/articles`);
  await p.waitForTimeout(1200);
  await p.locator('.row a').nth(12).click();
  await p.waitForTimeout(1500);
  await p.screenshot({ path: '/tmp/s6.png', clip: { x: 640, y: 0, width: 640, height: 1500 } });
  await p.getByRole('button', { name: /Label it/ }).click();
  await p.waitForTimeout(600);
  await p.getByLabel('A new label').fill('Winter');
  await p.getByRole('button', { name: /Make it and put it on/ }).click();
  await p.waitForTimeout(1000);
  await p.screenshot({ path: '/tmp/s7.png', clip: { x: 940, y: 900, width: 340, height: 600 } });
});
await look({ width: 1024, height: 760 }, async (p, base) => {
  await p.goto(`${base}/articles`);
  await p.waitForTimeout(1200);
  await p.locator('.row [role=checkbox]').nth(2).click();
  await p.keyboard.press('a');
  await p.waitForTimeout(600);
  await p.screenshot({ path: '/tmp/s8.png' });
});
