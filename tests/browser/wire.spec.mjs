import { expect, test } from '@playwright/test';
import { key, openCard, signIn, title, workUpTo } from './lift.mjs';

test.describe.configure({ mode: 'serial' });
let card = 0;

test('a press while the line is dead is kept, said so, and sent once', async ({ page, context }) => {
  await signIn(page);
  card = await openCard(page, '148500');
  await context.setOffline(true);
  await key(page, 'Enter');
  await expect(page.getByRole('status').filter({ hasText: 'No line since' })).toContainText('One press is kept here');
  await context.setOffline(false);
  await expect(page.locator('main h1')).toContainText('Chock the rear wheels');
  const events = await (await page.request.get(`/api/v1/cards/${card}/events`)).json();
  expect(events.filter((e) => e.event.event === 'KitConfirmed')).toHaveLength(1);
});

test('a second screen moves on by itself and says who did it', async ({ page, browser }) => {
  const other = await browser.newPage();
  await signIn(page);
  await page.goto(`/lift/${card}`);
  await signIn(other, 'Una B.');
  await other.goto(`/lift/${card}`);
  await expect(page.locator('main h1')).toContainText('Chock the rear wheels');
  await key(other, 'Enter');
  await expect(page.locator('.meanwhile')).toContainText('Una B.');
  await expect(page.locator('main h1')).toContainText('Run the engine warm');
  await other.close();
});

// Pressed the moment the page shows what is next: nobody has read it.
const pressAtOnce = (page, was) =>
  page.waitForFunction((before) => {
    const press = document.querySelector('.lift-main .main');
    if (document.querySelector('main h1').innerText === before || !document.documentElement.matches('.deaf') || !press) return false;
    press.click();
    return true;
  }, was);

test('a glove that taps twice, or a screen that was moved on under it, does not press the next step', async ({ page, browser }) => {
  const counted = async () => (await (await page.request.get(`/api/v1/cards/${card}/events`)).json()).length;
  const other = await browser.newPage();
  await signIn(page);
  await page.goto(`/lift/${card}`);
  await signIn(other, 'Una B.');
  await other.goto(`/lift/${card}`);
  for (const pressed of [page, other]) {
    const [was, before] = [await title(page), await counted()];
    const echo = pressAtOnce(page, was);
    await key(pressed, 'Enter');
    await echo;
    await expect(page.locator('html')).not.toHaveClass(/deaf/);
    expect(await counted()).toBe(before + 1);
    await expect(page.locator('body')).not.toHaveClass(/busy/);
  }
  await other.close();
});

test('a second screen on which something was typed is asked first', async ({ page, browser }) => {
  const other = await browser.newPage();
  await signIn(page);
  await page.goto(`/lift/${card}?panel=stuck`);
  await page.getByLabel('Why?').fill('half a sentence');
  await signIn(other, 'Una B.');
  await other.goto(`/lift/${card}`);
  await key(other, 'Enter');
  await expect(page.getByText('Somebody else moved this card on.')).toBeVisible();
  await expect(page.getByLabel('Why?')).toHaveValue('half a sentence');
  await other.close();
});

test('a wait survives a reload and another screen', async ({ page }) => {
  await signIn(page);
  await page.goto(`/lift/${card}`);
  await workUpTo(page, 'Wipe the plug', () => key(page, 'Enter'));
  const clock = page.locator('.waiting .clock');
  await expect(clock).toHaveText(/^\d\d:\d\d$/);
  await page.reload();
  await expect(clock).toHaveText(/^\d\d:\d\d$/);
  await expect(page.locator('.waiting')).toContainText('is over', { timeout: 20_000 });
});

test('letters press the other buttons and ? lists them', async ({ page }) => {
  await signIn(page);
  await page.goto(`/lift/${card}`);
  await page.keyboard.press('?');
  await expect(page.locator('.keys')).toContainText('saw something');
  await page.waitForLoadState();
  await page.keyboard.press('s');
  await page.getByText('keep an eye on it').click();
  await page.getByLabel('What did you see?').fill('Glitter in the paste');
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByLabel('What did you see?')).toHaveCount(0);
  await page.waitForLoadState();
  await page.keyboard.press('j');
  await expect(page.locator('.jump')).toBeVisible();
  await page.waitForLoadState();
  await page.keyboard.press('h');
  await expect(page.locator('.history')).toContainText('Glitter in the paste, keep an eye on it');
});

test('the dipstick is read with arrow keys', async ({ page }) => {
  await signIn(page);
  await page.goto(`/lift/${card}`);
  await workUpTo(page, 'Wipe, dip', () => key(page, 'Enter'));
  await expect(page.getByRole('slider')).toBeVisible({ timeout: 20_000 });
  await page.getByRole('slider').focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowUp');
  await expect(page.getByLabel('Where does the oil stand?')).toHaveValue('0.25');
  await key(page, 'Enter');
  await expect(page.locator('.value-figure')).toHaveText('0.70');
});

test('a PIN that was typed while the line is dead is never kept in the browser', async ({ page, context }) => {
  await signIn(page);
  await page.goto(`/lift/${card}?panel=saw`);
  await page.getByText('stop', { exact: true }).click();
  await page.getByLabel('What did you see?').fill('Slivers on the magnet');
  await page.getByRole('button', { name: /Note it|That is what/ }).click();
  await page.goto(`/handover/${card}`);
  await page.getByLabel('What was decided').fill('Bearing looked at, may run');
  // Enter after the PIN is no decision.
  await page.locator('.stop-decision input[name=pin]').fill('2468');
  await page.locator('.stop-decision input[name=pin]').press('Enter');
  await expect(page.locator('.stop-decision [role=alert]')).toContainText('Nobody said whether it is put right.');
  await page.getByLabel('Decided by').selectOption({ index: 0 });
  await page.locator('.stop-decision input[name=pin]').fill('2468');
  await context.setOffline(true);
  await page.getByRole('button', { name: 'It may go as it is' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'the PIN was not kept' })).toBeVisible();
  expect(await page.evaluate(() => JSON.stringify({ ...localStorage, ...sessionStorage }))).not.toContain('2468');
  await context.setOffline(false);
  await page.getByRole('button', { name: 'It may go as it is' }).click();
  await expect(page.locator('.stop-decision')).toHaveCount(0);
});
