import { expect } from '@playwright/test';
import { after, answered, heading, usualPress } from './lift.mjs';

export const said = (hand) => hand.locator('.wrench-said');

// Onto the joint that lies nearest, set as it wants it, and pulled: by so many degrees, or held until it clicks and let go, which ends
// where the machine lets it.
export async function pull(hand, degrees = 0) {
  await hand.goto('/stand-ins/wrench');
  await hand.locator('html[data-awake]:not(.deaf)').waitFor();
  const loose = hand.getByRole('button', { name: /^Run the/ });
  if (await loose.count()) await loose.click();
  await hand.locator('.wrench-hold').waitFor();
  const wants = hand.getByRole('button', { name: /^As this joint wants it/ });
  const to = (await wants.innerText()).match(/: ([\d.]+)/)[1];
  await after(hand, () => wants.click());
  await hand.locator('html[data-awake]:not(.deaf)').waitFor();
  await expect(hand.locator('.wrench-setting')).toContainText(to);
  // What is tight already clicks at once, and is let go of then.
  if (degrees > 0 && (await hand.locator('.seat.chosen').innerText()).includes('run in by hand')) {
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

/**
 * Works the card to its hand-over with the wrench of its bay wherever a click is wanted, and by the usual press elsewhere; the lift hears
 * each click by itself. Gives what each joint clicked at, in their order.
 */
export async function workWithWrench(page, hand) {
  const [seen, clicks] = [new Map(), []];
  while (new URL(page.url()).pathname.startsWith('/lift/')) {
    if (await page.locator('.waiting-main').count()) {
      await expect(page.locator('.waiting-main')).toHaveCount(0, { timeout: 60_000 });
      continue;
    }
    if (await answered(page)) continue;
    const now = await heading(page);
    seen.set(now, (seen.get(now) ?? 0) + 1);
    expect(seen.get(now), `“${now}” comes again and again`).toBeLessThan(40);
    const main = (await page.locator('.lift-main .main').first().innerText()).replace(/\s+/g, ' ');
    if (!/clicked at/i.test(main) || !(await page.locator('.phase').innerText()).includes('TW-2 sends its click here')) {
      await usualPress(page, seen.get(now));
      continue;
    }
    // It clicks at 60 degrees and gives way after that.
    clicks.push(await pull(hand, 65));
    await expect(said(hand)).toContainText(`is noted at “${now}”`);
    // The lift moves on by itself and says so.
    await expect(page.locator('.meanwhile')).toContainText('sent by TW-2');
    await expect
      .poll(async () => `${await heading(page)} ${await page.locator('.lift-main .main').first().innerText()}`.replace(/\s+/g, ' '))
      .not.toBe(`${now} ${main}`);
  }
  return clicks;
}
