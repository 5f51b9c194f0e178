import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { key, makesVoid, openCard, openWith, signIn, tapStick, workUpTo } from './lift.mjs';
import { startServer } from './server.mjs';

// A workshop of its own, so that its cards are nobody else's trouble.
const PORT = 5198;
let server;
test.beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'anakyklos-levels-'));
  server = await startServer(['demo', '--data', folder, '--port', String(PORT), '--speed', '240'], PORT);
});
test.afterAll(() => server.kill());
test.use({ baseURL: `http://localhost:${PORT}` });

const press = (page) => () => key(page, 'Enter');
const says = (page) => page.locator('.value-beside');

async function type(page, label, text) {
  await page.getByLabel(label).fill(text);
  await page.getByLabel(label).press('Enter');
}

test('a rod is read in millimetres or inches, tapped or typed', async ({ page }) => {
  await signIn(page);
  await makesVoid(page, 1056, 'Another card first');
  const card = await openWith(page, 'HD-16', '52200', ['gearbox-oil']);
  await workUpTo(page, 'Read the rod', press(page));
  const depth = 'How far below the filler does it end?';
  await key(page, 'Enter');
  await expect(page.locator('#problem-depth')).toContainText('Type a length, such as 5 mm.');
  await type(page, depth, '300 mm');
  await expect(page.locator('#problem-depth')).toContainText('They are at 74 mm and 64 mm.');
  await expect(page.getByLabel(depth)).toHaveValue('300 mm');
  await tapStick(page, 0.5, (x, y) => page.mouse.click(x, y));
  await expect(page.getByLabel(depth)).toHaveValue('69 mm');
  await page.getByRole('slider').press('ArrowDown');
  await expect(page.getByLabel(depth)).toHaveValue('70 mm');
  await type(page, depth, '74 mm');
  await expect(says(page)).toContainText('brings it to 69 mm');
  // Too little for the scale of a can: a cup, in its own unit.
  await expect(page.locator('.value')).toContainText(/50\s*mL/);
  await expect(page.getByRole('img', { name: 'Fill the cup to 50 mL' })).toBeVisible();
  await key(page, 'Enter');
  await expect(page.locator('.waiting-main')).toHaveCount(0, { timeout: 20_000 });
  await page.getByRole('button', { name: '67 mm' }).click();
  await expect(says(page)).toContainText('brings it to 64 mm');
  await key(page, 'Enter');
  await expect(page.locator('.waiting-main')).toHaveCount(0, { timeout: 20_000 });
  await type(page, depth, '2.53 in');
  await expect(page.locator('.last-press')).toContainText('Rod: 2.53 in below the filler');
  await page.goto(`/record/${card}`);
  await expect(page.getByRole('row', { name: /Gearbox oil/ })).toContainText('2.53 in deep, at the top mark');
});

test('bottle after bottle goes in until it runs over', async ({ page }) => {
  await signIn(page);
  await openWith(page, 'HD-11', '88500', ['front-axle-oil']);
  await workUpTo(page, 'Fill the front axle', press(page));
  await key(page, 'o');
  await type(page, 'How much went in?', '1 L');
  await expect(says(page)).toContainText('is left by the book');
  await key(page, 'r');
  await expect(page.locator('.question')).toContainText('It runs over at 1.00 L, but the book says 1.50 L.');
  await key(page, 'Enter');
  await expect(page.locator('.question')).toHaveCount(0);
  await key(page, 'Enter');
  await expect(says(page)).toContainText('go on until it runs out of the hole');
  await expect(page.locator('.value-figure')).toHaveText('1.50');
  await page.getByRole('button', { name: 'It runs over' }).click();
  await expect(page.locator('.last-press')).toContainText('It ran over');
});

test('what was used since the last filling is told before the drain, on the record and on the next card', async ({ page }) => {
  await signIn(page);
  await page.goto('/vehicle/HD-07');
  await expect(page.locator('.use')).toContainText('more each time');
  await expect(page.locator('.use-columns')).toHaveAttribute('aria-label', /0\.08 L up to 138.050 km$/);
  await expect(page.locator('.use-balance')).toHaveAttribute('aria-label', 'book 6.40 L, was in 6.05 L, found 5.21 L, went in 6.30 L');
  const card = await openCard(page, '148300');
  await workUpTo(page, 'Pull the dipstick', press(page));
  await key(page, 'r');
  const dip = async (text) => {
    await type(page, 'Or between them', text);
  };
  await dip('half');
  await expect(page.locator('#problem-level')).toContainText('such as 3/4');
  await dip('-3/4');
  await expect(page.locator('.question')).toContainText('It used 2.03 L in 10250 km: more than 0.15 L in 1,000 km.');
  await key(page, 'Enter');
  await dip('0.05');
  await expect(page.locator('main h1')).toContainText('Pull the dipstick');
  await expect(page.locator('.facts')).toContainText('at the bottom mark; 0.91 L used in 10\u202f250 km: 0.09 L in 1000 km');
  await key(page, 'u');
  await expect(page.locator('.facts')).not.toContainText('used in');
  await key(page, 'r');
  await page.getByRole('button', { name: '1/4', exact: true }).click();
  await expect(page.locator('.facts')).toContainText('one quarter; 0.63 L used');
  await workUpTo(page, 'Raise it', press(page));
  await page.goto(`/record/${card}`);
  await expect(page.getByRole('row', { name: /Engine oil/ })).toContainText('Found one quarter; 0.63 L used in');
});

test('two cans, another first; a level that does not go with what went in is asked about', async ({ page }) => {
  await signIn(page);
  const card = await openWith(page, 'HD-15', '24700', ['engine-oil-and-filter', 'primary-oil']);
  await workUpTo(page, 'Pour the first of the engine oil', press(page));
  await expect(page.locator('.value')).toContainText(/2\.30\s*L/);
  await expect(page.locator('.lift-right')).toContainText('First can 10 whole (1.60 L), then this one.');
  await expect(page.getByRole('img', { name: '4.00 L in it, stop at 3.30 L' })).toBeVisible();
  await page.getByRole('link', { name: 'Another amount' }).click();
  const cans = page.getByLabel('Out of').locator('option');
  await expect(cans).toHaveText([/^Can 10, 1\.60 L left, batch M388/, /^Can 9, 4\.00 L left, still/]);
  await page.getByLabel('Out of').selectOption('9');
  await type(page, 'How much went in?', '2.3 L');
  await expect(page.locator('.last-press')).toContainText('Poured 2.30 L');
  await page.goto('/stores');
  await expect(page.getByRole('img', { name: /^no\. 9, 1\.70 L/ })).toBeVisible();
  await expect(page.getByRole('img', { name: /^no\. 10, 1\.60 L/ })).toBeVisible();
  await page.goto(`/record/${card}`);
  await expect(page.getByRole('row', { name: /Engine oil/ }).first()).toContainText('Out of container 9, batch M401 (2.30 L)');
  await page.goto(`/lift/${card}`);
  await workUpTo(page, 'Pour the first of the primary', press(page));
  await key(page, 'o');
  await type(page, 'How much went in?', '0.3 L');
  await workUpTo(page, 'Read the primary', press(page));
  await tapStick(page, 1, (x, y) => page.mouse.click(x, y));
  await key(page, 'Enter');
  await expect(page.locator('.question')).toContainText('At the top mark would be 0.95 L, but');
  await key(page, 'Enter');
  await page.getByRole('button', { name: 'below', exact: true }).click();
  await expect(page.locator('.last-press')).toContainText('Lower run of the primary chain: below');
});
