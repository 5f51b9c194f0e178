// The week of the bays, as the lead plans it: by keyboard, in two tabs, on a phone, and without script.
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { after, signIn } from './lift.mjs';
import { startServer } from './server.mjs';

const PORT = 5207;
const BASE = `http://localhost:${PORT}`;
let server;

test.beforeAll(async () => {
  server = await startServer(['demo', '--data', mkdtempSync(join(tmpdir(), 'anakyklos-week-')), '--port', `${PORT}`, '--speed', '1'], PORT);
});
test.afterAll(() => server?.kill());

const opened = async (browser, options = {}) => {
  const context = await browser.newContext({ baseURL: BASE, viewport: { width: 1280, height: 800 }, ...options });
  const page = await context.newPage();
  await signIn(page, 'Una B.');
  return page;
};

// The Wednesday of next week, whatever today is and however late.
const nextWednesday = () => {
  const day = new Date();
  day.setUTCDate(day.getUTCDate() + 9 - ((day.getUTCDay() + 6) % 7));
  return day.toISOString().slice(0, 10);
};

const at = (page) => page.locator('.visit-at').innerText();

test('by keyboard: from the drawing to the visit, fixed on another day, in the other tab as well', async ({ browser }) => {
  const page = await opened(browser);
  await page.goto('/week');
  const other = await page.context().newPage();
  await other.goto('/week/HD-11');
  const before = await at(other);
  expect(before).toContain('Proposed.');

  // Which seven days it stands in depends on the day.
  if ((await page.locator('.week-bays a[href="/week/HD-11"]').count()) === 0) await after(page, () => page.keyboard.press('w'));
  await page.locator('.week-bays a[href="/week/HD-11"]').focus();
  await after(page, () => page.keyboard.press('Enter'));
  await expect(page).toHaveURL(/\/week\/HD-11$/);
  const days = page.locator('.visit-days li');
  const free = days.filter({ has: page.getByRole('button') });
  const last = free.nth((await free.count()) - 1);
  const day = await last.locator('> b').innerText();
  await last.getByRole('button').focus();
  await after(page, () => page.keyboard.press('Enter'));
  expect(await at(page)).toContain(day);
  expect(await at(page)).toContain('Fixed.');

  // The other tab still shows what was, and says what it does when it is pressed.
  await other.getByText('It does not come for now').click();
  await other.getByRole('textbox', { name: 'Why' }).fill('The light wants painting');
  await other.getByRole('button', { name: 'Leave it out' }).click();
  await expect(other.getByText('That is no day to come')).toBeVisible();
  await expect(other.getByRole('textbox', { name: 'Why' })).toHaveValue('The light wants painting');
  expect(await at(other)).toContain('Fixed.');
  await page.reload();
  await after(page, () => page.getByRole('button', { name: 'Let the plan move it again' }).click());
  expect(await at(page)).toContain('Proposed.');
  await page.context().close();
});

test('what would move is shown before anything is kept, and back leads to where it was', async ({ browser }) => {
  const page = await opened(browser);
  await page.goto('/week/HD-09');
  await page.getByText('At another time').click();
  await page.getByLabel('Begins').fill('03:00');
  await page.getByRole('button', { name: 'What would that move?' }).click();
  await expect(page.locator('#problem-time')).toContainText('not open all that time');
  await page.getByLabel('Day', { exact: true }).fill(nextWednesday());
  await page.getByLabel('Begins').fill('10:15');
  await page.getByRole('button', { name: 'What would that move?' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Then:' })).toBeVisible();
  // A proposal for today moves on with the clock, so what is asked is that it still is one.
  expect(await at(page)).toContain('Proposed.');
  await page.getByRole('button', { name: 'Fix it there' }).click();
  await expect(page.locator('.visit-at b')).toContainText('10:15');
  await page.context().close();
});

for (const script of [true, false])
  test(`on a phone the list comes first and nothing is wider than it, ${script ? 'with' : 'without'} script`, async ({ browser }) => {
    const page = await opened(browser, { viewport: { width: 390, height: 844 }, javaScriptEnabled: script });
    for (const address of ['/week', '/week?week=2', '/week/HD-07', '/desk', '/vehicle/HD-04', '/intake?plate=HD-11']) {
      await page.goto(address);
      expect(await page.evaluate(() => document.documentElement.scrollWidth), address).toBeLessThanOrEqual(390);
    }
    await page.goto('/week');
    const [list, drawing] = await Promise.all(['.week-list', '.week-frame'].map((s) => page.locator(s).boundingBox()));
    expect(list.y).toBeLessThan(drawing.y);
    await page.goto('/week/HD-07');
    await page.getByLabel('When it cannot be missed').fill(script ? 'Mo-Su 0-24' : 'Tu 10-13');
    await page.getByRole('button', { name: 'Keep it so' }).click();
    if (script) await expect(page.getByText('No place')).toBeVisible();
    else await expect(page.locator('.visit-at')).toContainText('Proposed.');
    await page.context().close();
  });
