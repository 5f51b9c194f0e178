import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { SOON, answered, felt, gauged, key, signIn, title, where } from './lift.mjs';

const EIGHTH = readFileSync(new URL('./curlew-60.json', import.meta.url), 'utf8');
const FULL = [
  'Gearbox oil',
  'Transfer case oil',
  'Front axle oil',
  'Rear axle oil, limited slip',
  'Coolant',
  'Air filter',
  'Fuel filter',
  'Grease points',
];

async function intake(page, plate, jobs, odometer) {
  await page.goto(`/intake?plate=${plate}`);
  for (const job of jobs) {
    const plan = page.locator('#composed .plan-total');
    // What a noted trip would run over is chosen beforehand.
    if (await page.getByLabel(job, { exact: true }).isChecked()) continue;
    const before = await page.locator('#composed').innerText();
    await page.getByLabel(job, { exact: true }).check();
    await expect.poll(() => page.locator('#composed').innerText()).not.toBe(before);
    await expect(plan).toBeVisible();
  }
  await page.getByLabel('Odometer').fill(odometer);
  await page.getByRole('button', { name: 'Open the card' }).click();
  await expect(page).toHaveURL(/\/lift\/\d+/);
  return Number(page.url().match(/lift\/(\d+)/)[1]);
}

/** Presses the big button so many times, filling in what a step asks for; waits run fast on this server. */
async function press(page, times) {
  for (let n = 0; n < times; n++) {
    const [now, at] = [await title(page), await where(page)];
    if (await page.locator('.waiting-main').count()) {
      await expect(page.locator('.waiting-main')).toHaveCount(0, { timeout: 30_000 });
      n--;
      continue;
    }
    if ((await felt(page)) || (await answered(page))) {
      n--;
      continue;
    }
    if (await page.locator('#kit').count()) {
      for (const field of await page.locator('#kit .kit-amounts input').all()) {
        const name = await field.getAttribute('name');
        if (name === 'pan') await field.fill('20 L + 20 L + 20 L');
        else if (name.endsWith('.amount')) await field.fill('20 L');
        else if (name.endsWith('.product') && !(await field.inputValue())) await field.fill('Red drum');
        else if (name.endsWith('.reason') && !(await field.inputValue())) {
          if (!(await field.isVisible())) await field.locator('xpath=ancestor::details/summary').click();
          await field.fill('What the drum holds is not in the book yet');
        }
      }
    }
    if (await page.locator('.panel #amount').count()) {
      await page.getByLabel('How much came out?').fill('7.4 L');
      await page.getByRole('button', { name: 'That came out' }).click();
      await expect.poll(() => title(page)).not.toBe(now);
      continue;
    }
    if (await gauged(page)) await page.locator('.lift-main .main').click();
    else await key(page, 'Enter');
    if (await page.locator('input:focus').count()) await page.locator('.lift-main .main').click();
    await expect
      .poll(async () => (await page.locator('.waiting-main, .question').count()) > 0 || (await where(page).catch(() => at)) !== at, {
        message: `the press at “${now}”`,
        ...SOON,
      })
      .toBe(true);
    // Some steps are a list, and take a press for each of its points.
    if ((await title(page)) === now) n--;
  }
}

