import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { after, heading, key, openWith, signIn, usualPress } from './lift.mjs';
import { startServer } from './server.mjs';

// A workshop of its own: what is made wrong with a vehicle here is nobody else's trouble.
const PORT = 5198;
let server;
test.beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'anakyklos-behind-'));
  server = await startServer(['demo', '--data', folder, '--port', String(PORT), '--speed', '240'], PORT);
});
test.afterAll(() => server.kill());
test.use({ baseURL: `http://localhost:${PORT}` });

// By the usual press until a step whose title fits is there.
async function upTo(page, title, seen) {
  for (let presses = 0; presses < 80; presses++) {
    if (await page.locator('.waiting-main').count()) {
      await expect(page.locator('.waiting-main')).toHaveCount(0, { timeout: 60_000 });
      continue;
    }
    const now = await heading(page);
    if (title.test(now)) return;
    seen.set(now, (seen.get(now) ?? 0) + 1);
    expect(seen.get(now), `“${now}” comes again and again`).toBeLessThan(16);
    await usualPress(page, seen.get(now));
  }
  throw new Error(`Never came to ${title}.`);
}

async function spoil(vehicle, wrong) {
  await vehicle.locator('html[data-awake]:not(.deaf)').waitFor();
  await vehicle.locator('#fault').selectOption({ label: wrong });
  await after(vehicle, () => vehicle.getByRole('button', { name: 'Let it be so' }).click());
}

test('a seized fill plug and a wrong filter: card and vehicle both tell it', async ({ page, context }) => {
  test.setTimeout(480_000);
  await signIn(page);
  const card = await openWith(page, 'HD-11', '88400', ['engine-oil-and-filter', 'gearbox-oil']);
  const vehicle = await context.newPage();
  await vehicle.goto(`/stand-ins/vehicle?card=${card}`);
  await spoil(vehicle, 'Seized: gearbox fill plug');
  await spoil(vehicle, 'Another size in the box: oil filter');
  const [seen, felt] = [new Map(), vehicle.getByRole('region', { name: 'Seen and felt' })];
  const accounts = vehicle.getByRole('region', { name: 'Two accounts' });
  await expect(felt).toContainText('Nothing out of the way');

  // It does not move; whoever says all the same that it is loose is told apart from the vehicle, and takes it back.
  await upTo(page, /fill plug/i, seen);
  await vehicle.reload();
  await expect(felt).toContainText('Gearbox fill plug: it does not move');
  await after(page, () => key(page, 'Enter'));
  await vehicle.reload();
  await expect(accounts).toContainText('Gearbox fill plug: the card says open, the vehicle is tight');
  await expect(vehicle.getByRole('region', { name: 'What happened' })).toContainText('Gearbox fill plug: it does not move');
  await after(page, () => key(page, 'u'));
  await expect(page.locator('h1')).toContainText('fill plug');
  await vehicle.reload();
  await expect(accounts).toContainText('agree');

  // So the job is given up, and its drain plug was never touched.
  await after(page, () => key(page, 'c'));
  await page.getByLabel('Why?').fill('Fill plug is seized');
  await after(page, () => page.getByRole('button', { name: 'Give up: gearbox oil' }).click());
  await upTo(page, /against the new/, seen);
  await vehicle.reload();
  await expect(felt).toContainText('Oil filter: half the size of the old one');
  await expect(vehicle.getByRole('img', { name: /^Gearbox oil: 2.40 L in it, 0.00 L in the pan/ })).toBeVisible();

  // The wrong filter stops the engine until the right one is there and the lead has said so.
  await after(page, () => key(page, 's'));
  await page.getByText('stop', { exact: true }).click();
  await page.getByLabel('What did you see?').fill('Filter is half the size');
  await after(page, () => page.getByRole('button', { name: 'Note it' }).click());
  await after(vehicle, () => vehicle.getByRole('button', { name: 'Fetch the right oil filter' }).click());
  await expect(felt).not.toContainText('half the size');
  await upTo(page, /^Start it/, seen);
  await expect(page.locator('.refusal')).toContainText('“Filter is half the size” was graded stop.');
  await page.goto(`/handover/${card}`);
  await page.getByLabel('What was decided').fill('Right filter fetched and fitted');
  await page.locator('.stop-decision input[name=pin]').fill('2468');
  await after(page, () => page.getByRole('button', { name: 'It is mended' }).click());
  await page.goto(`/lift/${card}`);
  await upTo(page, /^Switch the engine off/, seen);
  await vehicle.reload();
  await expect(vehicle.locator('.behind-state')).toContainText('engine runs');
  await expect(accounts).toContainText('agree');
  await expect(vehicle.getByRole('region', { name: 'What happened' })).toContainText('No harm came to it.');
});

test('a vehicle that may have been driven in is felt before it is opened cold', async ({ page, context }) => {
  await signIn(page);
  const card = await openWith(page, 'HD-15', '24600', ['belt']);
  for (let presses = 0; presses < 30 && !(await page.getByRole('button', { name: 'It is cold to the hand' }).count()); presses++)
    await usualPress(page, 1);
  await expect(page.locator('.refusal')).toContainText('Nobody has felt whether the engine is cold');
  const vehicle = await context.newPage();
  await vehicle.goto(`/stand-ins/vehicle?card=${card}`);
  await expect(vehicle.locator('.behind-figure.hot')).toBeVisible();
  await after(page, () => key(page, 'Enter'));
  await expect(page.locator('.refusal')).toHaveCount(0);
});
