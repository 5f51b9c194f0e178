import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { AxeBuilder } from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { after, signIn } from './lift.mjs';
import { startServer } from './server.mjs';

// The demo is open from Monday to Friday.
function nextWorkday() {
  const day = new Date(Date.now() + 86_400_000);
  while (day.getUTCDay() % 6 === 0) day.setUTCDate(day.getUTCDate() + 1);
  return day.toISOString().slice(0, 10);
}

const PAGES = [
  '/',
  '/intake',
  '/lift/1058',
  '/lift/1058?step=drain',
  '/lift/1058?step=lay-out-kit',
  '/lift/1058?step=tighten-drain-plug',
  '/lift/1058?step=first-pour',
  '/lift/1058?panel=stuck',
  '/lift/1058?panel=saw',
  '/lift/1058?panel=jump',
  '/lift/1058?panel=keys',
  '/lift/1058?step=tighten-drain-plug&panel=map',
  '/stands/1058',
  '/library/corran-fen-12/own',
  '/handover/1058',
  '/record/1003',
  '/vehicle/HD-07',
  '/desk',
  '/drums',
  '/brought-in',
  '/library/hespin-16',
  '/vehicle/HD-11',
  '/vehicle/HD-04',
  '/week',
  '/week?week=2',
  `/week?day=${nextWorkday()}`,
  '/week/HD-15',
  '/week/HD-07',
  '/kit/1058',
  '/kit/1056',
  '/laboratory',
  '/sample/1048-1P',
  '/stores',
  '/stores?q=tc0621f',
  '/stand-ins/dispenser',
  '/stand-ins/wrench',
  '/bay/bay-1',
  '/library',
  '/library/tarn-courier-20d?point=drive-belt',
  '/plan/1058',
  '/you',
  '/workshop', '/equipment', '/people', '/trail', '/first-hour',
  '/stores/crib', '/stores/container/1', '/stores/part/TC0621F', '/stores/part', '/stores/oils',
  '/tokens', '/made-up', '/help/lift', '/help/how-the-card-thinks',
  '/stores/oils?name=Gannet%20Lowash%205W-30',
  '/practice', '/practice?sheet=corran-fen-12', '/practice/lesson/air-in-the-rear-right',
  '/nowhere',
];

async function look(page, rules) {
  const axe = new AxeBuilder({ page });
  const { violations } = await (rules ? axe.withRules(rules) : axe).analyze();
  expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target).join(' ')}`)).toEqual([]);
}

// The pages of one run that goes on and of one that was looked back on.
async function practised(page) {
  const runs = [];
  for (let n = 0; n < 2; n++) {
    await page.goto('/practice/lesson/ring-that-stayed-on');
    await after(page, () => page.getByRole('button', { name: /^Begin/ }).click());
    runs.push(page.url().match(/lift\/(\d+)/)[1]);
  }
  await page.goto(`/practice/${runs[1]}/handover`);
  await after(page, () => page.getByRole('button', { name: 'look back' }).click());
  return [`/lift/${runs[0]}`, `/lift/${runs[0]}?panel=saw`, `/practice/${runs[0]}/handover`, `/practice/${runs[1]}/debrief`,
    `/practice/${runs[1]}/replay`];
}

// The pages of a sheet that is being written.
async function written(page) {
  await page.goto('/library/corran-fen-12');
  await after(page, () => page.getByRole('button', { name: 'Write the next from it' }).first().click());
  const draft = page.url().split('?')[0];
  return [draft, `${draft}?at=fasteners.engine-drain-plug`, `${draft}?at=jobs.engine-oil-and-filter`, `${draft}?at=maps.below`,
    `${draft}?at=&walk=yes`, `${draft}/use`];
}

// By night only the colours differ.
for (const [look_, name, rules] of [
  ['day', 'Day'],
  ['night', 'Night', ['color-contrast']],
]) {
  test(`axe finds nothing on any page by ${look_}`, async ({ page }) => {
    // Two dozen pages in one test: a busy machine takes longer over them than over any other.
    test.setTimeout(1_200_000);
    await page.goto('/signin');
    await look(page);
    await signIn(page, 'Una B.');
    await page.goto('/you');
    await page.getByText(name, { exact: true }).click();
    await page.getByRole('button', { name: 'Keep it so' }).click();
    await expect(page.locator('html')).toHaveAttribute('data-look', look_);
    for (const address of [...PAGES, ...(await practised(page)), ...(await written(page))]) {
      await page.goto(address);
      await test.step(address, () => look(page, rules));
    }
  });
}

test('text at the lift reaches 7:1 against its ground', async ({ page }) => {
  await signIn(page);
  await page.goto('/lift/1058');
  const { violations } = await new AxeBuilder({ page }).withRules(['color-contrast-enhanced']).analyze();
  expect(violations.flatMap((v) => v.nodes.map((n) => `${n.target} ${n.any[0]?.message}`))).toEqual([]);
});

test('buttons at the lift are at least 64 px high, the value over 100 px', async ({ page }) => {
  await signIn(page);
  await page.goto('/lift/1058');
  for (const button of await page.locator('.lift-bar .main, .lift-bar .side').all())
    expect((await button.boundingBox()).height).toBeGreaterThanOrEqual(64);
  const size = await page.locator('.value-number').evaluate((e) => parseFloat(getComputedStyle(e).fontSize));
  expect(size).toBeGreaterThan(100);
});

test('nothing is loaded from elsewhere and nothing breaks the policy', async ({ page }) => {
  const faults = [];
  page.on('console', (m) => m.type() === 'error' && faults.push(m.text()));
  page.on('pageerror', (e) => faults.push(e.message));
  page.on(
    'request',
    (r) => new URL(r.url()).host !== new URL(page.url() === 'about:blank' ? r.url() : page.url()).host && faults.push(r.url()),
  );
  await signIn(page, 'Una B.');
  for (const address of PAGES.filter((p) => p !== '/nowhere')) await page.goto(address);
  expect(faults).toEqual([]);
});

test('an empty workshop asks for its first lead; axe finds nothing there', async ({ page }) => {
  const server = await startServer(['serve', '--data', mkdtempSync(join(tmpdir(), 'anakyklos-first-')), '--port', '5192'], 5192);
  try {
    await page.goto('http://localhost:5192/');
    await expect(page.getByRole('heading', { name: 'Who leads this workshop?' })).toBeVisible();
    await look(page);
    await page.getByLabel('The word that the program printed').fill(await server.word());
    await page.getByLabel('Name of the workshop').fill('Quay Garage');
    await page.getByLabel('Your name').fill('Mhairi');
    await page.getByLabel('PIN', { exact: true }).fill('135790');
    await page.getByLabel('The same PIN again').fill('135790');
    await page.getByRole('button', { name: 'Start the workshop' }).click();
    await expect(page.getByRole('heading', { name: 'The first hour' })).toBeVisible();
    await look(page);
    await page.goto('http://localhost:5192/intake');
    await expect(page.getByText('No model is here yet')).toBeVisible();
    await look(page);
  } finally {
    await server.kill();
  }
});
