import { expect, test } from '@playwright/test';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gate } from './gate.mjs';
import { heading, key, openCard, PIN, signIn, signs, usualPress } from './lift.mjs';
import { startServer } from './server.mjs';

const PORT = 5208;
const workshop = 5209;


test.describe.configure({ mode: 'serial' });
test.use({ baseURL: `http://localhost:${PORT}` });

let server;
let line;
test.beforeAll(async ({}, info) => {
  info.setTimeout(400_000);
  const folder = mkdtempSync(join(tmpdir(), 'anakyklos-line-'));
  server = await startServer(['demo', '--data', folder, '--port', `${workshop}`, '--speed', '240'], workshop);
  line = await gate(PORT, workshop);
});
test.afterAll(async () => {
  await line.close();
  await server.kill();
});
test.afterEach(() => line.set('up'));

// The same numbers each time; printed, so that a failure can be had again.
function dice(seed) {
  let s = seed;
  return (most) => {
    s = (s * 1_103_515_245 + 12_345) % 2_147_483_648;
    return Math.floor((s / 2_147_483_648) * most);
  };
}

const strip = (page) => page.locator('.line-strip');
const eventsOf = async (page, card) => (await page.request.get(`http://localhost:${workshop}/api/v1/cards/${card}/events`)).json();

// What is in a store of this device; nothing while a browser that was just opened has none.
const stored = (page, store) =>
  page.evaluate(
    (name) =>
      new Promise((resolve) => {
        const asked = indexedDB.open('anakyklos', 1);
        asked.onupgradeneeded = () => asked.transaction.abort();
        asked.onerror = () => resolve([]);
        asked.onsuccess = () => {
          const got = asked.result.transaction(name).objectStore(name).getAll();
          got.onsuccess = () => {
            asked.result.close();
            resolve(got.result);
          };
        };
      }),
    store,
  );
const kept = (page) => stored(page, 'kept');

// The way ahead is there once its pages are, and what stands behind the buttons of the first of them.
const preparedFor = (page, of, least = 3) =>
  expect
    .poll(
      async () => {
        const way = (await stored(page, 'way')).find((w) => w.card === of);
        if (!way) return 0;
        const seq = Number(await page.locator('main.lift').getAttribute('data-seq'));
        const here = way.moments[way.place];
        const ahead = way.moments.length - way.place;
        const panels = (await stored(page, 'page')).filter((p) => p.card === of && p.moment === here.id && p.panel === 'stuck');
        return here.seq === seq && panels.length ? ahead : 0;
      },
      { timeout: 20_000 },
    )
    .toBeGreaterThanOrEqual(least);

const allSaved = (page) => expect.poll(async () => (await kept(page)).length, { timeout: 30_000 }).toBe(0);

// Half done in Bay 2.
const card = 1058;

test('it is said before anybody presses; what is pressed is kept, read on and sent in order, each once', async ({ page }) => {
  await signIn(page);
  await page.goto(`/lift/${card}`);
  await preparedFor(page, card, 8);
  line.set('cut');
  await expect(strip(page)).toContainText('No line since');
  await expect(strip(page)).toContainText('What you press is kept here');
  const pressed = [];
  for (let presses = 0; presses < 4; presses++) {
    const was = await heading(page);
    pressed.push((await page.locator('.lift-main .main').innerText()).replace(/\s*Enter$/, ''));
    await key(page, 'Enter');
    await expect.poll(() => heading(page)).not.toBe(was);
    await expect(strip(page)).toContainText(presses ? `${presses + 1} presses are kept here, not saved yet` : 'One press is kept here');
  }
  // Back, as it was; and what is not kept says so instead of leading to a page of the browser.
  const here = await heading(page);
  await page.reload();
  await expect(page.locator('main h1')).toHaveText(here);
  await page.getByRole('link', { name: 'Plan' }).click();
  await expect(page.locator('.notice')).toContainText('that page is not kept here');
  await page.goto(`/plan/${card}`);
  await expect(page.locator('main h1')).toHaveText('Pressed, and not saved yet');
  await expect(page.locator('.kept-words b')).toHaveText(pressed);
  await page.goto(`/lift/${card}`);
  await expect(page.locator('main h1')).toHaveText(here);
  const before = await eventsOf(page, card);
  line.set('up');
  await allSaved(page);
  await expect(strip(page)).toBeHidden();
  await expect(page.locator('main h1')).toHaveText(here);
  const more = (await eventsOf(page, card)).slice(before.length);
  expect(new Set(more.map((e) => e.command)).size).toBe(4);
  // They happened when they were pressed, and say when they came.
  for (const e of more) expect(Date.parse(e.event.came)).toBeGreaterThan(Date.parse(e.at));
});

