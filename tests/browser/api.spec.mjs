import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { OpenAPIClientAxios } from 'openapi-client-axios';
import { after, PIN, signIn } from './lift.mjs';
import { startServer } from './server.mjs';

const PORT = 5216;
const BASE = `http://localhost:${PORT}`;
const id = () => crypto.randomUUID();
let server;

test.use({ baseURL: BASE });
test.describe.configure({ mode: 'serial' });
test.beforeAll(async ({}, info) => {
  info.setTimeout(300_000);
  const folder = mkdtempSync(join(tmpdir(), 'anakyklos-api-'));
  server = await startServer(['demo', '--data', folder, '--port', `${PORT}`, '--speed', '240'], PORT);
});
test.afterAll(() => server.kill());

/** The lead makes a token at the screen; it is shown this once. */
async function token(page, name, person, scopes) {
  await signIn(page, 'Una B.');
  await page.goto('/tokens');
  await page.getByLabel('What it is for').fill(name);
  await page.locator('#person').selectOption(person);
  for (const scope of ['read', 'cards', 'stores', 'workshop'])
    await page.locator(`input[name=scope][value=${scope}]`).setChecked(scopes.includes(scope));
  await after(page, () => page.getByRole('button', { name: 'Make the token' }).click());
  return page.locator('.token-secret').innerText();
}

/** A client made from the description alone; it throws nothing, so that refusals can be read. */
async function clientWith(secret) {
  const api = new OpenAPIClientAxios({
    definition: `${BASE}/openapi/v1.json`,
    axiosConfigDefaults: { baseURL: BASE, headers: { authorization: `Bearer ${secret}` }, validateStatus: () => true },
  });
  return api.init();
}

/** What a program that knows the model says at a step, in turn, until the card goes on. */
function says(step, sheet) {
  const { kind, what, spec } = step;
  const at = { step: step.id };
  if (kind === 'kit')
    return [
      {
        say: 'kit',
        ...at,
        parts: Object.fromEntries(['oil-filter', 'cap-ring', 'drain-washer'].map((p) => [p, { choice: 'in-hand' }])),
        pan: ['12 L'],
        oils: { 'engine-oil': { amount: '10 L', product: 'Gannet Lowash 5W-30' } },
      },
    ];
  if (kind === 'read') return [{ say: 'see', ...at, subject: 'magnet', looks: 'clean' }];
  if (what === 'oil-filter' && kind === 'fit') return [{ say: 'fitted', ...at, says: 'down on its seat, stud in its hole' }];
  if (what === 'cap-ring' && kind === 'fit') return [{ say: 'fitted', ...at, says: 'out of the cap, in my hand' }];
  if (kind === 'tighten') return [{ say: 'reading', ...at, torque: sheet.fasteners[what].torque.is }];
  if (kind === 'pour') return [{ say: 'pour', ...at, amount: sheet.fluids[what].amount.is }];
  if (kind === 'gauge') return [{ say: 'gauge', ...at, level: 0.85 }];
  if (kind === 'look') return [...['engine-drain-plug', 'oil-filter-cap'].map((fastener) => ({ say: 'dry', ...at, fastener }))];
  if (kind === 'empty') return [{ say: 'emptyPan', pan: 0 }, { say: 'done', ...at }];
  if (kind === 'run') return [{ say: 'runs', ...at }, { say: 'lightOut', ...at, meant: true }];
  if (spec?.hold) return [{ say: 'resetHeld', ...at }, { say: 'done', ...at }];
  if (spec?.types === 'distance' || spec?.shows === 'distance') return [{ say: 'resetShows', ...at, distance: '15000 km' }];
  if (spec?.types === 'months') return [{ say: 'resetShows', ...at, months: 12 }];
  return [{ say: 'done', ...at }];
}

