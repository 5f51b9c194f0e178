import { existsSync, mkdtempSync, readdirSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { expect, test } from '@playwright/test';
import { after, PIN, startsWorkshop } from './lift.mjs';
import { startServer } from './server.mjs';

const PORT = 5214;
const BESIDE = 5215;
const folder = join(mkdtempSync(join(tmpdir(), 'anakyklos-beside-')), 'own');
let server;

test.use({ baseURL: `http://localhost:${PORT}` });
test.describe.configure({ mode: 'serial' });
const serve = async () => {
  server = await startServer(['serve', '--data', folder, '--port', `${PORT}`], PORT);
};
test.beforeAll(serve);
test.afterAll(() => server.kill());

// Its past years are worked through, which takes its time.
const toDepot = (page) => page.getByRole('link', { name: 'To the made-up depot' });
const stands = (page) => expect(toDepot(page)).toBeVisible({ timeout: 300_000 });
const signsIn = async (page, name, pin) => {
  await page.getByText(name, { exact: true }).first().click();
  await page.locator('input[name=pin]').fill(pin);
  await after(page, () => page.keyboard.press('Enter'));
};

test('a made-up depot stands beside a workshop, marked on every page and paper, and leaves nothing behind', async ({ page }) => {
  await startsWorkshop(page, server);
  await page.getByRole('link', { name: 'Try it with a made-up depot first' }).click();

  // Somebody else has the port: it is said, and the press can be made again.
  const other = createServer().listen(BESIDE);
  await after(page, () => page.getByRole('button', { name: 'Bring the made-up depot in' }).click());
  await expect(page.locator('.problem')).toContainText(`Port ${BESIDE}`, { timeout: 300_000 });
  await new Promise((r) => {
    other.close(r);
  });
  await after(page, () => page.getByRole('button', { name: 'Bring the made-up depot in' }).click());
  await stands(page);

  await toDepot(page).click();
  await expect(page).toHaveURL(new RegExp(`localhost:${BESIDE}/signin`));
  await signsIn(page, 'Una B.', PIN);
  await expect(page.locator('.made-up')).toContainText('Everything here is made up');
  await expect(page.locator('.head-name')).toHaveText('Harbour Depot, made up');
  await page.goto(`http://localhost:${BESIDE}/record/1055`);
  await expect(page.locator('.made-up')).toBeVisible();
  const record = await page.request.get(`http://localhost:${BESIDE}/record/1055/record.json`);
  expect(await record.text()).toContain('Harbour Depot, made up');
  expect(record.headers()['x-anakyklos']).toBe('samples');
  await page.goto(`http://localhost:${BESIDE}/first-hour?at=Name`);
  await page.getByLabel('On papers and files').fill('Tried Depot, made up');
  await after(page, () => page.getByRole('button', { name: 'It is called that' }).click());
  await page.goto(`http://localhost:${BESIDE}/made-up`);
  await expect(page.getByText('This is a made-up depot itself')).toBeVisible();

  // Both are signed in side by side, and the way back is one press.
  await page.getByRole('link', { name: 'Back to your own workshop' }).click();
  await expect(page.locator('.head-name')).toHaveText('Quay Garage');
  await expect(page.locator('.made-up')).toHaveCount(0);
  await expect(page.getByText('HD-08')).toHaveCount(0);
  await page.goto('/practice');
  await expect(toDepot(page)).toBeVisible();
});

test('it is served on as it was left when the workshop is started again, and taken out by one press', async ({ page }) => {
  await server.kill();
  // Its port is taken when the workshop is started again: what was done there is not lost by the next press.
  const other = createServer().listen(BESIDE);
  await serve();
  await page.goto('/');
  await signsIn(page, 'Mhairi', '135790');
  await page.goto('/made-up');
  await expect(page.locator('.problem')).toContainText(`Port ${BESIDE}`, { timeout: 300_000 });
  await new Promise((r) => {
    other.close(r);
  });
  await after(page, () => page.getByRole('button', { name: 'Bring the made-up depot in' }).click());
  await stands(page);
  expect(await (await page.request.get(`http://localhost:${BESIDE}/signin`)).text()).toContain('Tried Depot, made up');
  await page.getByText('Take it out', { exact: true }).click();
  await after(page, () => page.getByRole('button', { name: 'Take the made-up depot out' }).click());
  await expect(page.getByRole('button', { name: 'Bring the made-up depot in' })).toBeVisible();
  expect(readdirSync(dirname(folder)).filter((f) => f.includes('samples'))).toEqual([]);
  expect(existsSync(join(folder, 'anakyklos.db'))).toBe(true);
  await expect(fetch(`http://localhost:${BESIDE}/healthz`)).rejects.toThrow();
  await page.goto('/trail');
  await expect(page.locator('main')).toContainText('was brought in beside the workshop');
  await expect(page.locator('main')).toContainText('was taken out');
});