test('a server that takes requests and never answers is noticed; what was pressed last is taken back here', async ({ page }) => {
  await signIn(page);
  await page.goto(`/lift/${card}`);
  await preparedFor(page, card);
  const was = await heading(page);
  line.set('silent');
  await expect(strip(page)).toContainText('The workshop does not answer', { timeout: 10_000 });
  await key(page, 'Enter');
  await expect.poll(() => heading(page)).not.toBe(was);
  await key(page, 'u');
  await expect.poll(() => heading(page)).toBe(was);
  await expect(page.locator('.notice')).toContainText('Taken back');
  expect(await kept(page)).toHaveLength(0);
  // A finding goes beside the way; what only the card can judge ends it, until it is taken back.
  await page.waitForTimeout(400);
  await page.keyboard.press('s');
  await page.getByText('keep an eye on it').click();
  await page.getByLabel('What did you see?').fill('A nick in the jacking point');
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(strip(page)).toContainText('One press is kept here');
  await page.waitForTimeout(400);
  await page.keyboard.press('s');
  await page.getByText('stop', { exact: true }).click();
  await page.getByLabel('What did you see?').fill('It hangs on one arm');
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(page.locator('.notice')).toContainText('What the card says to it is known when the line is back');
  await page.getByRole('link', { name: 'Never mind' }).click();
  // The step stands above the panel as well: the panel is gone before the next key.
  await expect(page.getByRole('link', { name: 'Never mind' })).toHaveCount(0);
  await expect.poll(() => heading(page)).toBe(was);
  await key(page, 'Enter');
  await expect(page.locator('.notice')).toContainText('Only the card can tell what follows from “Note it”');
  expect(await kept(page)).toHaveLength(2);
  await key(page, 'u');
  await expect(page.locator('.notice')).toContainText('Taken back: Note it');
  line.set('up');
  await allSaved(page);
  const events = await eventsOf(page, card);
  expect(events.filter((e) => e.event.event === 'FindingNoted').map((e) => e.event.text)).toEqual(['A nick in the jacking point']);
});

test('a page of a proxy, a session that ended and another person at the device lose nothing', async ({ page, context }) => {
  await signIn(page);
  await page.goto(`/lift/${card}`);
  await preparedFor(page, card, 4);
  const before = (await eventsOf(page, card)).length;
  const was = await heading(page);
  line.set('strange');
  await key(page, 'Enter');
  await expect(strip(page)).toContainText('Something else answers in place of the workshop', { timeout: 10_000 });
  await expect.poll(() => heading(page)).not.toBe(was);
  // Signed out elsewhere meanwhile.
  await context.clearCookies();
  line.set('up');
  await expect(strip(page)).toContainText('You were signed out', { timeout: 10_000 });
  expect(await kept(page)).toHaveLength(1);
  await key(page, 'Enter');
  expect(await kept(page)).toHaveLength(2);
  // Somebody else signs in at this device: nothing goes in their name.
  await page.getByRole('link', { name: 'Sign in again' }).click();
  await signIn(page, 'Una B.');
  await expect(strip(page)).toContainText('Iona R. pressed here while there was no line');
  await page.waitForTimeout(3000);
  expect(await kept(page)).toHaveLength(2);
  expect(await eventsOf(page, card)).toHaveLength(before);
  await page.goto('/kept');
  await expect(page.locator('.kept-waits').first()).toHaveText('Goes when Iona R. signs in here.');
  await signIn(page);
  await allSaved(page);
  const more = (await eventsOf(page, card)).slice(before);
  expect(new Set(more.map((e) => `${e.by.id} ${e.command}`)).size).toBe(2);
  expect(more[0].by.id).toBe('iona');
});

