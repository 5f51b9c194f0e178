import { expect, test } from '@playwright/test';
import { PIN, key, openCard, signIn, tapStick, workUpTo } from './lift.mjs';

// The same card from opening to signature: by keyboard on a stand, by thumb on a phone, and without script.
async function walk(page, odometer, by) {
  await signIn(page);
  const card = await openCard(page, odometer);

  await page.goto(`/lift/${card}?step=drain`);
  await expect(page.getByRole('alert').filter({ hasText: 'The kit has not been confirmed yet.' })).toBeVisible();
  await page.goto(`/lift/${card}`);

  await workUpTo(page, 'Take the undertray off', by.press, by.settled);
  await page.goto(`/lift/${card}?panel=stuck`);
  await page.getByLabel('Why?').fill('T30 bit is on the other bench');
  await page.getByRole('button', { name: 'Leave it for later' }).click();
  // All that is left depends on it, so it stays next, and says why it waits; nothing is offered that would be refused.
  await expect(page.locator('main h1')).toContainText('Take the undertray off');
  await expect(page.locator('.phase')).toContainText('left for later: T30 bit is on the other bench');
  await expect(page.locator('.refusal')).toHaveCount(0);

  await page.goto(`/handover/${card}`);
  await page.getByRole('button', { name: 'Sign' }).click();
  await expect(page.getByRole('alert')).toContainText('It cannot be signed yet.');
  await page.getByRole('link', { name: /Take the undertray off.*for later/ }).click();
  await expect(page.locator('main h1')).toContainText('Take the undertray off');
  await page.waitForLoadState('networkidle');
  await by.press();
  await expect(page.locator('main h1')).toContainText('Take the engine drain plug');

  await workUpTo(page, 'Tighten the engine drain plug', by.press, by.settled);
  await page.goto(`/lift/${card}?panel=reading`);
  await page.getByLabel('What did TW-2 say?').fill('28 Nm');
  await page.getByRole('button', { name: 'That is the reading' }).click();
  await expect(page.getByRole('alert')).toContainText('28 N·m does not pass, but 28 lbf·ft would');
  await page.getByRole('button', { name: 'It was 28 lbf·ft' }).click();
  await expect(page.locator('main h1')).toContainText('Wash plug and cap');

  await workUpTo(page, 'Wipe, dip', by.press, by.settled);
  for (const [level, pour] of [[0, '0.70'], [0.5, '0.35']]) {
    await by.read(level);
    await expect(page.locator('.value-figure')).toHaveText(pour);
    await by.press();
  }
  await by.read(0.75);
  await expect(page.locator('main h1')).toContainText('engine cover');

  await workUpTo(page, 'Nothing is open', by.press, by.settled);
  await page.getByLabel("Signer's PIN").fill(PIN);
  await by.press();
  await expect(page).toHaveURL(new RegExp(`/record/${card}`));
  await expect(page.locator('main')).toContainText('28 lbf·ft');
  await expect(page.locator('main')).toContainText('6.05 L');
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden();
  await page.emulateMedia({ media: 'screen' });

  await page.goto('/vehicle/HD-07');
  await expect(page.locator(`.service[href="/record/${card}"]`)).toBeVisible();
}

test('by keyboard, with Enter alone', async ({ page }) => {
  await walk(page, '148200', {
    press: () => key(page, 'Enter'),
    read: async (level) => {
      await tapStick(page, level, (x, y) => page.mouse.click(x, y));
      await key(page, 'Enter');
    },
  });
});

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  test('by thumb', async ({ page }) => {
    const main = () => page.locator('.lift-main .main:not(.waiting-main), .hand-ring .main').first();
    await walk(page, '148300', {
      press: () => main().tap(),
      read: async (level) => {
        await tapStick(page, level, (x, y) => page.touchscreen.tap(x, y));
        await main().tap();
      },
    });
    // The window itself grows with what is too wide for it; the phone does not.
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  });
});

test.describe('with script off', () => {
  test.use({ javaScriptEnabled: false });
  test('by plain forms', async ({ page }) => {
    const settled = async () => {
      while (await page.locator('.waiting-main').count()) {
        await page.waitForTimeout(500);
        await page.reload();
      }
    };
    await walk(page, '148400', {
      settled,
      press: async () => {
        await settled();
        await page.locator('.lift-main .main, .hand-ring .main').first().click();
        await settled();
      },
      read: async (level) => {
        await settled();
        // Enter in the field says what was typed and nothing else.
        await page.getByLabel('Where does the oil stand?').fill(String(level));
        await page.getByLabel('Where does the oil stand?').press('Enter');
      },
    });
  });
});
