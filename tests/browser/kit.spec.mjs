import { expect, test } from '@playwright/test';
import { after, key, signIn, title } from './lift.mjs';

/** A vehicle that no other test has: opens its first card and gives the number. */
async function openNew(page, plate, model, job) {
  await page.goto('/intake');
  await page.getByText('Another', { exact: true }).click();
  await page.getByLabel('Plate').fill(plate);
  await page.getByLabel('Model', { exact: true }).selectOption({ label: model });
  await page.getByLabel('Model year').fill('2022');
  await page.getByLabel('Odometer').fill('41 900');
  await page.getByLabel('Odometer').blur();
  await page.getByLabel(job, { exact: true }).check();
  await page.getByRole('button', { name: 'Open the card' }).click();
  await expect(page).toHaveURL(/\/lift\/\d+/);
  return Number(page.url().match(/lift\/(\d+)/)[1]);
}

const scan = async (page, number) => {
  await page.getByLabel('Scan a part').fill(number);
  await key(page, 'Enter');
  await expect(page.locator('.kit-scanned')).toBeVisible();
};

test('the dash is read at intake: code, trip and jobs answer at once and keep what was chosen', async ({ page }) => {
  await signIn(page);
  await page.goto('/intake?plate=HD-09');
  await page.getByLabel('Message code').fill('m 20');
  await page.getByLabel('Odometer').fill('2 560');
  await page.getByLabel('Odometer').blur();
  await expect(page.locator('.dash-says')).toContainText('First check and engine oil');
  await expect(page.getByLabel('First check', { exact: true })).toBeChecked();
  await expect(page.getByLabel('Engine oil and filter', { exact: true })).not.toBeChecked();
  await expect(page.locator('#why-engine-oil-and-filter')).toContainText('our sum does not');

  await page.getByText('HD-11').click();
  await page.getByLabel('Odometer').fill('88 000');
  await page.getByText('A trip ahead?').click();
  await page.getByLabel('There and back').fill('1 600');
  await page.getByLabel('There and back').blur();
  await expect(page.getByLabel('Grease points', { exact: true })).toBeChecked();
  await expect(page.locator('#why-grease')).toContainText('Would run over on the trip');
  // A person adds a job; another trip does not take it away again.
  const composed = await page.locator('#composed').innerText();
  await page.getByLabel('Coolant', { exact: true }).check();
  await expect.poll(() => page.locator('#composed').innerText()).not.toBe(composed);
  await page.getByLabel('There and back').fill('900');
  await page.getByLabel('There and back').blur();
  await expect(page.locator('#why-grease')).not.toContainText('Would run over');
  await expect(page.getByLabel('Coolant', { exact: true })).toBeChecked();
});

test('a kit is scanned part by part; the card waits for the boat and wakes when the stores book it in', async ({ page, browser }) => {
  await signIn(page);
  const card = await openNew(page, 'HD-52', 'Hespin 16 minibus', 'Engine oil and filter');
  await page.goto(`/kit/${card}`);
  const first = page.locator('.kit-part').first();
  const number = await first.locator('.kit-number').innerText();
  await scan(page, number.toLowerCase().replaceAll('-', ' '));
  await expect(page.locator('.kit-scanned.good')).toBeVisible();
  await expect(first.locator('input[type=checkbox]').first()).toBeChecked();
  await scan(page, 'HS-9999-Z');
  await expect(page.locator('.kit-scanned')).toContainText('does not belong to this kit');
  await expect(first.locator('input[type=checkbox]').first()).toBeChecked();

  await page.goto('/kit/1056');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('One thing stops it');
  await expect(page.locator('.kit-part.stops')).toContainText('waits until');
  await page.goto('/');
  await expect(page.locator('.bay', { hasText: 'HD-16' })).toContainText('SK-3312-S');

  const effie = await (await browser.newContext()).newPage();
  await signIn(effie, 'Effie S.');
  await effie.goto('/stores');
  await effie.getByLabel('Part number').fill('sk3312s');
  await effie.getByLabel('Pieces').fill('4');
  await key(effie, 'Enter');
  await expect(effie.getByRole('status').first()).toContainText('Card 1056 waited for it and goes on');
  await page.reload();
  await expect(page.locator('.bay', { hasText: 'HD-16' })).not.toContainText('waits for');
  await page.goto('/kit/1056');
  await page.locator('html[data-awake]:not(.deaf)').waitFor();
  await after(page, () => page.getByRole('button', { name: 'Packed as a kit' }).click());
  await page.getByRole('button', { name: 'All of it lies here' }).click();
  await expect(page).toHaveURL(/\/lift\/1056/);
  expect(await title(page)).not.toContain('Lay out');
});

test('on a phone and with script off, code and kit work as plain forms', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, javaScriptEnabled: false });
  const page = await context.newPage();
  await signIn(page);
  await page.goto('/intake?plate=HD-09');
  await page.getByLabel('Message code').fill('M-31');
  await page.getByLabel('Odometer').fill('2 600');
  await page.getByRole('button', { name: 'Show jobs and plan' }).click();
  await expect(page.locator('.dash-says')).toContainText('Engine oil and filters');
  const card = await openNew(page, 'HD-53', 'Corran Fen 1.2', 'Engine oil and filter');
  await page.goto(`/kit/${card}`);
  await page.getByLabel('Scan a part').fill(await page.locator('.kit-number').first().innerText());
  await page.getByRole('button', { name: 'Look it up' }).last().click();
  await expect(page.locator('.kit-scanned.good')).toBeVisible();
  for (const path of [`/kit/${card}`, '/stores', '/vehicle/HD-15', '/intake?plate=HD-15']) {
    await page.goto(path);
    expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(390);
  }
  await context.close();
});
