import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { after, key, openCard, openWith, signIn, signs, workUpTo } from './lift.mjs';
import { startServer } from './server.mjs';

// A workshop of its own, so that its cards are nobody else's trouble.
const PORT = 5197;
let server;
test.beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'anakyklos-looks-'));
  server = await startServer(['demo', '--data', folder, '--port', String(PORT), '--speed', '240'], PORT);
});
test.afterAll(() => server.kill());
test.use({ baseURL: `http://localhost:${PORT}` });

const press = (page) => () => key(page, 'Enter');

async function toTheEnd(page, card) {
  await workUpTo(page, 'Wipe, dip', press(page));
  await page.getByLabel('Where does the oil stand?').fill('3/4');
  await page.getByLabel('Where does the oil stand?').press('Enter');
  await expect(page.locator('main h1')).toContainText('engine cover');
  await workUpTo(page, 'Nothing is open', press(page));
  await signs(page);
  await expect(page).toHaveURL(new RegExp(`/record/${card}`));
}

test('glitter on the magnet: half the interval, and the next card says so', async ({ page }) => {
  test.setTimeout(480_000);
  await signIn(page);
  const card = await openCard(page, '148200');
  await workUpTo(page, "Wipe the plug's magnet", press(page));
  await expect(page.locator('.facts')).toContainText('Grey paste');
  await expect(page.locator('.lift-main .main')).toContainText('Grey paste');
  // The wrong picture first.
  await key(page, '5');
  await expect(page.locator('.held')).toContainText('Magnet of the engine drain plug: lumps');
  await key(page, 'u');
  await expect(page.locator('main h1')).toContainText("Wipe the plug's magnet");
  await expect(page.locator('.held')).toHaveCount(0);
  const glitter = page.getByRole('button', { name: /Fine glitter/ });
  await expect(glitter).toContainText('A sample to the laboratory, and half the next interval');
  await page.locator('html[data-awake]:not(.deaf)').waitFor();
  await glitter.click();
  await expect(page.locator('main h1')).toContainText('oil filter cap');
  const asked = page.getByRole('button', { name: /Sample asked for/ });
  await page.locator('html[data-awake]:not(.deaf)').waitFor();
  await asked.click();
  await expect(asked).toHaveCount(0);
  await expect(page.locator('.last-press')).toContainText('Sample 1 of the engine oil taken');
  await toTheEnd(page, card);
  await expect(page.locator('main')).toContainText('A sample of the engine oil was taken');
  await expect(page.locator('main')).toContainText('Magnet of the engine drain plug: fine glitter');
  // 10,000 km as a rule; half of it now.
  await expect(page.locator('main')).toContainText('153 200 km');

  // It is sent, and the laboratory answers days later: the yard says so, and the next card.
  await page.goto('/laboratory');
  await page.getByRole('button', { name: 'It is on its way' }).click();
  await page.getByRole('link', { name: /Brackwater/ }).click();
  await page.getByRole('button', { name: 'Let the days pass' }).click();
  await expect(page.locator('main h1')).toContainText('Iron');
  await expect(page.locator('.trend-odd').first()).toContainText('Iron');
  await page.goto('/');
  await expect(page.locator('.answers-in')).toContainText('HD-07 half the next interval Engine oil: iron');

  await page.goto('/vehicle/HD-07');
  await expect(page.locator('main')).toContainText('half its interval for what was seen then');
  const next = await openWith(page, 'HD-07', '149400', ['engine-oil-and-filter']);
  await workUpTo(page, "Wipe the plug's magnet", press(page));
  await expect(page.locator('.facts')).toContainText('Fine glitter');
  await expect(page.locator('.facts')).toContainText('laboratory: iron');
  // A second time it does not pass by itself any more.
  await expect(page.getByRole('button', { name: /Fine glitter/ })).toContainText('A specialist looks at it before it runs');
  await key(page, '3');
  await expect(page.locator('.held')).toContainText('fine glitter');
  await page.goto(`/handover/${next}`);
  await expect(page.locator('.stop-decision')).toContainText('Magnet of the engine drain plug: fine glitter');
});

