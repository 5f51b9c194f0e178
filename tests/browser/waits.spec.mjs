import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { heading, openWith, signIn, usualPress, workUpTo } from './lift.mjs';
import { startServer } from './server.mjs';

// Ten times as fast: five minutes of dripping can be sat out, and a slow machine sees them begin.
const PORT = 5199;
const SPEED = 10;
let server;
test.beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'anakyklos-waits-'));
  server = await startServer(['demo', '--data', folder, '--port', String(PORT), '--speed', String(SPEED)], PORT);
});
test.afterAll(() => server.kill());
test.use({ baseURL: `http://localhost:${PORT}` });

// Counts the tones instead of playing them.
const ears = () => {
  window.tones = 0;
  window.AudioContext = class {
    currentTime = 0;
    destination = null;
    close() {}
    createOscillator() {
      const tone = { frequency: {}, connect: () => tone, start: () => (window.tones += 1), stop() {} };
      return tone;
    }
    createGain() {
      const loud = { gain: {}, connect: () => loud };
      return loud;
    }
  };
};

const seconds = (clock) => clock.split(':').reduce((sum, part) => sum * 60 + Number(part), 0);

test('a wait shows the time that is left however old the page is, and calls out when it is over, unless it was told to be quiet', async ({
  page,
  browser,
}) => {
  test.setTimeout(240_000);
  await signIn(page);
  const card = await openWith(page, 'HD-15', '24700', ['gearbox-oil']);
  const seen = new Map();
  const press = async () => {
    const now = await heading(page);
    seen.set(now, (seen.get(now) ?? 0) + 1);
    await usualPress(page, seen.get(now));
  };
  for (let presses = 0; presses < 30 && !(await page.locator('.waiting').count()); presses++) await press();
  const strip = (at) => at.locator('.waiting').first();
  await expect(strip(page)).toBeVisible();
  const context = await browser.newContext({ storageState: await page.context().storageState() });
  await context.addInitScript(ears);
  const [loud, other] = [await context.newPage(), await browser.newPage()];
  // The page comes out of a cache, a quarter of an hour old by its own account.
  await loud.route(`**/lift/${card}*`, async (route) => {
    const answer = await route.fetch();
    const old = (await answer.text()).replace(/data-now="(\d+)"/, (_, now) => `data-now="${Number(now) - 900_000}"`);
    await route.fulfill({ response: answer, body: old });
  });
  await loud.goto(`/lift/${card}`);
  const left = async () => {
    const { now } = await (await loud.request.get('/api/v1/clock')).json();
    return (Number(await strip(loud).getAttribute('data-until')) - now) / 1000;
  };
  // Twelve real seconds of leeway for a slow machine.
  await expect.poll(async () => Math.abs(seconds(await strip(loud).locator('.clock').innerText()) - (await left()))).toBeLessThan(120);
  await expect(loud.getByRole('button', { name: /^Sound is on/ })).toBeVisible();
  // Another screen is told to be quiet, and stays so.
  await signIn(other);
  await other.addInitScript(ears);
  await other.goto(`/lift/${card}`);
  await other.getByRole('button', { name: /^Sound is on/ }).click();
  await other.reload();
  await expect(other.getByRole('button', { name: /^Sound is off/ })).toBeVisible();
  for (const at of [loud, other]) {
    await expect(at.locator('.notice')).toContainText('runs out: over.', { timeout: 90_000 });
    await expect(strip(at)).toHaveClass(/over/);
  }
  expect(await loud.evaluate(() => window.tones)).toBe(2);
  expect(await other.evaluate(() => window.tones)).toBe(0);
  await workUpTo(page, 'Tighten the gearbox drain plug', press);
  // The page follows the card by itself; what is under way when it is closed is nobody's fault.
  await loud.unrouteAll({ behavior: 'ignoreErrors' });
  await context.close();
  await other.close();
});
