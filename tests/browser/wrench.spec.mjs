import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { after, heading, signIn, usualPress } from './lift.mjs';
import { startServer } from './server.mjs';

// A workshop of its own, so that nobody else's card stands in the first bay.
const PORT = 5197;
let server;
test.beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'anakyklos-wrench-'));
  server = await startServer(['demo', '--data', folder, '--port', String(PORT), '--speed', '240'], PORT);
});
test.afterAll(() => server.kill());
test.use({ baseURL: `http://localhost:${PORT}` });

const said = (hand) => hand.locator('.wrench-said');

// Onto the joint that lies nearest, set as it wants it, and pulled: by so many degrees, or held until it clicks and let go, which ends
// where the machine lets it.
async function pull(hand, degrees = 0) {
  await hand.goto('/stand-ins/wrench');
  await hand.locator('html:not(.deaf)').waitFor();
  const loose = hand.getByRole('button', { name: /^Run the/ });
  if (await loose.count()) await loose.click();
  await hand.locator('.wrench-hold').waitFor();
  const wants = hand.getByRole('button', { name: /^As this joint wants it/ });
  const to = (await wants.innerText()).match(/: ([\d.]+)/)[1];
  await wants.click();
  await expect(hand.locator('.wrench-setting')).toContainText(to);
  if (degrees > 0) {
    await after(hand, () =>
      hand.locator('#degrees').evaluate((field, d) => {
        field.value = d;
        field.form.submit();
      }, String(degrees)),
    );
    return to;
  }
  await hand.locator('.wrench-hold').hover();
  await hand.mouse.down();
  await expect(hand.locator('.wrench-click.clicked')).toBeVisible();
  await after(hand, () => hand.mouse.up());
  return to;
}

test("the first bay's wrench works HD-07's whole service: every click is noted at its joint by itself", async ({ page, browser }) => {
  const hand = await browser.newPage();
  await signIn(hand);
  await signIn(page);
  await page.goto('/intake?plate=HD-07');
  for (const job of await page.locator('input[name=job]').all()) await job.check({ force: true });
  await page.getByLabel('Odometer').fill('148300');
  await after(page, () => page.getByRole('button', { name: 'Open the card' }).click());
  const [seen, clicks] = [new Map(), []];
  while (new URL(page.url()).pathname.startsWith('/lift/')) {
    if (await page.locator('.waiting-main').count()) {
      await expect(page.locator('.waiting-main')).toHaveCount(0, { timeout: 60_000 });
      continue;
    }
    const now = await heading(page);
    seen.set(now, (seen.get(now) ?? 0) + 1);
    expect(seen.get(now), `“${now}” comes again and again`).toBeLessThan(8);
    if (!(await page.locator('.lift-main .main').first().innerText()).startsWith('Clicked at')) {
      await usualPress(page, seen.get(now));
      continue;
    }
    await expect(page.locator('.phase')).toContainText('TW-2 sends its click here');
    // It clicks at 60 degrees and gives way after that.
    clicks.push(await pull(hand, 65));
    await expect(said(hand)).toContainText(`is noted at “${now}”`);
    // The lift moves on by itself and says so.
    await expect(page.locator('.meanwhile')).toContainText('sent by TW-2');
    expect(await heading(page)).not.toBe(now);
  }
  expect(clicks).toEqual(['20', '25', '38']);
  await after(page, () => page.getByRole('button', { name: /^Sign/ }).click());
  for (const nm of clicks) await expect(page.locator('main')).toContainText(`${nm} N·m, TW-2`);
  await hand.close();
});

test('a click that nothing wants comes to the lift at once, and is discarded in the bay', async ({ page, browser }) => {
  const [hand, bay] = [await browser.newPage(), await browser.newPage()];
  for (const who of [page, hand, bay]) await signIn(who);
  // HD-08 stands in the second bay with its drain plug out; nobody has told the workshop that the wrench was carried there.
  await page.goto('/lift/1007');
  await bay.goto('/bay/bay-2');
  await hand.goto('/stand-ins/wrench');
  await hand.locator('html:not(.deaf)').waitFor();
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