test('the first that the card refuses stops the rest, and whoever pressed decides with both sides in view', async ({ page, browser }) => {
  await signIn(page);
  await page.goto(`/lift/${card}`);
  await preparedFor(page, card, 5);
  const other = await browser.newPage({ baseURL: `http://localhost:${workshop}` });
  await signIn(other, 'Una B.');
  line.set('cut');
  await expect(strip(page)).toContainText('No line');
  for (let presses = 0; presses < 3; presses++) {
    const was = await heading(page);
    await key(page, 'Enter');
    await expect.poll(() => heading(page)).not.toBe(was);
  }
  await other.goto(`/lift/${card}`);
  await key(other, 'Enter');
  await expect(other.locator('[data-saved]')).toBeVisible();
  await other.waitForTimeout(500);
  await other.close();
  const before = (await eventsOf(page, card)).length;
  line.set('up');
  await expect(strip(page)).toContainText('The card did not take what you pressed', { timeout: 15_000 });
  expect(await kept(page)).toHaveLength(3);
  expect(await eventsOf(page, card)).toHaveLength(before);
  await page.getByRole('link', { name: 'See what is kept' }).click();
  await expect(page.locator('.kept-says').first()).toContainText('Una B. did this');
  await expect(page.locator('.kept-says').first()).toContainText('It stands at:');
  await expect(page.locator('.kept-waits').nth(1)).toHaveText('Waits for the one before it.');
  await page.getByRole('button', { name: 'Leave this one out' }).first().click();
  await allSaved(page);
  await expect(page.locator('.empty')).toBeVisible();
  expect(new Set((await eventsOf(page, card)).slice(before).map((e) => e.command)).size).toBe(2);
});

test('a press that is refused as soon as the line is back is refused where it was pressed', async ({ page, browser }) => {
  await signIn(page);
  await page.goto(`/lift/${card}`);
  await preparedFor(page, card, 2);
  const other = await browser.newPage({ baseURL: `http://localhost:${workshop}` });
  await signIn(other, 'Una B.');
  line.set('cut');
  await expect(strip(page)).toContainText('No line');
  await key(page, 'Enter');
  await other.goto(`/lift/${card}`);
  await key(other, 'Enter');
  await other.waitForTimeout(500);
  await other.close();
  line.set('up');
  await expect(page.locator('.refusal')).toContainText('Una B. did this', { timeout: 15_000 });
  await allSaved(page);
});

test('a form with a PIN is never kept, whatever the line does', async ({ page }) => {
  await signIn(page);
  await page.goto(`/handover/${card}`);
  for (const is of ['cut', 'silent', 'strange']) {
    await page.goto('/you');
    await page.locator('input[name=old]').fill(PIN);
    await page.locator('input[name=pin]').fill('97531');
    await page.locator('input[name=again]').fill('97531');
    line.set(is);
    await page.locator('form:has(input[name=old]) button[type=submit]').click();
    await expect(page.locator('.notice')).toContainText('PIN was not kept', { timeout: 20_000 });
    expect(JSON.stringify(await kept(page))).not.toContain('97531');
    expect(await page.evaluate(() => JSON.stringify({ ...localStorage, ...sessionStorage }))).not.toContain('97531');
    // What was typed stays to be sent again.
    await expect(page.locator('input[name=pin]')).toHaveValue('97531');
    line.set('up');
  }
  expect(await kept(page)).toHaveLength(0);
});

test('a browser that asks for German is told in German that the line is gone, and what became of a press', async ({ browser }) => {
  const context = await browser.newContext({ baseURL: `http://localhost:${PORT}`, locale: 'de-DE' });
  const page = await context.newPage();
  await page.goto('/signin');
  await page.getByText('Iona R.', { exact: true }).click();
  await page.getByLabel('PIN').fill(PIN);
  await page.getByLabel('PIN').press('Enter');
  await expect(page.getByRole('heading', { name: 'In den Plätzen' })).toBeVisible();
  await page.goto('/you');
  for (const [field, pin] of [['old', PIN], ['pin', '97531'], ['again', '97531']]) await page.locator(`input[name=${field}]`).fill(pin);
  line.set('cut');
  await page.locator('form:has(input[name=old]) button[type=submit]').click();
  await expect(page.locator('.notice')).toContainText('PIN wurde nicht aufgehoben');
  await page.goto(`/lift/${card}`).catch(() => {});
  await expect(strip(page)).toContainText(/Keine Leitung seit \d\d:\d\d\.\s+Was gedrückt wird, bleibt hier/);
  line.set('up');
  await expect(strip(page)).toBeHidden({ timeout: 20_000 });
  await context.close();
});

