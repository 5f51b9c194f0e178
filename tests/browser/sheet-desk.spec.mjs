import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { AxeBuilder } from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { after, heading, startsWorkshop, usualPress } from './lift.mjs';
import { startServer } from './server.mjs';

const PORT = 5213;
let server;

test.use({ baseURL: `http://localhost:${PORT}` });
test.beforeAll(async () => {
  server = await startServer(['serve', '--data', mkdtempSync(join(tmpdir(), 'anakyklos-desk-')), '--port', `${PORT}`], PORT);
});
test.afterAll(() => server.kill());

/** The desk of one draft: things are added by name, and typed field by field as they stand there. */
const desk = (page) => ({
  async add(table, name) {
    await page.locator('#table').selectOption(table);
    await page.locator('#called').fill(name);
    await after(page, () => page.getByRole('button', { name: 'Add it' }).click());
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(name);
    return new URL(page.url()).searchParams.get('at');
  },
  async write(at, fields) {
    await page.evaluate(() => document.querySelectorAll('.write-writing details').forEach((d) => (d.open = true)));
    for (const [name, value] of Object.entries(fields)) {
      const field = page.locator(`[name="${at}.${name}"]`);
      if (Array.isArray(value)) {
        for (const one of value) await page.locator(`[name="${at}.${name}"][value="${one}"]`).check();
      } else if ((await field.evaluate((f) => f.tagName)) === 'SELECT') await field.selectOption(value);
      else await field.fill(value);
    }
    await after(page, () => page.getByRole('button', { name: 'Keep it' }).click());
  },
  async make(table, name, fields) {
    const at = await this.add(table, name);
    await this.write(at, fields);
    return at.split('.')[1];
  },
});

/** What the handbook of the made-up three-wheeler says, by the path of each field: the second person reads it there. */
const book = {};

function cited(thing, field, values, page) {
  const told = {};
  for (const [name, value] of Object.entries(values)) {
    told[`${field}.${name}`] = value;
    book[`${thing}.${field}.${name}`] = value;
  }
  return { ...told, [`${field}.from`]: 'handbook', [`${field}.at`]: page };
}

async function signInAs(page, name, pin) {
  await page.goto('/signin');
  await page.getByText(name, { exact: true }).click();
  await page.getByLabel('PIN').fill(pin);
  await page.getByLabel('PIN').press('Enter');
  await expect(page.getByRole('heading', { name: 'In the bays' })).toBeVisible();
}