test('a client generated from the description works a card from intake to its record', async ({ page }) => {
  const client = await clientWith(await token(page, 'Fleet office', 'iona', ['cards', 'stores']));
  const sheet = (await client.sheet({ id: 'hespin-16' })).data;
  const before = (await client.changes({ since: 0, most: 1000 })).data.next;

  const opening = { command: id(), plate: 'HD-04', odometer: '122000 km', job: ['engine-oil-and-filter'], bay: 'Bay 1' };
  const wrong = await client.intake(null, { ...opening, odometer: '12' });
  expect(wrong.status).toBe(422);
  expect(wrong.data.reasons[0].field).toBe('odometer');
  const { card } = (await client.intake(null, opening)).data;
  // The line broke before the answer came: sent again, it opens no second card.
  expect((await client.intake(null, opening)).data.card).toBe(card);

  const say = (what) => client.say({ id: card }, { command: id(), ...what });
  let last = {};
  for (let presses = 0; presses < 200; presses++) {
    const { next, waits } = (await client.card({ id: card })).data;
    if (!next) break;
    const step = (await client.steps({ id: card })).data.find((s) => s.id === next);
    for (const what of says(step, sheet)) {
      last = await say(what);
      if (last.status === 200 && last.data.next !== next) break;
      if (what.say === 'resetHeld') await new Promise((r) => setTimeout(r, 200));
    }
    if (last.status !== 200) await new Promise((r) => setTimeout(r, 300));
    expect(presses, `${next}: ${JSON.stringify(last.data)} ${JSON.stringify(waits)}`).toBeLessThan(199);
  }
  expect((await client.card({ id: card })).data.open).toEqual([]);
  // Nobody signs but with their own PIN.
  expect((await say({ say: 'sign', pin: '0000' })).status).not.toBe(200);
  expect((await say({ say: 'sign', pin: PIN })).status).toBe(200);

  const record = (await client.record({ id: card })).data;
  expect(JSON.stringify(record)).toContain('45 N·m');
  expect((await client.recordFile({ id: card })).status).toBe(200);
  const vehicle = (await client.vehicle({ plate: 'HD-04' })).data;
  expect(vehicle.cards[0]).toMatchObject({ card });
  expect(vehicle.cards[0].signedAt).toBeTruthy();
  // Whoever follows the changes has heard of it: the card, the reading, what went out of the stores.
  const heard = [];
  for (let since = before; ; ) {
    const { changes, next } = (await client.changes({ since, most: 200 })).data;
    heard.push(...changes);
    if (next === since) break;
    since = next;
  }
  for (const what of ['card', 'event', 'odometer', 'movement', 'container', 'done_job'])
    expect(heard.map((c) => c.what), what).toContain(what);
  expect(JSON.stringify(heard)).not.toMatch(/pin_hash|key_hash/);
});

test('a token does what it is for and no more, and nothing once it is ended', async ({ page }) => {
  const client = await clientWith(await token(page, 'Stock count', 'effie', ['stores']));
  const parts = (await client.parts({ q: 'LA-0912-R' })).data;
  const booked = await client.storesPart(null, { command: id(), number: 'LA-0912-R', count: '3' });
  expect(booked.data.said).toContain('LA-0912-R');
  expect((await client.parts({ q: 'LA-0912-R' })).data[0].onShelf).toBe(parts[0].onShelf + 3);
  expect((await client.intake(null, { command: id(), plate: 'HD-04' })).status).toBe(403);
  expect((await client.workshopWeather(null, { command: id(), coldest: '-5', hottest: '30' })).status).toBe(403);
  await page.goto('/tokens');
  await after(page, () => page.getByRole('button', { name: 'End Stock count' }).click());
  expect((await client.parts({ q: 'LA' })).status).toBe(401);
});

test('the examples of docs/api.md run as they stand', async ({ page }) => {
  const text = readFileSync(join(import.meta.dirname, '../../docs/api.md'), 'utf8');
  const examples = [...text.matchAll(/```js\n([\s\S]*?)```/g)].map((m) => m[1]);
  expect(examples.length).toBeGreaterThan(4);
  const secret = await token(page, 'Examples', 'iona', ['cards', 'stores', 'workshop']);
  const Program = Object.getPrototypeOf(async () => {}).constructor;
  await new Program('base', 'token', 'assert', examples.join('\n'))(BASE, secret, (so, what) => expect(so, what).toBeTruthy());
});
