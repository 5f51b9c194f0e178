import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { after, heading, signIn, usualPress, signs } from './lift.mjs';
import { startServer } from './server.mjs';

// Every vehicle's full service from intake to record by the usual press, at the stand's size and on a phone. Half an hour; not in ./check.
const PORT = 5195;
const VEHICLES = [
  ['HD-02', '38900'],
  ['HD-04', '121900'],
  ['HD-07', '148300'],
  ['HD-08', '62300'],
  ['HD-09', '2900'],
  ['HD-11', '88400'],
  ['HD-15', '24600'],
  ['HD-16', '52100'],
];
const SIZES = { stand: { width: 1280, height: 800 }, phone: { width: 390, height: 844 } };

async function work(page, width) {
  const seen = new Map();
  while (new URL(page.url()).pathname.startsWith('/lift/')) {
    const now = await heading(page);
    expect(await page.evaluate(() => document.documentElement.scrollWidth), now).toBeLessThanOrEqual(width);
    if (await page.locator('.waiting-main').count()) {
      await expect(page.locator('.waiting-main')).toHaveCount(0, { timeout: 60_000 });
      continue;
    }
    // What is counted at one step, stroke by stroke, goes on as long as its figure does.
    const here = `${now} ${(await page.locator('.value-number').allInnerTexts()).join()}`;
    seen.set(here, (seen.get(here) ?? 0) + 1);
    expect(seen.get(here), `“${here}” comes again and again`).toBeLessThan(16);
    await usualPress(page, seen.get(here));
  }
}

for (const [size, viewport] of Object.entries(SIZES))
  for (const [plate, odometer] of VEHICLES)
    test(`the full service of ${plate} is worked and signed, ${size}`, async ({ browser }) => {
      test.setTimeout(900_000);
      const folder = mkdtempSync(join(tmpdir(), 'anakyklos-full-'));
      const server = await startServer(['demo', '--data', folder, '--port', String(PORT), '--speed', '240'], PORT);
      const context = await browser.newContext({
        baseURL: `http://localhost:${PORT}`,
        viewport,
        isMobile: size === 'phone',
        hasTouch: size === 'phone',
      });
      try {
        const page = await context.newPage();
        await signIn(page, 'Una B.');
        const signOff = async () => {
          if (new URL(page.url()).pathname.startsWith('/handover/'))
            await signs(page);
          expect(new URL(page.url()).pathname).toMatch(/^\/record\//);
        };
        // A card that is open already is finished first.
        const open = page.locator('a.bay', { hasText: plate });
        if (await open.count()) {
          await page.goto(`/lift/${(await open.getAttribute('href')).match(/\d+/)[0]}`);
          await work(page, viewport.width);
          await signOff();
        }
        await page.goto(`/intake?plate=${plate}`);
        for (const job of await page.locator('input[name=job]').all()) await job.check({ force: true });
        await page.getByLabel('Odometer').fill(odometer);
        await after(page, () => page.getByRole('button', { name: 'Open the card' }).click());
        await work(page, viewport.width);
        await signOff();
        await expect(page.locator('main')).toContainText('Signed by Una B.');
      } finally {
        await context.close();
        await server.kill();
      }
    });
