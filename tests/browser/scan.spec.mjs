import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { after, key, signIn, title, usualPress, workUpTo } from './lift.mjs';
import { startServer } from './server.mjs';

// HD-15 with the scan tool: read at intake, its service put out by the tool and the key, card and vehicle agreeing.
const PORT = 5204;
let server;
let card;
test.beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'anakyklos-scan-'));
  server = await startServer(['demo', '--data', folder, '--port', String(PORT), '--speed', '240'], PORT);
});
test.afterAll(() => server.kill());
test.use({ baseURL: `http://localhost:${PORT}` });

const presses = (page, name) => after(page, () => page.getByRole('button', { name, exact: true }).click());
const shows = (page) => page.locator('.scan-body').getAttribute('aria-label');

test('what the tool reads fills the intake, marked as read; what is typed over it is not', async ({ page }) => {
  await signIn(page);
  await page.goto('/stand-ins/scan-tool');
  await presses(page, 'HD-15');
  await presses(page, 'Read the vehicle');
  await expect(page.locator('.wrench-said').last()).toHaveText('Kept for the intake of HD-15.');
  await page.goto('/intake');
  await after(page, () => page.getByRole('button', { name: 'Fill it in' }).click());
  await expect(page.locator('input[name=plate]:checked')).toHaveValue('HD-15');
  await expect(page.getByLabel('Odometer')).toHaveValue('24700');
  await expect(page.locator('.read-by')).toHaveText([/read by ST-1, not typed/, /read by ST-1, not typed/]);
  await page.getByLabel('Odometer').fill('24701');
  await expect(page.locator('[data-read-for=odometer]')).toBeHidden();
  await page.getByLabel('Odometer').fill('24700');
  await expect(page.locator('[data-read-for=odometer]')).toBeVisible();
  for (const job of await page.locator('input[name=job]:checked').evaluateAll((boxes) => boxes.map((b) => b.value)))
    if (job !== 'engine-oil-and-filter') {
      const before = await page.locator('#composed').innerText();
      await page.locator(`input[name=job][value=${job}]`).setChecked(false, { force: true });
      await expect.poll(() => page.locator('#composed').innerText()).not.toBe(before);
    }
  await page.locator('input[name=job][value=engine-oil-and-filter]').setChecked(true, { force: true });
  for (const why of await page.locator('input[name^=drop-]').all()) if (await why.isVisible()) await why.fill('Next week');
  await page.getByRole('button', { name: 'Open the card' }).click();
  await expect(page).toHaveURL(/\/lift\/\d+/);
  card = Number(page.url().match(/lift\/(\d+)/)[1]);
});

test('on a phone and without script it is filled in, taken out again, and nothing is wider than the phone', async ({ browser }) => {
  const baseURL = `http://localhost:${PORT}`;
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, javaScriptEnabled: false, baseURL });
  const page = await context.newPage();
  await signIn(page);
  await page.goto('/stand-ins/scan-tool');
  await page.getByRole('button', { name: 'HD-07', exact: true }).click();
  await page.getByRole('button', { name: 'Read the vehicle' }).click();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.goto('/intake');
  await page.getByRole('button', { name: 'Fill it in' }).click();
  await expect(page.locator('.read-by')).toHaveCount(4);
  await expect(page.locator('#jobs')).toContainText('Both count: the shorter one holds.');
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.getByRole('button', { name: 'Type it instead' }).click();
  await expect(page.getByLabel('Odometer')).toHaveValue('');
  await expect(page.locator('.read-by')).toHaveCount(0);
  await context.close();
});

test('no link, another vehicle, then the tool makes its moves and the key the last', async ({ page }) => {
  test.setTimeout(240_000);
  await signIn(page);
  await page.goto(`/lift/${card}`);
  const seen = new Map();
  await workUpTo(page, 'Stand down, scan tool ST-1', async () => {
    const now = await title(page);
    seen.set(now, (seen.get(now) ?? 0) + 1);
    await usualPress(page, seen.get(now));
  });
  await page.goto('/stand-ins/scan-tool');
  await page.getByLabel('Its plug is not home').check();
  await presses(page, 'Let it be so');
  await presses(page, 'HD-15');
  expect(await shows(page)).toContain('NO LINK');
  await expect(page.locator('.wrench-said').last()).toContainText('NO LINK is noted at “Stand down');
  await page.getByLabel('Its plug is not home').uncheck();
  await presses(page, 'Let it be so');
  await presses(page, 'HD-15');
  expect(await shows(page)).toContain('LINK');
  await presses(page, 'Tourer 1100, Service');
  expect(await shows(page)).toContain('OTHER VEHICLE');
  await page.goto(`/lift/${card}`);
  await expect(page.getByRole('status').first()).toContainText('Failed 2 of 3.');
  // Cut, it keeps what it shows; the vehicle has heard it all the same.
  await page.goto('/stand-ins/scan-tool');
  await presses(page, 'HD-15');
  await presses(page, 'Ridge 900, Service');
  await page.getByLabel('Its line is cut').check();
  await presses(page, 'Let it be so');
  await presses(page, 'OK');
  expect(await shows(page)).toContain('SURE?');
  await expect(page.locator('.wrench-said').last()).toContainText('The line is cut');
  await expect(page.locator('.caution')).toContainText('1 in its memory');
  await page.getByLabel('Its line is cut').uncheck();
  await presses(page, 'Let it be so');
  await expect(page.locator('.wrench-said').last()).toContainText('SURE? is noted');
  await presses(page, 'OK');
  await expect(async () => {
    await page.reload();
    expect(await shows(page)).toContain('DONE');
  }).toPass();
  await page.goto(`/lift/${card}`);
  await expect(page.locator('main h1')).toContainText('Unplug');
  await expect(page.locator('.moves li.done')).toHaveCount(4);
});

test('the key puts it out, and card and vehicle agree', async ({ page }) => {
  await signIn(page);
  await page.goto(`/stand-ins/dash?card=${card}`);
  await expect(page.locator('.dash-cluster')).toHaveAttribute('aria-label', /Service word on the display is lit/);
  await page.getByRole('button', { name: /Key or power/ }).click();
  await expect(page.locator('.dash-cluster')).toHaveAttribute('aria-label', /Display: 8000 km/, { timeout: 10_000 });
  await expect(page.locator('.dash-cluster')).not.toHaveAttribute('aria-label', /is lit/);
  await page.goto(`/lift/${card}`);
  await after(page, () => page.getByRole('button', { name: 'Done: the wait begins' }).click());
  await expect(page.locator('.lift-main .main')).toContainText('It shows 8', { timeout: 15_000 });
  await after(page, () => key(page, 'Enter'));
  await expect(page.locator('main h1')).not.toContainText('Unplug');
  await page.goto(`/stand-ins/vehicle?card=${card}`);
  await expect(page.locator('main')).not.toContainText('indicator');
});
