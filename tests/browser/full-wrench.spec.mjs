import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { after, signIn, signs } from './lift.mjs';
import { startServer } from './server.mjs';
import { workWithWrench } from './wrench.mjs';

// Every joint of a whole service that the wrench of its bay reaches. Three minutes; not in ./check.
const PORT = 5202;
let server;
test.beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'anakyklos-full-wrench-'));
  server = await startServer(['demo', '--data', folder, '--port', String(PORT), '--speed', '240'], PORT);
});
test.afterAll(() => server.kill());
test.use({ baseURL: `http://localhost:${PORT}` });

test("HD-11's whole service with the wrench: plugs, bleed screws, a crow-foot, and the record", async ({ page, browser }) => {
  test.setTimeout(900_000);
  const hand = await browser.newPage();
  await signIn(hand);
  await signIn(page);
  await page.goto('/intake?plate=HD-11');
  for (const job of await page.locator('input[name=job]').all()) await job.check({ force: true });
  await page.getByLabel('Odometer').fill('88500');
  await after(page, () => page.getByRole('button', { name: 'Open the card' }).click());
  const clicks = await workWithWrench(page, hand);
  // 65 N·m at the propshaft: 300 of 260 mm come through the crow-foot, so that it clicks at 56. What is above 60 is another wrench's.
  expect(clicks.join(' ')).toBe('12 9 9 9 9 9 40 40 56 56 56 56 50 55 50');
  await signs(page);
  for (const nm of ['12', '9', '40', '50', '55']) await expect(page.locator('main')).toContainText(`${nm} N·m, TW-2`);
  await expect(page.locator('main')).toContainText('40 mm crow-foot');
  await hand.close();
});
