import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { after, key, signIn, signs, usualPress } from './lift.mjs';
import { startServer } from './server.mjs';

const PORT = 5217;
let server;

test.use({ baseURL: `http://localhost:${PORT}` });
test.beforeAll(async ({}, info) => {
  info.setTimeout(300_000);
  const folder = mkdtempSync(join(tmpdir(), 'anakyklos-help-'));
  server = await startServer(['demo', '--data', folder, '--port', `${PORT}`, '--speed', '240'], PORT);
});
test.afterAll(() => server.kill());

test('? leads to help of the page, and from there to how the card thinks', async ({ page }) => {
  await signIn(page);
  await key(page, '?');
  await expect(page.locator('main h1')).toHaveText('The yard');
  await page.getByRole('link', { name: 'How the card thinks' }).click();
  await expect(page.locator('.thinks-rings .card-ring')).toHaveCount(3);
  await page.goto('/stores');
  await page.getByRole('link', { name: 'Help: The stores' }).click();
  await expect(page.locator('main h1')).toHaveText('The stores');
});

test('a first card is worked from the yard to its record by the usual press, with a word beside what is new', async ({ page }) => {
  await signIn(page);
  await after(page, () => page.getByRole('button', { name: 'A first card in two minutes' }).click());
  await expect(page.locator('.guide')).toContainText('held against the list');
  const told = new Set();
  for (let press = 0; press < 30 && /lift/.test(page.url()); press++) {
    for (const words of await page.locator('.guide').allInnerTexts()) told.add(words);
    await usualPress(page, press);
  }
  await expect(page).toHaveURL(/handover/);
  expect(told.size).toBeGreaterThan(5);
  await expect(page.locator('.guide')).toContainText('PIN');
  await signs(page);
  await expect(page.locator('.guide')).toContainText('That was a whole card');
});