test('a full service of six fluids is composed, worked, jumped, held up and put in order again', async ({ page }) => {
  await signIn(page);
  const card = await intake(page, 'HD-11', FULL, '88 400');
  await press(page, 20);

  // A step taken before its turn says what it costs and comes first.
  await page.goto(`/plan/${card}`);
  const early = page.getByRole('button', { name: 'Do it now' });
  for (const link of await page.locator('.plan-list a').evaluateAll((all) => all.slice(2).map((a) => a.getAttribute('href')))) {
    await page.goto(link);
    if (await early.count()) break;
  }
  const jumped = await page.locator('.why h2').innerText();
  await expect(page.locator('.why-do')).toContainText(/later|Costs no time/);
  await early.click();
  await expect(page).toHaveURL(/\/lift\//);
  expect((await title(page)).replace(/\s+/g, ' ')).toBe(jumped);
  await press(page, 1);

  // One that waits for a part goes last; the plan says so and goes on without it.
  const stuck = await title(page);
  await page.getByRole('link', { name: /Can't finish this/ }).click();
  await page
    .getByLabel(/Why|reason/i)
    .first()
    .fill('The part comes on Friday');
  await page.getByRole('button', { name: /later/i }).click();
  await expect.poll(() => title(page)).not.toBe(stuck);
  await page.goto(`/plan/${card}`);
  await expect(page.locator('.blocked')).toContainText('The part comes on Friday');
  await expect(page.locator('.lanes')).toBeVisible();
  await page.getByRole('link', { name: 'With two people' }).click();
  await expect(page.locator('.plan-list')).toContainText(['second person']);
  await page.getByRole('link', { name: /To the lift/ }).click();
  await press(page, 2);
});

for (const [plate, jobs, odometer] of [
  ['HD-15', ['Gearbox oil', 'Primary case oil', 'Belt tension'], '24 300'],
  ['HD-04', ['Automatic gearbox: oil, pan and inner filter', 'Air filter'], '121 900'],
]) {
  test(`several jobs on ${plate} make one card that is worked in its order`, async ({ page }) => {
    await signIn(page);
    const card = await intake(page, plate, jobs, odometer);
    await press(page, 20);
    await page.goto(`/plan/${card}`);
    await expect(page.locator('.plan-facts')).toContainText('cannot be done faster than');
  });
}

test('the plan works on a phone and with script off', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, javaScriptEnabled: false });
  const page = await context.newPage();
  await signIn(page);
  await page.goto('/intake?plate=HD-02');
  await page.getByLabel('Spark plugs', { exact: true }).check();
  await page.getByRole('button', { name: 'Show jobs and plan' }).click();
  await expect(page.locator('#composed')).toContainText('Spark plugs');
  await page.goto('/plan/1058');
  await page.locator('.plan-list a').nth(3).click();
  await expect(page.locator('.why')).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await context.close();
});

test('every step of a full service fits on a phone', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true });
  const page = await context.newPage();
  await signIn(page);
  await page.goto('/');
  const standing = page.locator('a[href^="/lift/"]', { hasText: 'HD-11' });
  const card = (await standing.count())
    ? Number((await standing.first().getAttribute('href')).match(/\d+/)[0])
    : await intake(page, 'HD-11', FULL, '88 400');
  await page.goto(`/lift/${card}?panel=jump`);
  const steps = await page.locator('a[href*="?step="]').evaluateAll((links) => links.map((link) => link.getAttribute('href')));
  expect(steps.length).toBeGreaterThan(80);
  await expect(page.locator('a[href*="?step="]', { hasText: 'Tighten the oil filter' })).not.toHaveCount(0);
  for (const step of steps) {
    await page.goto(step);
    expect(await page.evaluate(() => document.documentElement.scrollWidth), step).toBeLessThanOrEqual(390);
  }
  await context.close();
});

test('an eighth model is a file: checked with errors by line, brought in, composed and worked', async ({ page }) => {
  await signIn(page, 'Una B.');
  await page.goto('/library');
  const file = (text) => ({ name: 'curlew-60.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  await page.getByLabel('Sheet file').setInputFiles(file(EIGHTH.replace('"needs": ["hood"]', '"needs": ["bonnet"]')));
  await page.getByRole('button', { name: 'Check and bring in' }).click();
  await expect(page.locator('.sheet-errors')).toContainText(/Line \d+.*There is no access “bonnet”/);
  await page.getByLabel('Sheet file').setInputFiles(file(EIGHTH));
  await page.getByRole('button', { name: 'Check and bring in' }).click();
  await expect(page.getByRole('status').first()).toContainText('Curlew 60 tractor, revision 1, is in');
  await page.getByRole('link', { name: /Curlew 60 tractor/ }).click();
  await page.getByRole('link', { name: 'Sump plug' }).click();
  await expect(page.locator('.map-here').first()).toBeVisible();

  await page.goto('/intake');
  await page.getByText('not on the list yet').click();
  await page.getByLabel('Model', { exact: true }).selectOption({ label: 'Curlew 60 tractor' });
  await expect(page.getByLabel('Hydraulic oil', { exact: true })).toBeVisible();
  await page.getByLabel('Engine oil', { exact: true }).check();
  await page.getByLabel('Hydraulic oil', { exact: true }).check();
  await expect(page.locator('#composed')).toContainText('Hydraulic drain plug');
  await page.getByLabel('Plate').fill('HD-20');
  await page.getByLabel('Model year').fill('2012');
  await page.getByLabel('Odometer').fill('3 100');
  await page.getByRole('button', { name: 'Open the card' }).click();
  await expect(page).toHaveURL(/\/lift\/\d+/);
  await press(page, 12);
});
