import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { after, key, makesVoid, openWith, signIn, workUpTo, signs } from './lift.mjs';
import { startServer } from './server.mjs';

// A workshop of its own: it fills its filters before it fits them.
const PORT = 5188;
let server;
test.beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'anakyklos-fresh-'));
  server = await startServer(['demo', '--data', folder, '--port', String(PORT), '--speed', '240'], PORT);
});
test.afterAll(() => server.kill());
test.use({ baseURL: `http://localhost:${PORT}` });

const press = (page) => () => key(page, 'Enter');

test('a filter is filled first, a little is poured through, and the record says both', async ({ page, browser }) => {
  const lead = await browser.newPage();
  await signIn(lead, 'Una B.');
  await lead.goto('/workshop');
  await lead.getByText('Filled first').click();
  await after(lead, () => lead.getByRole('button', { name: 'Keep it so' }).click());
  await lead.close();
  await signIn(page);
  // What stands ready for its signature is signed before another card is opened.
  await page.goto('/handover/1057');
  await signs(page);
  const card = await openWith(page, 'HD-02', '39900', ['engine-oil-and-filter']);
  await workUpTo(page, 'Cut the old oil filter open', press(page));
  await expect(page.locator('.looks')).toContainText('no magnet holds it');
  await workUpTo(page, "Wet the new filter's ring", press(page));
  await expect(page.locator('.value')).toContainText(/200\s*mL/);
  await expect(page.locator('.value-beside')).toContainText('it hangs open side up');
  // More than it holds runs over.
  await key(page, 'o');
  await page.getByLabel('How much went in?').fill('1 L');
  await page.getByRole('button', { name: 'That went in' }).click();
  await expect(page.locator('#problem-amount')).toContainText('The oil filter takes 0.20 L');
  await page.getByLabel('How much went in?').fill('180 mL');
  await after(page, () => page.getByRole('button', { name: 'That went in' }).click());
  await expect(page.locator('.facts')).toContainText('0.18 L of engine oil; it counts');
  await workUpTo(page, 'Tighten the engine drain plug', press(page));
  await key(page, 'l');
  await after(page, () => page.getByRole('button', { name: 'Poured 200 mL through' }).click());
  // It drips again, and the plug waits for that.
  await expect(page.locator('.last-press')).toContainText('Poured 200 mL through');
  await workUpTo(page, 'Pour the first', press(page));
  // What was poured through is in the pan as well: nothing is measured there.
  await expect(page.getByRole('link', { name: /Measure the old oil/ })).toHaveCount(0);
  // A reading before the first run is asked about where it cannot be, noted, and brings nothing to a mark.
  await after(page, press(page));
  await key(page, 'r');
  await page.getByLabel('Or between them').fill('-1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('Find out before it runs');
  await after(page, press(page));
  await after(page, () => page.getByRole('button', { name: '1/4', exact: true }).click());
  await expect(page.locator('.last-press')).toContainText('Read before the first run: one quarter');
  await expect(page.getByRole('link', { name: /Read it first/ })).toHaveCount(0);
  await page.goto(`/record/${card}`);
  const row = page.getByRole('row', { name: /Engine oil/ });
  await expect(row).toContainText('0.18 L of it in the filter');
  await expect(row).toContainText('Rinsed with 0.20 L first');
});

test('what came out is read off a drawn jug, by a tap, by the arrows, or typed without script', async ({ page, browser }) => {
  await signIn(page);
  await makesVoid(page, 1056, 'Another card first');
  const card = await openWith(page, 'HD-16', '52200', ['engine-oil-and-filter']);
  await workUpTo(page, 'Pour the first', press(page));
  await key(page, 'm');
  const jug = page.getByRole('slider', { name: /^Tap the jug/ });
  const field = page.getByLabel('How much came out?');
  // A jug of 5 L: its scale is 240 of 300 high, and begins 20 above the bottom.
  const box = await jug.evaluate((svg) => {
    const at = (y) => new DOMPoint(90, y).matrixTransform(svg.getScreenCTM());
    return { x: at(0).x, zero: at(280).y, full: at(40).y };
  });
  await page.mouse.click(box.x, box.zero + (box.full - box.zero) * 0.5);
  await expect(field).toHaveValue('2.5 L');
  await jug.press('ArrowUp');
  await expect(field).toHaveValue('2.55 L');
  await jug.press('PageDown');
  await expect(field).toHaveValue('2.05 L');
  await page.getByRole('button', { name: 'That came out' }).click();
  await expect(page.getByRole('alert')).toContainText('Only 2.05 L came out, and the book has 3.75 L');
  await key(page, 'Enter');
  await expect(field).toBeVisible();
  // The same without script on a phone, typed; no press of the bar is cut off there.
  const storageState = await page.context().storageState();
  const context = await browser.newContext({ javaScriptEnabled: false, viewport: { width: 390, height: 844 }, storageState });
  const plain = await context.newPage();
  await plain.goto(`/lift/${card}`);
  await expect(plain.locator('.lift-bar').getByText('Another amount')).toBeVisible();
  for (const press of await plain.locator('.lift-bar :is(a, button)').all()) {
    const box = await press.boundingBox();
    expect(box.x + box.width, await press.innerText()).toBeLessThanOrEqual(390);
  }
  await plain.goto(`/lift/${card}?panel=came`);
  await plain.getByLabel('How much came out?').fill('lots');
  await plain.getByRole('button', { name: 'That came out' }).click();
  await expect(plain.locator('#problem-amount')).toContainText('is not a volume');
  await plain.getByLabel('How much came out?').fill('3.6 L');
  await plain.getByRole('button', { name: 'That came out' }).click();
  await expect(plain.locator('.last-press')).toContainText('Came out: 3.60 L');
  await plain.goto(`/record/${card}`);
  await expect(plain.getByRole('row', { name: /Engine oil/ })).toContainText('3.60 L');
  await context.close();
});
