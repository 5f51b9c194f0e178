import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { after, startsWorkshop } from './lift.mjs';
import { startServer } from './server.mjs';

const PORT = 5212;
const SHEETS = join(import.meta.dirname, '../../sheets');
let server;

test.use({ baseURL: `http://localhost:${PORT}` });
test.beforeAll(async () => {
  server = await startServer(['serve', '--data', mkdtempSync(join(tmpdir(), 'anakyklos-own-')), '--port', `${PORT}`], PORT);
});
test.afterAll(() => server.kill());

test('an empty workshop comes to its first card on one page, and what was skipped is named', async ({ page }) => {
  await startsWorkshop(page, server);
  await expect(page.getByRole('heading', { name: 'The first hour' })).toBeVisible();
  const stage = (id) => page.locator(`#${id}`);
  const send = (name) => after(page, () => page.getByRole('button', { name, exact: true }).click());

  await page.getByLabel('Names, a line each').fill('Lift\nPit');
  await send('These are the bays');
  await expect(stage('Bays')).toHaveClass('done');
  await send('These come first');
  await page.getByLabel('Coldest, °C').fill('-12');
  await page.getByLabel('Hottest, °C').fill('thirty');
  await send('Oils must bear this');
  await expect(stage('Climate').locator('.problem')).toBeVisible();
  await expect(page.getByLabel('Coldest, °C')).toHaveValue('-12');
  await page.getByLabel('Hottest, °C').fill('30');
  await send('Oils must bear this');
  await after(page, () => stage('People').getByRole('button', { name: 'Skip it for now' }).click());
  await expect(stage('People')).toHaveClass('skipped');
  await page.getByLabel('Painted on it').first().fill('W-1');
  await page.getByLabel('Lowest, with unit').fill('5 N·m');
  await page.getByLabel('Highest, with unit').fill('60 N·m');
  await page.getByLabel('One graduation, with unit').fill('1 N·m');
  await page.getByLabel('Calibrated until').fill('2099-01-01');
  await send('Add the wrench');
  await page.locator('#Pans-name').fill('Blue');
  await page.getByLabel('Holds, with unit').fill('12 L');
  await send('Add the pan');
  await page.getByLabel('Wednesday').check();
  await send('It comes so');
  await expect(stage('Oils').locator('details')).toHaveJSProperty('open', true);
  await after(page, () => stage('Oils').getByRole('button', { name: 'Skip it for now' }).click());

  await page.getByRole('link', { name: 'To the library' }).click();
  await page.getByLabel('Sheet file').setInputFiles(join(SHEETS, 'corran-fen-12.json'));
  await after(page, () => page.getByRole('button', { name: 'Check and bring in' }).click());
  await page.goto('/first-hour');
  await expect(stage('Model')).toHaveClass('done');
  await expect(stage('Vehicle').locator('details')).toHaveJSProperty('open', true);
  await stage('Vehicle').getByRole('link', { name: 'A vehicle is here' }).click();
  await page.getByLabel('Plate').fill('QG-1');
  await page.getByLabel('Model year').fill('2019');
  await page.getByLabel('What it does').fill('Bread');
  await page.getByLabel('Odometer').fill('12000 km');
  await after(page, () => page.getByRole('button', { name: 'Open the card' }).last().click());
  await expect(page).toHaveURL(/\/lift\/\d+/);
  await page.goto('/first-hour');
  await expect(stage('Card')).toHaveClass('done');
  await send('Done: to the yard');
  await expect(page.getByRole('heading', { name: 'In the bays' })).toBeVisible();
  await expect(page.locator('.bay')).toContainText('Lift');
  await expect(page.locator('.hour-strip')).toHaveCount(0);
});