test('without a line the page of what is kept speaks as whoever was here last is spoken to, not as the browser asks', async ({ page }) => {
  await signIn(page, 'Effie S.');
  await page.evaluate(() => navigator.serviceWorker.ready);
  const dead = async () => {
    line.set('cut');
    await page.goto('/stores');
    const words = await page.locator('h1').textContent();
    line.set('up');
    return words;
  };
  await page.goto('/you');
  expect(await dead()).toBe('Pressed, and not saved yet');
  await page.goto('/you');
  await page.locator('input[name=language][value=de]').check();
  await page.locator('form:has(input[name=language]) button[type=submit]').click();
  await expect(page.locator('html')).toHaveAttribute('lang', 'de');
  await expect.poll(() => page.evaluate(async () =>
    (await (await caches.open('anakyklos-1')).match('/kept')).headers.get('content-language'))).toBe('de');
  expect(await dead()).toBe('Gedrückt und noch nicht gespeichert');
});

test('the whole card with a line that dies three times for minutes: every press once', async ({ context }, info) => {
  info.setTimeout(900_000);
  const seed = 20_261_130;
  const random = dice(seed);
  console.log(`seed ${seed}`);
  let page = await context.newPage();
  await signIn(page);
  const whole = await openCard(page, '148700');
  const begun = (await eventsOf(page, whole)).length;
  const ways = ['cut', 'silent', 'cut'];
  // At moments of the card that nobody chose; what happens meanwhile: a reload, a closed tab, nothing.
  const meanwhile = ['reload', 'close', 'nothing'];
  const cuts = ways.map((is, i) => ({ is, at: 4 + i * 11 + random(6), then: meanwhile[i], lasts: 9000 + random(4000) }));
  let [presses, until, lookedAt] = [0, 0, ''];
  let times = 0;
  const [said, withoutLine] = [new Set(), new Set()];
  while (!/\/(handover|record)\//.test(page.url())) {
    if (cuts[0] && presses >= cuts[0].at && !until) {
      line.set(cuts[0].is);
      until = Date.now() + cuts[0].lasts;
      await expect(strip(page)).toBeVisible({ timeout: 12_000 });
    } else if (until && cuts[0].then === 'reload') {
      cuts[0].then = '';
      await page.reload();
    } else if (until && cuts[0].then === 'close') {
      cuts[0].then = '';
      await page.close();
      page = await context.newPage();
      await page.goto(`/lift/${whole}`);
    }
    if (until && Date.now() > until) {
      line.set('up');
      until = 0;
      cuts.shift();
      await allSaved(page);
      await expect(strip(page)).toBeHidden({ timeout: 10_000 });
      await page.goto(`/lift/${whole}`);
    }
    if (await page.locator('.waiting-main').count()) {
      await page.waitForTimeout(300);
      continue;
    }
    const now = `${await heading(page)} ${(await kept(page)).length} ${await page.locator('main').getAttribute('data-seq')}`;
    times = now === lookedAt ? times + 1 : 1;
    lookedAt = now;
    const seen = said.has(await heading(page)) ? 2 : 1;
    const before = await kept(page);
    if (until) {
      await page.waitForTimeout(350);
      if (await page.locator('#gauge').count()) await page.locator('#level').fill(seen > 1 ? '1' : '0.9');
      if (await page.locator('.panel #amount').count()) await page.locator('.panel #amount').fill('7.4 L');
      if (await page.locator('form#road').count()) {
        await page.locator('#road-far').fill('4 km');
        await page.locator('#road-where').fill('Harbour road');
      }
      const button = page.locator('.lift-main button.main, .question .main, .panel .main').first();
      if (await button.count()) await button.click();
      await page.waitForTimeout(150);
      // What only the card can tell waits for the line.
      for (const k of await kept(page)) withoutLine.add(k.fields.find(([name]) => name === 'command')[1]);
      if ((await kept(page)).length === before.length) {
        times = 0;
        await page.waitForTimeout(500);
        continue;
      }
    } else {
      await page.waitForTimeout(350);
      await usualPress(page, seen);
    }
    said.add(now.split(' ').slice(0, -2).join(' '));
    presses++;
    expect(times, `Stands still at ${now}`).toBeLessThan(6);
  }
  await allSaved(page);
  expect(cuts).toHaveLength(0);
  const events = (await eventsOf(page, whole)).slice(begun);
  // Each that was kept came, once, and was pressed before it came.
  expect(withoutLine.size).toBeGreaterThan(2);
  for (const command of withoutLine) expect(events.filter((e) => e.command === command && e.event.came).length).toBeGreaterThan(0);
  const order = events.map((e) => e.command).filter((c, i, all) => c !== all[i - 1]);
  expect(new Set(order).size).toBe(order.length);
  await page.goto(`/handover/${whole}`);
  await signs(page);
  await expect(page).toHaveURL(new RegExp(`/record/${whole}`));
});
