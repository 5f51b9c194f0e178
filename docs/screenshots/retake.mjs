// Retakes the pictures of the main views from a fresh demo, at 1280x800 and once at 390x844.
import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import {
  after, key, openWith, signIn, signs, tapStick, title, toTheFirstWheel, usualPress, workUpTo,
} from '../../tests/browser/lift.mjs';
import { startServer } from '../../tests/browser/server.mjs';
import { takeLanguages } from './languages.mjs';

const here = import.meta.dirname;
const port = 5298;
execFileSync(join(here, '../../build/prepare'), { stdio: 'inherit' });
const server = await startServer(
  ['demo', '--data', mkdtempSync(join(tmpdir(), 'anakyklos-pictures-')), '--port', String(port), '--speed', '120'],
  port,
);
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-background-networking'] });
const visit = async (options) =>
  (await browser.newContext({ baseURL: `http://localhost:${port}`, viewport: { width: 1280, height: 800 }, ...options })).newPage();
try {
  const page = await visit({});
  const take = async (name, of = page) => {
    await of.waitForTimeout(400);
    await of.screenshot({ path: join(here, `${name}.png`) });
  };
  const enter = () => key(page, 'Enter');
  await signIn(page);
  await page.goto('/intake?plate=HD-07');
  await page.getByLabel('Odometer').fill('148200');
  await page.getByRole('button', { name: 'Open the card' }).click();
  await page.waitForURL('**/lift/**');
  const card = page.url().match(/lift\/(\d+)/)[1];
  await page.goto('/stores');
  await take('stores');
  await page.getByLabel('Part number').fill('TC-0714-R');
  await page.getByLabel('Pieces').fill('5');
  await page.getByRole('button', { name: 'Book the parts in' }).click();
  await page.waitForURL('**said=**');
  await page.goto(`/lift/${card}`);
  await workUpTo(page, "Wipe the plug's magnet", enter);
  await workUpTo(page, 'Tighten the engine drain plug', enter);
  await page.waitForTimeout(500);
  await take('lift');
  await page.goto('/stand-ins/wrench');
  await page.locator('html[data-awake]:not(.deaf)').waitFor();
  await after(page, () => page.getByRole('button', { name: /^Run the/ }).click());
  await page.locator('.wrench-hold').waitFor();
  await after(page, () => page.getByRole('button', { name: /^As this joint wants it/ }).click());
  await page.locator('.wrench-mark').waitFor();
  // The wrench is carried to the other bay and nobody says so: what it reads there waits.
  await page.locator('html[data-awake]:not(.deaf)').waitFor();
  await after(page, () => page.getByRole('button', { name: 'Bay 2' }).click());
  await page.locator('.wrench-card', { hasText: 'HD-08' }).waitFor();
  await page.goto('/stand-ins/wrench?on=1058/engine-drain-plug', { waitUntil: 'load' });
  await page.locator('html[data-awake]:not(.deaf)').waitFor();
  await page.getByRole('button', { name: /^Run the/ }).click();
  await page.locator('.wrench-hold').hover();
  await page.mouse.down();
  await page.locator('.wrench-click.clicked').waitFor();
  await after(page, () => page.mouse.up());
  await page.goto('/bay/bay-2');
  await page.locator('.reading').waitFor();
  await take('bay');
  await page.locator('.reading summary').click();
  await page.getByLabel('Why').fill('Only for the picture');
  await page.getByRole('button', { name: /^Discard/ }).click();
  await page.locator('.reading-row').waitFor();
  await page.goto(`/lift/${card}`);
  const una = await visit({});
  await signIn(una, 'Una B.');
  await una.goto('/stands/1058');
  await una.getByLabel('Word for whoever goes on').fill('Screw 2 of the tray: a new one is on the bench');
  await after(una, () => una.getByRole('button', { name: 'Leave it here' }).click());
  await una.context().close();
  await page.goto('/');
  await take('yard');
  await page.goto('/week');
  await take('week');
  await page.goto(`/lift/${card}?panel=reading`);
  await page.getByLabel('What did TW-2 say?').fill('28 Nm');
  await enter();
  await page.locator('.question').waitFor();
  await page.getByRole('button', { name: 'It was 28 lbf·ft' }).click();
  await page.getByRole('heading', { name: 'Wash plug' }).waitFor();
  await page.goto(`/lift/${card}`);
  await workUpTo(page, 'Wipe, dip', enter);
  await tapStick(page, 0.25, (x, y) => page.mouse.click(x, y));
  await enter();
  await page.locator('.can-stop-word').waitFor();
  await take('fill');
  await enter();
  await page.waitForTimeout(500);
  await tapStick(page, 0.75, (x, y) => page.mouse.click(x, y));
  await enter();
  await page.getByRole('heading', { name: 'engine cover' }).waitFor();
  await page.goto(`/handover/${card}`);
  await take('handover');
  await page.goto(`/lift/${card}`);
  await workUpTo(page, 'Press the accelerator', enter);
  await take('reset');
  await workUpTo(page, 'Nothing is open', enter);
  await signs(page);
  await page.waitForURL('**/record/**');
  await take('record');
  // The way ahead is prepared, and the line dies.
  await page.goto('/lift/1058');
  await page.waitForTimeout(5000);
  await page.context().setOffline(true);
  await page.locator('.line-strip').waitFor();
  for (const kept of ['One press is', '2 presses are', '3 presses are']) {
    await enter();
    await page.locator('.line-strip', { hasText: kept }).waitFor();
  }
  await take('line');
  await page.context().setOffline(false);
  await page.locator('.line-strip').waitFor({ state: 'hidden' });
  // A lesson whose hands are in a hurry: the drain plug is out, and the card does not know of the bonnet.
  await page.goto('/practice/lesson/first-oil-change');
  await page.locator('html[data-awake]:not(.deaf)').waitFor();
  await after(page, () => page.getByRole('button', { name: 'Begin' }).click());
  const hands = async (thing, does) => {
    await after(page, () => page.locator('.bay-thing', { hasText: thing }).first().click());
    await page.locator('html[data-awake]:not(.deaf)').waitFor();
    await after(page, () => page.locator('.bay-choices button', { hasText: does }).first().click());
  };
  await page.locator('#kit [name=pan]').fill('20 L');
  await page.locator('.lift-main .main').click();
  await page.locator('#kit').waitFor({ state: 'detached' });
  await page.locator('html[data-awake]:not(.deaf)').waitFor();
  await hands('Wheel chocks', 'Set it');
  for (let presses = 0; presses < 8 && !(await title(page)).includes('drain plug'); presses++) {
    const now = await title(page);
    if (now.includes('lifting points')) await hands('Lift', 'Set the arms');
    if (now.includes('Raise')) await hands('Lift', 'Raise it');
    await enter();
    await page.waitForFunction((was) => document.querySelector('main h1').innerText !== was, now);
  }
  await key(page, '4');
  await page.locator('.bay-here', { hasText: 'under it' }).waitFor();
  await hands('Pan 1', 'engine oil');
  await hands('Engine drain plug', 'Undo it');
  await take('practice');
  // From here on only talked, and signed: what a look back is for.
  const lesson = page.url().match(/lift\/(\d+)/)[1];
  for (let presses = 0; presses < 80 && (await page.locator('main.lift').count()); presses++) {
    const wait = page.locator('button.waiting-main');
    if (await wait.count()) await after(page, () => wait.click());
    else await usualPress(page, 2);
  }
  await page.goto(`/practice/${lesson}/handover`);
  await page.locator('html[data-awake]:not(.deaf)').waitFor();
  const sign = page.getByRole('button', { name: /^Sign it/ });
  if (await sign.count()) await after(page, () => sign.click());
  await page.locator('form[action*="handler=End"] button').click();
  await page.waitForURL('**/debrief');
  await take('debrief');
  await page.goto('/library/corran-fen-12');
  await page.locator('html[data-awake]:not(.deaf)').waitFor();
  await after(page, () => page.getByRole('button', { name: 'Write the next from it' }).first().click());
  await page.goto(`${page.url().split('?')[0]}?at=fasteners.engine-drain-plug`);
  await page.locator('[name="fasteners.engine-drain-plug.torque.is"]').fill('350 Nm');
  await page.locator('html[data-awake]:not(.deaf)').waitFor();
  await after(page, () => page.getByRole('button', { name: 'Keep it' }).click());
  await takeLanguages(browser, `http://localhost:${port}`, page.url().replace(/^.*?(?=\/library)/, '').replace(/&.*/, ''), '/lift/1058',
    join(here, 'languages.png'));
  await page.goto('/vehicle/HD-07');
  await take('vehicle');
  await page.goto('/intake?plate=HD-11');
  await page.getByLabel('Odometer').fill('88 000');
  await page.getByText('A trip ahead?').click();
  await page.getByLabel('There and back').fill('1 600');
  await page.getByLabel('There and back').blur();
  await page.waitForTimeout(1500);
  await page.evaluate(() => document.querySelector('.dash-fields').scrollIntoView());
  await take('intake');
  for (const job of await page.locator('input[name=job]').all())
    if (!/brake-fluid/.test(await job.getAttribute('value'))) await job.check();
  await page.getByRole('button', { name: 'Open the card' }).click();
  await page.waitForURL('**/lift/**');
  const brae = page.url().match(/lift\/(\d+)/)[1];
  await page.goto(`/plan/${brae}?step=fill-rear-axle-oil`);
  await take('plan');
  await page.goto('/handover/1057');
  await signs(page);
  await page.waitForURL('**/record/**');
  await toTheFirstWheel(page, 'HD-02', '39900');
  for (const stroke of ['1', '2', '3', '4', '5', '6']) {
    await enter();
    await page.locator('.value-figure', { hasText: stroke }).waitFor();
  }
  await page.getByRole('button', { name: 'Dark', exact: true }).click();
  await take('bleed');
  await page.goto('/library');
  await take('library');
  await openWith(page, 'HD-04', '122000', ['wear-check']);
  await workUpTo(page, 'Measure the brake pads', () => usualPress(page));
  await page.locator('#value').fill('3.4 2.9');
  await after(page, enter);
  const phone = await visit({ viewport: { width: 390, height: 844 } });
  await signIn(phone);
  await phone.goto(page.url());
  await phone.locator('html[data-awake]:not(.deaf)').waitFor();
  await take('phone', phone);
  await phone.context().close();
  console.log(`Pictures taken; the last page was “${await title(page)}”.`);
} finally {
  await browser.close();
  await server.kill();
}
