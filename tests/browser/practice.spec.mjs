// The practice bay: a lesson from the road to the look back, by touch and by keyboard, on a phone, without script, by two on two devices.
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { after, key, openWith, signIn } from './lift.mjs';
import { startServer } from './server.mjs';

const PORT = 5210;
const BASE = `http://localhost:${PORT}`;
let server;

test.beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'anakyklos-practice-'));
  server = await startServer(['demo', '--data', folder, '--port', `${PORT}`, '--speed', '1'], PORT);
});
test.afterAll(() => server?.kill());

const opened = async (browser, name, options = {}) => {
  const context = await browser.newContext({ baseURL: BASE, viewport: { width: 1280, height: 800 }, ...options });
  const page = await context.newPage();
  await signIn(page, name);
  return page;
};

async function begins(page, lesson, isAwake = true) {
  await page.goto(`/practice/lesson/${lesson}`);
  if (isAwake) await page.locator('html[data-awake]:not(.deaf)').waitFor();
  await after(page, () => page.getByRole('button', { name: 'Begin' }).click());
  await expect(page).toHaveURL(/\/lift\/9\d+/);
}

// Chooses a thing and does something to it; what comes of it stands above the choices.
async function hand(page, thing, does, isAwake = true) {
  await after(page, () => page.locator('.bay-thing', { hasText: thing }).first().click());
  if (isAwake) await page.locator('html[data-awake]:not(.deaf)').waitFor();
  await after(page, () => page.locator('.bay-choices button', { hasText: does }).first().click());
}

for (const script of [true, false])
  test(`by touch, ${script ? 'with' : 'without'} script: what the card is told is held against what hands did`, async ({ browser }) => {
    const page = await opened(browser, 'Tavish M.', { javaScriptEnabled: script });
    await begins(page, 'ring-that-stayed-on', script);
    await page.locator('#kit [name=pan]').fill('20 L');
    await page.locator('.lift-main .main').click();
    await expect(page.locator('main h1')).toContainText('Chock');
    await hand(page, 'Wheel chocks', 'Set it', script);
    await expect(page.locator('.bay-lately .now')).toContainText('Tavish M. sets: wheel chocks');
    for (const next of ['Run the engine', 'bonnet', 'engine cover']) {
      if (script) await page.locator('html[data-awake]:not(.deaf)').waitFor();
      await page.locator('.lift-main .main').click();
      await expect(page.locator('main h1')).toContainText(new RegExp(next, 'i'));
    }
    await page.goto(page.url().replace(/lift/, 'practice').replace(/\?.*/, '/handover'));
    await expect(page.getByRole('button', { name: 'Sign it' })).toBeDisabled();
    if (script) await page.locator('html[data-awake]:not(.deaf)').waitFor();
    await after(page, () => page.getByRole('button', { name: 'look back' }).click());
    await expect(page.locator('main h1')).toContainText('The ring was not closed');
    await expect(page.locator('.debrief-parts')).toContainText('nobody had taken the bonnet off');
    await expect(page.locator('.debrief-parts')).toContainText('not seen');
    await page.getByRole('link', { name: 'Tell it again' }).click();
    await expect(page.locator('.phase')).toContainText('1 of ');
    await page.getByRole('link', { name: 'Next' }).click();
    await expect(page.locator('.phase')).toContainText('2 of ');
    await page.goto('/practice');
    await expect(page.locator('.lesson-road')).toContainText('tried');
    await page.context().close();
  });

test('by keyboard alone: places, hands and presses', async ({ browser }) => {
  const page = await opened(browser, 'Iona R.');
  await begins(page, 'first-oil-change');
  await key(page, '1');
  await expect(page.locator('.bay-here')).toHaveText('cab');
  await page.getByRole('link', { name: 'Engine off' }).focus();
  await key(page, 'Enter');
  await expect(page.locator('#hands h3')).toContainText('Engine');
  await key(page, '6');
  await expect(page.locator('.bay-lately .now')).toContainText('runs the engine warm');
  // The clock of the bay goes by what is done, and stands while somebody reads.
  const time = await page.locator('.practice-head').innerText();
  await page.reload();
  expect(await page.locator('.practice-head').innerText()).toBe(time);
  await key(page, '3');
  await expect(page.locator('.bay-here')).toHaveText('beside it');
  await page.context().close();
});