test('a three-wheeler is written from nothing, read by a second person, put in use, and serviced', async ({ page, browser }) => {
  await startsWorkshop(page, server);
  await page.goto('/people');
  await page.getByLabel('Name').last().fill('Ruaridh');
  await page.getByLabel('PIN', { exact: false }).last().fill('246813');
  await after(page, () => page.getByRole('button', { name: /^Add/ }).last().click());

  await page.goto('/library');
  await page.getByLabel('Make').fill('Dunlin');
  await page.getByLabel('Model', { exact: true }).fill('Trike 3');
  await page.getByLabel('It stands on').selectOption('ground');
  await after(page, () => page.getByRole('button', { name: 'Begin', exact: true }).click());
  const at = page.url().split('?')[0];
  const d = desk(page);
  await d.make('sources', 'Handbook', { title: 'Handbook', byMaker: ['yes'] });
  await d.make('access', 'Filler cap', { place: 'side', tool: 'by hand', closedToRun: ['yes'], from: 'handbook', at: 'p. 8' });
  book['access.filler-cap.tool'] = 'by hand';
  for (const [name, amount, p] of [['Engine oil', '1,2 l', 'p. 12'], ['Chain case oil', '0.4 L', 'p. 14']]) {
    const id = name.toLowerCase().replaceAll(' ', '-');
    const f = `fluids.${id}`;
    await d.make('fluids', name, {
      fillBy: 'book', ...cited(f, 'amount', { is: amount }, p), ...cited(f, 'tolerance', { is: '0.05 L' }, p),
      ...cited(f, 'grades', { is: 'SAE 10W-40' }, p), ...cited(f, 'approvals', { is: 'Dunlin D-1' }, p),
    });
    await d.make('parts', `Washer of the ${id} plug`, {
      reusableTimes: '0', ...cited(`parts.washer-of-the-${id}-plug`, 'number', { is: `DT-${amount.length}1` }, 'p. 40'),
    });
    await d.make('fasteners', `Drain plug, ${id}`, {
      thread: 'M12x1.5', material: 'aluminium', drive: 'Hex 17', place: 'below', tooMuch: 'lead-decides', drains: id, runsOut: '5 min',
      seal: `washer-of-the-${id}-plug`,
      ...cited(`fasteners.drain-plug-${id}`, 'torque', { is: '24 nm', low: '22 Nm', high: '26 N·m' }, p),
    });
  }
  await d.make('intervals', 'Yearly', {
    'normal.distance': '6000km', 'normal.months': '12', 'harsh.distance': '3000 km', 'harsh.months': '6', from: 'handbook', at: 'p. 4',
  });
  Object.assign(book, { 'intervals.yearly.normal.distance': '6000 km', 'intervals.yearly.normal.months': '12',
    'intervals.yearly.harsh.distance': '3000 km', 'intervals.yearly.harsh.months': '6' });
  await d.make('steps', 'Oil the chain along its lower run', {
    kind: 'do', title: 'Oil the chain along its lower run', phase: 'Chain', place: 'side', takes: '4min', from: 'handbook', at: 'p. 20',
  });
  // The reset: a cable from the counter to its stop.
  await d.make('resets', 'Service flag', {
    by: 'cable-tool', 'moves[0].do': 'Pull the cable under the seat to its stop', 'moves[0].uses': 'lead', 'moves[0].hold': '3s',
    'moves[0].expect': 'flag gone', again: 'Let the cable go back, and pull it again.', from: 'handbook', at: 'p. 22',
  });
  book['resets.service-flag.moves[0].hold'] = '3 s';
  await d.make('jobs', 'Yearly service', {
    worksOn: ['engine-oil', 'chain-case-oil'], steps: ['oil-the-chain-along-its-lower-run'],
    parts: ['washer-of-the-engine-oil-plug', 'washer-of-the-chain-case-oil-plug'], interval: 'yearly', resets: ['service-flag'],
  });
  await page.goto(at);
  const wrong = page.locator('.write-wrong li');
  await expect(page.getByRole('heading', { name: 'Its card' }), (await wrong.allInnerTexts()).join('\n')).toBeVisible();
  await page.getByRole('button', { name: 'Walk it dry' }).click();
  await expect(page.locator('.write-beside').getByRole('status')).toContainText('nothing was forgotten');

  // A slip of a factor is told beside its field, and put right.
  await page.goto(`${at}?at=fasteners.drain-plug-engine-oil`);
  await d.write('fasteners.drain-plug-engine-oil', { 'torque.is': '240 Nm' });
  await expect(page.locator('.write-writing .problem').first()).toContainText('240 N·m');
  await d.write('fasteners.drain-plug-engine-oil', { 'torque.is': '24 Nm' });
  await expect(page.locator('.write-writing .problem')).toHaveCount(0);

  // The second person reads everything; one value otherwise.
  const other = await browser.newContext({ baseURL: `http://localhost:${PORT}`, viewport: { width: 1280, height: 800 } });
  const reads = await other.newPage();
  await signInAs(reads, 'Ruaridh', '246813');
  await reads.goto(`${at}/check`);
  expect((await new AxeBuilder({ page: reads }).analyze()).violations.map((v) => v.id)).toEqual([]);
  for (let n = 0; n < 40 && (await reads.getByRole('heading', { name: 'Nothing is left for you' }).count()) === 0; n++) {
    for (const field of await reads.locator('form.stack [name*="."]').all()) {
      const path = await field.getAttribute('name');
      await expect(field).toHaveValue('');
      expect(book[path], path).toBeTruthy();
      await field.fill(path === 'fluids.engine-oil.amount.is' ? '2.1 L' : book[path]);
    }
    await after(reads, () => reads.locator('form.stack button.main').click());
  }
  await expect(reads.getByRole('heading', { name: 'Nothing is left for you' })).toBeVisible();
  await reads.goto(`${at}?at=fluids.engine-oil`);
  await expect(reads.locator('.write-dispute')).toContainText('The lead looks it up and rules.');
  await other.close();
  await page.goto(`${at}/use`);
  await page.getByLabel('What is new, or why').fill('Our first three-wheeler');
  await after(page, () => page.getByRole('button', { name: 'Put it in use' }).click());
  await expect(page.getByRole('alert').first()).toContainText('otherwise');
  await page.goto(`${at}?at=fluids.engine-oil`);
  await after(page, () => page.getByRole('button', { name: 'The source says this' }).first().click());
  await expect(page.locator('.write-ring')).toContainText(/^(\d+) of \1/);
  await page.goto(`${at}/use`);
  await expect(page.locator('main')).toContainText('Every value was read by two.');
  await page.getByLabel('What is new, or why').fill('Our first three-wheeler');
  await after(page, () => page.getByRole('button', { name: 'Put it in use' }).click());
  await expect(page.getByRole('heading', { name: 'Dunlin Trike 3' })).toBeVisible();

  await page.goto('/intake');
  await page.getByLabel('Plate').fill('QG-3');
  await page.getByLabel('Model year').fill('2021');
  await page.getByLabel('What it does').fill('Ice cream');
  await page.getByLabel('Odometer').fill('5900 km');
  await after(page, () => page.getByRole('button', { name: 'Open the card' }).last().click());
  await expect(page).toHaveURL(/\/lift\/\d+/);

  // It is serviced: no wrench is in the crib, so that somebody says what theirs said.
  const [held, seen] = [[], []];
  for (let presses = 0; presses < 40 && !page.url().includes('/handover'); presses++) {
    const now = await heading(page);
    seen.push(now);
    await page.locator('html[data-awake]:not(.deaf)').waitFor();
    if (now.startsWith('Tighten')) {
      await page.goto(`${page.url().split('?')[0]}?panel=reading`);
      await page.getByLabel(/say\?$/).fill('24 Nm');
      await after(page, () => page.getByRole('button', { name: 'That is the reading' }).click());
    } else if (await page.getByRole('button', { name: /^It only drips/ }).count()) {
      await after(page, () => page.getByRole('button', { name: /^It only drips/ }).click());
    } else if (await page.locator('.waiting-main').count()) {
      // What is held is let go of; its clock is not ended with a reason.
      const hold = page.url();
      await page.goto(`${hold.split('?')[0]}?panel=stuck`);
      await expect(page.getByRole('button', { name: 'Leave it for later' })).toBeVisible();
      await expect(page.getByRole('button', { name: 'End the wait now' })).toHaveCount(0);
      await page.goto(hold);
      await expect(page.getByRole('button', { name: /It shows flag gone/ })).toBeVisible({ timeout: 20_000 });
      held.push(now);
    } else await usualPress(page, presses);
  }
  expect(held, seen.join('\n')).toEqual(['Pull the cable under the seat to its stop']);
  for (const left of [1, 0]) {
    await page.getByLabel('Their PIN').first().fill('246813');
    await after(page, () => page.getByRole('button', { name: 'Countersign' }).first().click());
    await expect(page.getByRole('button', { name: 'Countersign' })).toHaveCount(left);
  }
  await page.getByLabel("Signer's PIN").fill('135790');
  await after(page, () => page.getByRole('button', { name: /^Sign/ }).click());
  await expect(page).toHaveURL(/\/record\/\d+/);
  for (const said of ['24 N·m (22 to 26)', 'Engine oil', '1.20 L', 'Chain case oil', '0.40 L', 'next 11\u202f900 km'])
    await expect(page.locator('main')).toContainText(said);
});

