import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { after, heading, key, openWith, signIn, usualPress, workUpTo, signs } from './lift.mjs';
import { startServer } from './server.mjs';
import { pull, said, workWithWrench } from './wrench.mjs';

// A workshop of its own, so that nobody else's card stands in the first bay.
const PORT = 5197;
let server;
test.beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'anakyklos-wrench-'));
  server = await startServer(['demo', '--data', folder, '--port', String(PORT), '--speed', '240'], PORT);
});
test.afterAll(() => server.kill());
test.use({ baseURL: `http://localhost:${PORT}` });

test("the first bay's wrench works HD-07's whole service: every click is noted at its joint by itself", async ({ page, browser }) => {
  test.setTimeout(300_000);
  const hand = await browser.newPage();
  await signIn(hand);
  await signIn(page);
  await page.goto('/intake?plate=HD-07');
  for (const job of await page.locator('input[name=job]').all()) await job.check({ force: true });
  await page.getByLabel('Odometer').fill('148300');
  await after(page, () => page.getByRole('button', { name: 'Open the card' }).click());
  const clicks = await workWithWrench(page, hand);
  expect(clicks).toEqual(['20', '25', '38']);
  await signs(page);
  for (const nm of clicks) await expect(page.locator('main')).toContainText(`${nm} N·m, TW-2`);
  await hand.close();
});

test('a click that nothing wants comes to the lift at once, and is discarded in the bay', async ({ page, browser }) => {
  const [hand, bay] = [await browser.newPage(), await browser.newPage()];
  for (const who of [page, hand, bay]) await signIn(who);
  // HD-08 stands in the second bay with its drain plug out; nobody has told the workshop that the wrench was carried there.
  await page.goto('/lift/1058');
  await bay.goto('/bay/bay-2');
  await hand.goto('/stand-ins/wrench');
  await hand.locator('html[data-awake]:not(.deaf)').waitFor();
  await hand.getByRole('button', { name: 'Bay 2' }).click();
  await expect(hand.locator('.wrench-card')).toContainText('HD-08');
  await pull(hand);
  await expect(said(hand)).toContainText('the workshop has it in Bay 1');
  await expect(page.locator('.came')).toContainText('TW-2 read');
  await expect(bay.locator('.reading')).toContainText('TW-2 says it is in Bay 2');
  await bay.locator('summary').click();
  await bay.getByLabel('Why').fill('Only tried it');
  await bay.getByRole('button', { name: /^Discard/ }).click();
  await expect(bay.locator('.reading')).toHaveCount(0);
  await expect(bay.locator('.reading-row')).toContainText('discarded by Iona R.: Only tried it');
  await expect(page.locator('.came')).toHaveCount(0);
  await hand.close();
  await bay.close();
});

test('the screws of a cover go in their order: by keyboard, by a tap, by the wrench, and with script off', async ({ page, browser }) => {
  const hand = await browser.newPage();
  for (const who of [page, hand]) await signIn(who);
  await hand.goto('/stand-ins/wrench');
  await hand.locator('html[data-awake]:not(.deaf)').waitFor();
  await hand.getByRole('button', { name: 'Bay 1' }).click();
  const card = await openWith(page, 'HD-15', '24700', ['primary-oil']);
  const seen = new Map();
  await workUpTo(page, 'Tighten the primary inspection cover', async () => {
    const now = await heading(page);
    seen.set(now, (seen.get(now) ?? 0) + 1);
    await usualPress(page, seen.get(now));
  });
  const dot = (place) => page.locator(`.dot[value="${place}"]`);
  await expect(page.locator('.lift-main .main')).toContainText('All 6 in by hand, in order');
  await after(page, () => key(page, 'Enter'));
  await expect(page.locator('.value-figure')).toHaveText('5');
  // One after the other by the keyboard, then a tap that says “up to this one”.
  await after(page, () => key(page, 'e'));
  await expect(dot(1)).toHaveClass(/done/);
  await expect(dot(2)).toHaveClass(/next/);
  await after(page, () => dot(3).click());
  await expect(dot(4)).toHaveClass(/next/);
  await expect(dot(3)).toBeDisabled();
  // The wrench sits on the one that is next, wants what this pass wants, and its click is noted there.
  await expect(page.locator('.phase')).toContainText('TW-2 sends its click here');
  expect(await pull(hand)).toBe('5');
  await expect(said(hand)).toContainText('is noted at');
  await expect(dot(5)).toHaveClass(/next/);
  await expect(page.locator('.lift-main .main')).toContainText('The other 2 clicked at 5, in order');
  await after(page, () => key(page, 'Enter'));
  await expect(page.locator('.fasten-pass')).toContainText('Pass 3 of 3');
  // A bare number is on the scale of the wrench; 12 is too much, and that one is slackened before anything else.
  await page.getByRole('link', { name: /^Other reading/ }).click();
  await expect(page.getByLabel('What did TW-2 say?')).toBeVisible();
  await page.getByLabel('What did TW-2 say?').fill('12');
  await after(page, () => page.getByRole('button', { name: 'That is the reading' }).click());
  await page.getByLabel('What was done about it?').fill('Slackened');
  await after(page, () => page.locator('.lift-main .main').click());
  await expect(dot(1)).toHaveClass(/next/);
  // The rest without script, on a phone.
  const context = await browser.newContext({
    javaScriptEnabled: false, viewport: { width: 390, height: 844 }, storageState: await page.context().storageState(),
  });
  const plain = await context.newPage();
  await plain.goto(`/lift/${card}`);
  await plain.locator('.dot[value="2"]').click();
  await expect(plain.locator('.dot[value="3"]')).toHaveClass(/next/);
  await plain.getByRole('link', { name: /^Another wrench/ }).click();
  await plain.locator('input[name=wrench][value="TW-4"]').check();
  await plain.getByRole('button', { name: 'That is in the hand' }).click();
  await expect(plain.locator('.problem')).toContainText('TW-4 cannot be set for 10 N·m');
  await plain.goto(`/lift/${card}`);
  await plain.locator('.lift-main .main').click();
  await expect(plain.locator('main h1')).not.toContainText('inspection cover');
  // The first screen follows by itself; an address given before it has would be given up for that.
  await expect(page.locator('main h1')).not.toContainText('inspection cover');
  await page.goto(`/record/${card}`);
  await expect(page.locator('main')).toContainText('all 6: TW-2 clicked at 10 N·m, said together, in order');
  await context.close();
  await hand.close();
});