test('two people in one bay see what the other does', async ({ browser }) => {
  const [tavish, iona] = [await opened(browser, 'Tavish M.'), await opened(browser, 'Iona R.')];
  await begins(tavish, 'air-in-the-rear-right');
  await iona.goto('/practice');
  await iona.locator('html[data-awake]:not(.deaf)').waitFor();
  await after(iona, () => iona.getByRole('button', { name: 'Take the other place' }).click());
  await expect(iona).toHaveURL(tavish.url());
  await hand(tavish, 'Doors', 'Shut all doors');
  await expect(iona.locator('.bay-lately .now')).toContainText('Tavish M. shuts all doors');
  await key(iona, '1');
  await expect(tavish.locator('.bay-lately .now')).toContainText('Iona R. into the cab');
  await expect(tavish.locator('.bay-here')).toHaveText('beside it');
  await Promise.all([tavish.context().close(), iona.context().close()]);
});

test('on a phone nothing is wider than it, and the press comes before the vehicle', async ({ browser }) => {
  const page = await opened(browser, 'Una B.', { viewport: { width: 390, height: 844 } });
  await begins(page, 'glitter');
  const addresses = ['/practice', '/practice?sheet=hespin-16', '/practice/lesson/glitter', page.url(), page.url().replace('lift', 'stands'),
    page.url().replace('lift', 'practice') + '/handover'];
  for (const address of addresses) {
    await page.goto(address);
    expect(await page.evaluate(() => document.documentElement.scrollWidth), address).toBeLessThanOrEqual(390);
  }
  await page.goto(addresses[3]);
  const [press, vehicle] = await Promise.all(['.lift-main', '.bay-vehicle'].map((s) => page.locator(s).boundingBox()));
  expect(press.y).toBeLessThan(vehicle.y);
  await page.context().close();
});

test('without a line nothing is sent and nothing is kept', async ({ browser }) => {
  const page = await opened(browser, 'Tavish M.');
  await begins(page, 'first-oil-change');
  await after(page, () => page.locator('.bay-thing', { hasText: 'Doors' }).click());
  await page.locator('html[data-awake]:not(.deaf)').waitFor();
  await page.context().setOffline(true);
  await page.locator('.bay-choices button', { hasText: 'Shut all doors' }).click();
  await expect(page.locator('.notice')).toContainText('Nothing was sent');
  await page.context().setOffline(false);
  await page.goto(page.url());
  await expect(page.locator('.bay-lately')).toHaveCount(0);
  await page.context().close();
});

test('who has not done the lesson that the lead asks for is let at brakes when somebody stands beside', async ({ browser }) => {
  const una = await opened(browser, 'Una B.');
  await una.goto('/practice/lesson/air-in-the-rear-right');
  await after(una, () => una.getByRole('button', { name: 'Ask for it before' }).click());
  await expect(una.locator('.lesson-asked')).toContainText('Una B. asks for it');
  const card = await openWith(una, 'HD-04', '122000', ['brake-fluid']);
  const page = await opened(browser, 'Iona R.', { viewport: { width: 390, height: 844 }, javaScriptEnabled: false });
  await page.goto(`/lift/${card}`);
  await expect(page.locator('.refusal')).toContainText('Una B. asks for the lesson “Air in the rear right”');
  await expect(page.getByRole('link', { name: 'Practise it' })).toBeVisible();
  await page.getByRole('link', { name: 'Somebody is with me' }).click();
  await expect(page).toHaveURL(new RegExp(`/handover/${card}#beside`));
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.locator('#beside-pin').fill('2468');
  await page.getByRole('button', { name: 'I stand beside them' }).click();
  await expect(page).toHaveURL(new RegExp(`/lift/${card}`));
  await expect(page.locator('#kit')).toBeVisible();
  // Who has nobody beside them is still asked, on a screen with script and by its usual key.
  const other = await opened(browser, 'Tavish M.');
  await other.goto(`/lift/${card}`);
  await other.locator('html[data-awake]:not(.deaf)').waitFor();
  await key(other, 'Enter');
  await expect(other).toHaveURL(/handover/);
  await una.goto('/practice/lesson/air-in-the-rear-right');
  await after(una, () => una.getByRole('button', { name: 'Ask for it no more' }).click());
  await page.context().close();
  await other.context().close();
  await una.context().close();
});
