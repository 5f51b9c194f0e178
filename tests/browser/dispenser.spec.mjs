import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { after, heading, signIn, usualPress } from './lift.mjs';
import { startServer } from './server.mjs';

// A workshop of its own, so that nobody else's card stands in the first bay.
const PORT = 5190;
let server;
test.beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'anakyklos-dispenser-'));
  server = await startServer(['demo', '--data', folder, '--port', String(PORT), '--speed', '240'], PORT);
});
test.afterAll(() => server.kill());
test.use({ baseURL: `http://localhost:${PORT}` });

const said = (hand) => hand.locator('.wrench-said');

test("the dispenser fills HD-07: hung in the wrong drum, then in the right can, by holding its trigger", async ({ page, browser }) => {
  const [hand, bay] = [await browser.newPage(), await browser.newPage()];
  for (const who of [page, hand, bay]) await signIn(who);
  await page.goto('/intake?plate=HD-07');
  await page.getByLabel('Odometer').fill('148300');
  await after(page, () => page.getByRole('button', { name: 'Open the card' }).click());
  for (let presses = 0; !(await heading(page)).startsWith('Pour the first amount'); presses++) {
    expect(presses, await heading(page)).toBeLessThan(60);
    if (await page.locator('.waiting-main').count()) await expect(page.locator('.waiting-main')).toHaveCount(0, { timeout: 60_000 });
    else await usualPress(page, 1);
  }
  // It hangs in the largest drum, which holds another oil: what it ran waits, and the lift says so at once.
  await hand.goto('/stand-ins/dispenser');
  await hand.locator('html[data-awake]:not(.deaf)').waitFor();
  await hand.locator('.wrench-hold').hover();
  await hand.mouse.down();
  await hand.waitForTimeout(400);
  await after(hand, () => hand.mouse.up());
  await expect(said(hand)).toContainText('Fulmar Heavy 10W-40 went in');
  await expect(page.locator('.came')).toContainText('OD-1 read');
  await bay.goto('/bay/bay-1');
  await bay.locator('html[data-awake]:not(.deaf)').waitFor();
  await expect(bay.locator('.reading')).toContainText('It is in: say at the kit');
  await bay.locator('summary').click();
  await bay.getByLabel('Why').fill('Ran into a jug, to flush the hose');
  await after(bay, () => bay.getByRole('button', { name: /^Discard/ }).click());
  await expect(page.locator('.came')).toHaveCount(0);
  // Hung into the can of the right oil, at the device and in the bay's list.
  await hand.selectOption('#container', '1');
  await after(hand, () => hand.getByRole('button', { name: 'Hang it in there' }).click());
  await bay.locator('html[data-awake]:not(.deaf)').waitFor();
  await bay.locator('select[name=container]').selectOption('1');
  await after(bay, () => bay.getByRole('button', { name: 'So it is' }).click());
  await expect(bay.locator('.device', { hasText: 'OD-1' })).toContainText('Draws from can 1');
  await page.reload();
  await expect(page.locator('.phase')).toContainText('OD-1 sends what it meters here');
  await after(hand, () => hand.getByRole('button', { name: /^As the card wants it/ }).click());
  await hand.locator('html[data-awake]:not(.deaf)').waitFor();
  await hand.locator('.wrench-hold').hover();
  await hand.mouse.down();
  await expect(hand.locator('.wrench-click.clicked')).toBeVisible({ timeout: 20_000 });
  await after(hand, () => hand.mouse.up());
  await expect(said(hand)).toContainText('is noted at “Pour the first amount, then stop”');
  // The lift moves on by itself and says so.
  await expect(page.locator('.meanwhile')).toContainText('metered by OD-1');
  expect(await heading(page)).not.toMatch(/^Pour the first/);
  await bay.goto('/bay/bay-1');
  await expect(bay.locator('.reading-row').first()).toContainText('by itself');
  await hand.close();
  await bay.close();
});

test('without script the amount is typed, and no amount runs nothing', async ({ browser }) => {
  const context = await browser.newContext({ javaScriptEnabled: false });
  const hand = await context.newPage();
  await signIn(hand);
  await hand.goto('/stand-ins/dispenser');
  // Where a card is open, whatever went on before in the first bay.
  await hand.getByRole('button', { name: 'Bay 2' }).click();
  await hand.getByLabel('Let go at, in L').fill('-3');
  await hand.getByRole('button', { name: 'Hold the trigger' }).click();
  await expect(hand.locator('.wrench-number')).toContainText('0.00');
  await expect(hand.locator('.wrench-said')).not.toHaveText('');
  await context.close();
});
