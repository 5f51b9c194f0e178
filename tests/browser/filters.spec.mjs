import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { key, openWith, signIn, usualPress, workUpTo } from './lift.mjs';
import { startServer } from './server.mjs';

const PORT = 5201;
let server;
let card = 0;
test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'anakyklos-filters-'));
  server = await startServer(['demo', '--data', folder, '--port', String(PORT), '--speed', '240'], PORT);
});
test.afterAll(() => server.kill());
test.use({ baseURL: `http://localhost:${PORT}` });

const phone = (browser, script = true) =>
  browser.newContext({ baseURL: `http://localhost:${PORT}`, viewport: { width: 390, height: 844 }, javaScriptEnabled: script });

test('a filter goes in the right way round, by key', async ({ page }) => {
  await signIn(page);
  card = await openWith(page, 'HD-07', '148300', ['engine-oil-and-filter', 'fuel-filter', 'air-filter']);
  await workUpTo(page, 'New air filter', () => usualPress(page));
  await expect(page.locator('.point-name')).toHaveText('Which side does its seal lie on?');
  await expect(page.locator('.answer svg')).toHaveCount(2);
  // Nothing tells beforehand which of them is wrong.
  await expect(page.locator('.answer').nth(1)).not.toContainText('Turn it over');
  await key(page, '2');
  await expect(page.locator('.refusal')).toContainText('Turn it over: air would pass it unfiltered.');
  await expect(page.locator('.answer')).toHaveCount(2);
  await page.reload();
  await expect(page.locator('main h1')).toContainText('New air filter');
  await key(page, '1');
  await expect(page.locator('main h1')).not.toContainText('New air filter');
});

test('crossed lines are changed over, on a phone without script', async ({ browser }) => {
  const context = await phone(browser, false);
  const page = await context.newPage();
  await signIn(page);
  await page.goto(`/lift/${card}`);
  for (let n = 0; n < 60 && !(await page.locator('main h1').innerText()).includes('Look at the fuel lines'); n++) await usualPress(page);
  await page.getByRole('button', { name: /^Crossed/ }).click();
  await expect(page.locator('.too-little')).toContainText('Crossed: that is not right. Change them over');
  await expect(page.getByRole('button', { name: 'It cannot be put right' })).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.locator('.answers').getByRole('button', { name: /^White on IN/ }).click();
  await expect(page.locator('.points')).toContainText('white on IN, green on OUT, found crossed');
  await context.close();
});

test('an engine that does not fire rests its starter, and is primed again after three tries', async ({ page }) => {
  await signIn(page);
  await page.goto(`/lift/${card}`);
  await workUpTo(page, 'Start it', () => usualPress(page));
  await expect(page.locator('.facts')).toContainText('No longer than 10 s at a time, then 1 min of rest');
  for (let tries = 1; tries <= 3; tries++) {
    await expect(page.locator('main h1')).toContainText('Start it');
    await page.getByRole('button', { name: /It does not fire/ }).click();
    if (tries < 3) await expect(page.locator('.facts')).toContainText(`${tries === 2 ? 'one try' : '2 tries'} left`);
    if (tries < 3) await expect.poll(async () => { await page.reload(); return page.locator('.waiting-main').count(); }).toBe(0);
  }
  // Something else may be done while it cools, but it is not started before it is primed again.
  await expect(page.locator('main h1')).not.toContainText('Start it');
  await workUpTo(page, 'Key to position 2', () => usualPress(page));
  await expect(page.locator('.value, .figure, .lift-step').first()).toContainText('of 5 turns of the key');
  await workUpTo(page, 'Start it', () => usualPress(page));
  await workUpTo(page, 'Switch the engine off', () => usualPress(page));
});

test('whoever takes the card over reads how it stands, by key and on a phone', async ({ browser }) => {
  const context = await phone(browser);
  const page = await context.newPage();
  await signIn(page, 'Una B.');
  await page.goto(`/lift/${card}`);
  await page.getByRole('link', { name: 'See how it stands' }).click();
  await expect(page.locator('.stands-four')).toContainText('It was cranked and did not fire');
  await expect(page.locator('.stands-four')).toContainText('Engine running');
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.getByLabel('Word for whoever goes on').fill('Smells of fuel at the lid: look twice');
  await page.getByRole('button', { name: 'Leave it here' }).click();
  await expect(page.locator('.stands-word')).toContainText('Smells of fuel at the lid: look twice');
  await key(page, 'Enter');
  await expect(page).toHaveURL(new RegExp(`/lift/${card}`));
  await key(page, 'z');
  await expect(page).toHaveURL(new RegExp(`/stands/${card}`));
  await context.close();
});

test('a list from the maker\'s book is typed with script off and worked', async ({ browser }) => {
  const context = await phone(browser, false);
  const page = await context.newPage();
  await signIn(page);
  await page.goto('/library/lumen-ardent');
  await page.getByRole('link', { name: 'Make a list from the maker\'s book' }).click();
  await page.getByLabel('What is inspected, a line each').fill('Hoses under the bonnet\nHand brake: at most 7 cliks');
  await page.getByLabel('Name', { exact: true }).fill('half-year look');
  await page.getByLabel('From which book').fill('Handbook');
  await page.getByLabel('Page or place in it').fill('p. 88');
  await page.getByLabel('Or every so many months').fill('6');
  await page.getByRole('button', { name: 'Keep it with the model' }).click();
  await expect(page.locator('#problem-points')).toContainText('Line 2: “at most 7 cliks” does not say what passes');
  await expect(page.getByLabel('What is inspected, a line each')).toHaveValue(/cliks/);
  await page.getByLabel('What is inspected, a line each').fill('Hoses under the bonnet\nHand brake: at most 7 clicks');
  await page.getByRole('button', { name: 'Keep it with the model' }).click();
  await expect(page.locator('.own-lists')).toContainText('Half-year look');
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await context.close();
  const desk = await browser.newContext({ baseURL: `http://localhost:${PORT}` });
  const lift = await desk.newPage();
  await signIn(lift);
  await openWith(lift, 'HD-09', '2900', ['own-1']);
  await expect(lift.locator('.point-name')).toHaveText('Hoses under the bonnet');
  await key(lift, '2');
  await expect(lift.locator('.point-found')).toContainText('Hoses under the bonnet: not as new');
  await lift.locator('#value').fill('6');
  await lift.keyboard.press('Enter');
  await expect(lift.locator('main h1')).not.toContainText('Half-year');
  await desk.close();
});
