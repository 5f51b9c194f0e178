import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { PIN, after, heading, key, openWith, signIn, signs, usualPress, workUpTo } from './lift.mjs';
import { startServer } from './server.mjs';

// A workshop of its own: its cards are signed, amended, made void, and leave it as files.
const PORT = 5205;
const folder = (name) => mkdtempSync(join(tmpdir(), `anakyklos-${name}-`));
let server;
test.beforeAll(async () => {
  server = await startServer(['demo', '--data', folder('ending'), '--port', String(PORT), '--speed', '240'], PORT);
});
test.afterAll(() => server.kill());
test.use({ baseURL: `http://localhost:${PORT}` });

const phone = (browser, script) =>
  browser.newContext({ viewport: { width: 390, height: 844 }, javaScriptEnabled: script, baseURL: `http://localhost:${PORT}` });
const fits = async (page) =>
  expect(await page.evaluate(() => document.documentElement.scrollWidth), page.url()).toBeLessThanOrEqual(390);

test('a card is signed and its record amended by key, and it leaves as PDF and as a file that an empty workshop verifies', async ({
  page,
  browser,
}) => {
  await signIn(page);
  await page.goto('/handover/1057');
  // The PIN has the cursor; Enter signs.
  await page.keyboard.type(PIN);
  await after(page, () => page.keyboard.press('Enter'));
  await expect(page).toHaveURL(/record\/1057/);
  await expect(page.getByRole('link', { name: /^PDF/ })).toHaveAttribute('href', '/record/1057/record.pdf');
  const pdf = await page.request.get('/record/1057/record.pdf');
  expect([pdf.headers()['content-type'], (await pdf.body()).subarray(0, 5).toString()]).toEqual(['application/pdf', '%PDF-']);
  await page.getByText('Amend the record').focus();
  await page.keyboard.press('Enter');
  await page.getByLabel('What is put right').selectOption('odometer');
  await page.getByLabel('How it really was').fill('It was 38,460 km');
  await page.getByLabel("Signer's PIN").fill(PIN);
  await after(page, () => page.getByLabel("Signer's PIN").press('Enter'));
  await expect(page.locator('.record-head .amended')).toContainText('It was 38,460 km Iona R.');
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'JSON' }).click()]);
  const file = await download.path();
  expect(JSON.parse(readFileSync(file, 'utf8')).format).toBe('anakyklos/record/1');

  const other = await startServer(['serve', '--data', folder('other'), '--port', '5206'], 5206);
  try {
    const context = await browser.newContext({ baseURL: 'http://localhost:5206' });
    const there = await context.newPage();
    await there.goto('/');
    await there.locator('#console').fill(await other.word());
    await there.locator('#workshop').fill('Quay Garage');
    await there.locator('#name').fill('Mhairi');
    for (const pin of await there.locator('input[type=password]').all()) await pin.fill('135790');
    await after(there, () => there.locator('main button[type=submit]').click());
    await there.goto('/brought-in');
    await there.getByLabel('A record that another workshop wrote').setInputFiles(file);
    await after(there, () => there.getByRole('button', { name: 'Verify and keep it' }).click());
    await expect(there.locator('main')).toContainText('Card 1057 of Harbour Depot, signed by Iona R.');
    await expect(there.locator('main')).toContainText('verified');
    await expect(there.locator('.record-head .amended')).toContainText('It was 38,460 km');
    await context.close();
  } finally {
    await other.kill();
  }
});

test('a card opened by mistake is made void by two, on a phone and without script', async ({ browser }) => {
  const context = await phone(browser, false);
  const page = await context.newPage();
  await signIn(page);
  await page.goto('/lift/1056?panel=stuck');
  await page.locator('#reason').fill('Wrong motorcycle');
  await page.getByRole('button', { name: 'Nothing was opened: make the card void' }).click();
  await expect(page).toHaveURL(/handover\/1056/);
  await expect(page.locator('main')).toContainText('To be made void');
  await page.getByLabel('Countersigned by').selectOption('una');
  await page.getByLabel('Their PIN').fill('1111');
  await page.getByRole('button', { name: 'Countersign' }).click();
  await expect(page.getByRole('alert')).toContainText('not right');
  await page.getByLabel('Countersigned by').selectOption('una');
  await page.getByLabel('Their PIN').fill(PIN);
  await page.getByRole('button', { name: 'Countersign' }).click();
  await expect(page).toHaveURL(/record\/1056/);
  await expect(page.locator('.signature')).toContainText('Made void by Una B.');
  await context.close();
});

test('sources that disagree are ruled on at the lift, and what came out is seen in its drum', async ({ page, browser }) => {
  await signIn(page);
  const card = await openWith(page, 'HD-04', '122000', ['gearbox-oil']);
  const seen = new Map();
  const press = async () => {
    const now = await heading(page);
    seen.set(now, (seen.get(now) ?? 0) + 1);
    await usualPress(page, seen.get(now));
  };
  await workUpTo(page, 'Pour back', press);
  await expect(page.locator('.dispute-both')).toContainText('8.1 L');
  // Enter alone says nothing: why the sheet is right is typed.
  await page.locator('h1').click();
  await after(page, () => key(page, 'Enter'));
  await expect(page.locator('.dispute-here')).toBeVisible();
  const context = await phone(browser, false);
  await context.addCookies(await page.context().cookies());
  const plain = await context.newPage();
  await plain.goto(`/lift/${card}`);
  await fits(plain);
  await plain.getByLabel('Why is the sheet right?').fill('Measured on two of them');
  await plain.locator('.lift-main .main').click();
  await expect(plain.locator('.dispute-here')).toHaveCount(0);
  await expect(page.locator('.dispute-here')).toHaveCount(0);
  await workUpTo(page, 'Label with', press);
  await expect(page.locator('.label-up img')).toBeVisible();
  await expect.poll(() => page.locator('.label-up img').evaluate((img) => img.naturalWidth)).toBeGreaterThan(100);
  await after(page, () => key(page, 'Enter'));
  await signs(page);
  await expect(page.locator('main')).toContainText("not 8.1 L in Owner's handbook, p. 301; Iona R.: Measured on two of them");
  for (const path of ['/drums', '/desk', '/brought-in', `/record/${card}`]) {
    await plain.goto(path);
    await fits(plain);
  }
  await plain.goto('/drums');
  await expect(plain.locator('main')).toContainText('50.43 L of 60.00 L');
  await plain.goto('/desk');
  await expect(plain.locator('.desk-back')).toContainText('HD-04');
  await context.close();
});
