import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { gate } from './gate.mjs';
import { key, openWith, signIn, usualPress, workUpTo } from './lift.mjs';
import { startServer } from './server.mjs';

const PORT = 5200;
const WORKSHOP = 5220;
let server;
let line;
let card = 0;
test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'anakyklos-inspect-'));
  server = await startServer(['demo', '--data', folder, '--port', String(WORKSHOP), '--speed', '240'], WORKSHOP);
  line = await gate(PORT, WORKSHOP);
});
test.afterAll(async () => {
  await line.close();
  await server.kill();
});
test.use({ baseURL: `http://localhost:${PORT}` });

const point = (page) => page.locator('.point-name');

test('points are answered by key, one found otherwise is marked, and what is measured is set until it passes', async ({ page }) => {
  await signIn(page);
  card = await openWith(page, 'HD-09', '2900', ['first-check']);
  await workUpTo(page, 'Levels', () => usualPress(page));
  await expect(point(page)).toHaveText('Engine coolant');
  await key(page, '2');
  await expect(point(page)).toHaveText('Inverter coolant');
  await expect(page.locator('.points li.off')).toContainText('low, topped up');
  await key(page, 'u');
  await expect(point(page)).toHaveText('Engine coolant');
  await key(page, 'a');
  await workUpTo(page, 'Count the clicks', () => usualPress(page));
  await key(page, 'Enter');
  await expect(page.getByRole('alert').first()).toContainText('Count the clicks');
  await page.locator('#value').fill('nine');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').first()).toContainText('“nine” is no whole number');
  await expect(page.locator('#value')).toHaveValue('nine');
  // What is typed while the answer is on its way is not lost.
  await page.locator('#value').fill('ten');
  await page.route('**/lift/**measured', async (route) => {
    await page.locator('#value').fill('9');
    await route.continue();
  });
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').first()).toContainText('“ten” is no whole number');
  await expect(page.locator('#value')).toHaveValue('9');
  await page.unrouteAll();
  await page.keyboard.press('Enter');
  await expect(page.locator('.too-little')).toContainText('9 clicks is too much');
  await page.reload();
  await expect(page.locator('.points')).toContainText('9 clicks');
  // What the card says to a number that was pressed without a line comes by itself when the line is back.
  await page.locator('#value').fill('10');
  line.set('cut');
  await page.keyboard.press('Enter');
  await expect(page.locator('.notice')).toContainText('Kept here');
  line.set('up');
  await expect(page.locator('.too-little')).toContainText('10 clicks is too much', { timeout: 20_000 });
  await page.locator('#value').fill('6');
  await page.keyboard.press('Enter');
  await expect(page.locator('main h1')).not.toContainText('clicks');
});

test('pressures are typed with script off on a phone, in any unit, and another wheel can be taken first', async ({ browser }) => {
  const context = await browser.newContext({
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 390, height: 844 },
    javaScriptEnabled: false,
  });
  const page = await context.newPage();
  await signIn(page);
  await page.goto(`/lift/${card}?step=pressures`);
  await expect(point(page)).toHaveText('Front left');
  await page.getByRole('link', { name: 'Rear right' }).click();
  await expect(point(page)).toHaveText('Rear right');
  await page.locator('#value').fill('2.1');
  await page.getByRole('button', { name: /That is the reading/ }).click();
  await page.goto(`/lift/${card}?step=pressures&point=rear-right`);
  await expect(page.locator('.too-little')).toContainText('2.1 bar is too little');
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.locator('#value').fill('35 psi');
  await page.getByRole('button', { name: /That is the reading/ }).click();
  await page.goto(`/lift/${card}?step=pressures`);
  await expect(page.locator('.points')).toContainText('35 psi, found 2.1 bar');
  await page.locator('#value').fill('240');
  await page.getByRole('button', { name: /That is the reading/ }).click();
  await expect(page.getByRole('alert').first()).toContainText('but 240 kPa would');
  await context.close();
});