test('points of a drawing are placed by pointer and by key, and a table of torques is pasted', async ({ page }) => {
  await signInAs(page, 'Mhairi', '135790');
  await page.goto('/library/dunlin-trike-3');
  await after(page, () => page.getByRole('button', { name: 'Write the next from it' }).click());
  const at = page.url().split('?')[0];
  const d = desk(page);
  const map = await d.add('maps', 'From the side');
  await d.write(map, { title: 'From the side', 'points[0].label': 'Engine plug', 'points[0].x': '10', 'points[0].y': '20',
    'points[0].for': 'drain-plug-engine-oil' });
  const point = page.locator('.placing-point');
  await point.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.locator(`[name="${map}.points[0].x"]`)).toHaveValue('11');
  await expect(page.locator(`[name="${map}.points[0].y"]`)).toHaveValue('25');
  const box = await page.locator('.placing').boundingBox();
  await point.hover();
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2, { steps: 4 });
  await page.mouse.up();
  await expect(page.locator(`[name="${map}.points[0].x"]`)).toHaveValue('50');
  await expect(page.locator(`[name="${map}.points[0].y"]`)).toHaveValue('60');
  await after(page, () => page.getByRole('button', { name: 'Keep it' }).click());
  await expect(page.locator(`[name="${map}.points[0].x"]`)).toHaveValue('50');

  // A block is as large as where its corner is put, by key and by pointer; what is typed is drawn.
  await d.write(map, { 'blocks[0].name': 'engine', 'blocks[0].x': '20', 'blocks[0].y': '30', 'blocks[0].width': '10',
    'blocks[0].height': '20' });
  const blocks = page.locator(`[data-placing="${map}.blocks"]`);
  const wide = page.locator(`[name="${map}.blocks[0].width"]`);
  const high = page.locator(`[name="${map}.blocks[0].height"]`);
  await blocks.locator('.placing-corner').focus();
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('ArrowUp');
  await expect(wide).toHaveValue('15');
  await expect(high).toHaveValue('19');
  await expect(page.locator(`[name="${map}.blocks[0].x"]`)).toHaveValue('20');
  await blocks.scrollIntoViewIfNeeded();
  const frame = await blocks.boundingBox();
  const scale = frame.width / 100;
  const [left, top] = [frame.x + 20 * scale, frame.y + 30 * scale];
  await page.mouse.move(left + 14 * scale, top + 18 * scale);
  await page.mouse.down();
  await page.mouse.move(left + 40 * scale, top + 50 * scale, { steps: 4 });
  await page.mouse.up();
  await expect(wide).toHaveValue('40');
  await expect(high).toHaveValue('50');
  await wide.fill('33');
  await expect(blocks.locator('.placing-block')).toHaveAttribute('width', '33');
  await after(page, () => page.getByRole('button', { name: 'Keep it' }).click());
  await expect(wide).toHaveValue('33');
  await expect(high).toHaveValue('50');

  await page.getByText('Paste a table of torques').click();
  await page.locator('#torques').fill('name;drive;material;torque;source;page\nFork clamp screws;Hex 6;aluminium;nine;Handbook;p. 31\n');
  await after(page, () => page.getByRole('button', { name: 'Take these' }).click());
  await page.goto(`${at}?at=fasteners.fork-clamp-screws`);
  await expect(page.locator('[name="fasteners.fork-clamp-screws.torque.is"]')).toHaveValue('nine');
  await expect(page.locator('.write-writing .problem').first()).toContainText('nine');
  await d.write('fasteners.fork-clamp-screws', { 'torque.is': '9 nm' });
  await expect(page.locator('[name="fasteners.fork-clamp-screws.torque.is"]')).toHaveValue('9 N·m');
});