test('what came out is weighed, asked about, and goes back', async ({ page }) => {
  await signIn(page);
  await openWith(page, 'HD-04', '121900', ['gearbox-oil']);
  await workUpTo(page, 'Measure how much', press(page));
  const weighs = async (full, empty) => {
    await page.getByLabel('Pan and oil').fill(full);
    await page.getByLabel('The empty pan').fill(empty);
    await page.locator('html[data-awake]:not(.deaf)').waitFor();
    await page.getByRole('button', { name: 'That is the weight' }).click();
  };
  await weighs('7.89 kg', '1.6');
  await expect(page.getByRole('alert')).toContainText('Add the unit to “1.6”');
  await expect(page.getByLabel('Pan and oil')).toHaveValue('7.89 kg');
  await weighs('4 kg', '1.6 kg');
  await expect(page.getByRole('alert')).toContainText('Only 2.82 L came out, and the book has 7.50 L.');
  await page.getByRole('link', { name: 'No, measure again' }).click();
  await weighs('7890 g', '1.6 kg');
  await expect(page.locator('main h1')).not.toContainText('Measure how much');
  await expect(page.locator('.last-press')).toContainText('Came out: 7.40 L, 7890 g less 1.60 kg');
  await key(page, 'u');
  await expect(page.locator('main h1')).toContainText('Measure how much');
  await weighs('4 kg', '1.6 kg');
  await page.getByRole('button', { name: 'Yes, 2.82 L' }).click();
  await expect(page.locator('main h1')).not.toContainText('Measure how much');
  await key(page, 'u');
  // The pan was knocked over.
  await page.getByRole('link', { name: 'Nobody measured it' }).click();
  await page.getByLabel('Why?').fill('The pan was knocked over');
  await page.getByRole('button', { name: 'Nobody measured it' }).click();
  await workUpTo(page, 'Pour back', press(page));
  // Of this amount the sources disagree, and nobody has ruled.
  await page.getByLabel('Why is the sheet right?').fill('The manual is newer');
  await after(page, () => page.getByLabel('Why is the sheet right?').press('Enter'));
  await expect(page.locator('.value-figure')).toHaveText('7.50');
});

test.describe('on a phone, with script off', () => {
  test.use({ javaScriptEnabled: false, viewport: { width: 390, height: 844 } });
  test('two things are looked at by plain forms', async ({ page }) => {
    await signIn(page);
    await page.goto('/intake?plate=HD-11');
    for (const box of await page.locator('input[name=job]').all())
      await box.setChecked((await box.getAttribute('value')) === 'gearbox-oil', { force: true });
    for (const why of await page.locator('input[name^=drop-]').all()) await why.fill('Next week');
    await page.getByLabel('Odometer').fill('88400');
    await page.getByRole('button', { name: 'Open the card' }).click();
    if (await page.locator('input[name^=drop-]').count()) {
      for (const why of await page.locator('input[name^=drop-]').all()) await why.fill('Next week');
      await page.getByRole('button', { name: 'Open the card' }).click();
    }
    await expect(page).toHaveURL(/\/lift\/\d+/);
    await workUpTo(page, 'Wipe the gearbox magnet', async () => {
      while (await page.locator('.waiting-main').count()) {
        await page.waitForTimeout(500);
        await page.reload();
      }
      await page.locator('.lift-main .main').first().click();
    });
    await page.getByRole('button', { name: /Grey paste/ }).first().click();
    await expect(page.locator('.looks-of')).toContainText('Old gearbox oil, 2 of 2');
    await page.getByRole('button', { name: /Milky/ }).click();
    await expect(page.locator('.held')).toContainText('Old gearbox oil: milky or drops of water');
  });
});
