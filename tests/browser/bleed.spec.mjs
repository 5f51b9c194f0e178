import { expect, test } from '@playwright/test';
import { SOON, answered, key, signIn, title, toTheFirstWheel, signs } from './lift.mjs';

test.describe.configure({ mode: 'serial' });
let card = 0;

const figure = (page) => page.locator('.value-figure');

test('a wheel is bled stroke by stroke; the reservoir warns in time, bubbles begin it again, a wrong count is not taken', async ({
  page,
}) => {
  await signIn(page);
  card = await toTheFirstWheel(page);
  await expect(page.locator('main h1')).toContainText('Rear right');
  await expect(page.locator('.two-people')).toContainText('Takes two');
  await expect(figure(page)).toHaveText('0');
  for (const stroke of ['1', '2', '3']) {
    await key(page, 'Enter');
    await expect(figure(page)).toHaveText(stroke);
  }
  await expect(page.locator('.reservoir-left')).toContainText('7 strokes');
  await page.keyboard.press('o');
  await page.getByLabel('How many full strokes').fill('9');
  await page.getByRole('button', { name: 'That is so' }).click();
  await expect(page.getByRole('alert')).toContainText('The reservoir holds 7 more strokes, not 9.');
  await expect(page.getByLabel('How many full strokes')).toHaveValue('9');
  await page.getByLabel('How many full strokes').fill('7');
  await page.getByRole('button', { name: 'That is so' }).click();
  await expect(page.locator('.reservoir-left')).toContainText('Fill it now');
  await page.getByRole('button', { name: 'Bubbles', exact: true }).click();
  await expect(figure(page)).toHaveText('0');
  await expect(page.locator('.lift-main .main')).toContainText('Filled to the upper line');
  await key(page, 'Enter');
  await expect(page.locator('.reservoir-left')).toContainText('10 strokes');
  await key(page, 'u');
  await expect(page.locator('.reservoir-left')).toContainText('Fill it now');
});

test('the two take turns by key and tap: half a stroke counts nothing, and the half whose turn it is not cannot be pressed', async ({
  page,
}) => {
  await signIn(page);
  await page.goto(`/lift/${card}`);
  await key(page, 'Enter');
  const [down, shut] = [page.getByRole('button', { name: /It is down/ }), page.getByRole('button', { name: /It is shut/ })];
  await expect(shut).toBeDisabled();
  await key(page, 'a');
  await page.keyboard.press('a');
  await expect(down).toBeDisabled();
  await expect(figure(page)).toHaveText('0');
  await page.reload();
  await expect(shut).toBeDisabled();
  await page.getByRole('heading', { name: 'In the cab' }).click();
  await shut.click();
  await expect(figure(page)).toHaveText('1');
  const turn = page.locator('[data-key="a"]');
  await expect(turn).toContainText('It is down');
  await key(page, 'a');
  await expect(turn).toContainText('It is shut');
  await key(page, 'a');
  await expect(figure(page)).toHaveText('2');
  await page.getByRole('button', { name: 'Bubbles', exact: true }).click();
  await expect(figure(page)).toHaveText('0');
  await page.locator('.lift-bar').getByText('Topped up').click();
  await expect(page.locator('.reservoir-left')).toContainText('10 strokes');
});

test('the same wheel goes on by a phone with script off, and a reading too small is not taken', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, javaScriptEnabled: false });
  const page = await context.newPage();
  await signIn(page);
  await page.goto(`/lift/${card}`);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  for (let stroke = 1; stroke <= 10; stroke++) {
    await page.getByRole('button', { name: /One stroke/ }).click();
    await expect(figure(page)).toHaveText(`${stroke}`);
  }
  await page.getByRole('button', { name: 'Dark', exact: true }).click();
  await expect(page.locator('.lift-main .main')).toContainText('Filled to the upper line');
  await page.getByRole('button', { name: 'Clear', exact: true }).click();
  await expect(figure(page)).toHaveText('9');
  const other = async (reading) => {
    await page.getByRole('link', { name: /Other reading/ }).click();
    await page.getByLabel(/say\?$/).fill(reading);
    await page.getByRole('button', { name: 'That is the reading' }).click();
  };
  await other('5');
  await expect(page.getByRole('alert').first()).toContainText('5 N·m is too little.');
  await other('80 lbf·in');
  await expect(page.locator('main h1')).toContainText('Rear left');
  await context.close();
});

test('the usual press alone bleeds the other wheels, and the card is signed', async ({ page }) => {
  test.setTimeout(480_000);
  await signIn(page);
  await page.goto(`/lift/${card}`);
  for (let presses = 0; presses < 120 && new URL(page.url()).pathname.startsWith('/lift/'); presses++) {
    if (await page.locator('.waiting-main').count()) {
      await expect(page.locator('.waiting-main')).toHaveCount(0, { timeout: 30_000 });
      continue;
    }
    await answered(page);
    const sight = () =>
      page
        .locator('main')
        .innerText()
        .catch(() => '');
    const before = await sight();
    await key(page, 'Enter');
    await expect.poll(sight, { message: `the press at “${await title(page).catch(() => '')}”`, ...SOON }).not.toBe(before);
  }
  await expect(page).toHaveURL(new RegExp(`/handover/${card}`));
  await signs(page);
  await expect(page).toHaveURL(new RegExp(`/record/${card}`));
  for (const wheel of [
    'rear right: 80 lbf·in, passes',
    'rear left: TW-2 clicked at 9 N·m, passes',
    'front right: TW-2 clicked at 9 N·m, passes',
    'front left: TW-2 clicked at 9 N·m, passes',
  ])
    await expect(page.locator('main')).toContainText(`Bleed screw, ${wheel}`);
  await expect(page.locator('main')).toContainText('It stood high and hard, and stayed there');
});
