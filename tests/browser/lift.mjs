import { expect } from '@playwright/test';

export const PIN = '2468';

/** How soon a press is looked for on the page: most answers are there in a tenth of a second. */
export const SOON = { intervals: [50, 50, 50, 100, 100, 250] };

export async function signIn(page, name = 'Iona R.') {
  await page.goto('/signin');
  await page.getByText(name, { exact: true }).click();
  await page.getByLabel('PIN').fill(PIN);
  await page.getByLabel('PIN').press('Enter');
  await expect(page.getByRole('heading', { name: 'In the bays' })).toBeVisible();
}

/** The first lead of an empty workshop: Mhairi of Quay Garage, with the PIN 135790. */
export async function startsWorkshop(page, server) {
  await page.goto('/');
  await page.getByLabel('The word that the program printed').fill(await server.word());
  await page.getByLabel('Name of the workshop').fill('Quay Garage');
  await page.getByLabel('Your name').fill('Mhairi');
  await page.getByLabel('PIN', { exact: true }).fill('135790');
  await page.getByLabel('The same PIN again').fill('135790');
  await after(page, () => page.getByRole('button', { name: 'Start the workshop' }).click());
}

/** The stores book parts in; the answer is waited for, so that one that went astray says how. */
export async function bookIn(page, number, pieces) {
  await page.goto('/stores');
  await page.getByLabel('Part number').fill(number);
  await page.getByLabel('Pieces').fill(`${pieces}`);
  const answered = page.waitForResponse((r) => r.request().method() === 'POST' && r.url().includes('/stores'), { timeout: 30_000 });
  await page.getByRole('button', { name: 'Book the parts in' }).click();
  expect((await answered).status(), `booking ${number} in`).toBe(302);
  await expect(page.getByRole('status').first()).toContainText(number);
}

/** From the yard to the first step of a new card for HD-07; gives the card's number. The boat brought what other cards have used up. */
export async function openCard(page, odometer) {
  for (const number of ['TC-0621-F', 'TC-0622-R', 'TC-0714-R']) await bookIn(page, number, 2);
  await page.goto('/');
  await page.getByRole('link', { name: 'A vehicle is here' }).click();
  await page.goto('/intake?plate=HD-07');
  await page.getByLabel('Odometer').fill(odometer);
  await page.getByRole('button', { name: 'Open the card' }).click();
  await expect(page).toHaveURL(/\/lift\/\d+/);
  return Number(page.url().match(/lift\/(\d+)/)[1]);
}

/** The key, once the page has been there long enough to be read; before that a press is taken for an echo. */
export async function key(page, name) {
  await page.locator('html[data-awake]:not(.deaf)').waitFor();
  await page.keyboard.press(name);
}

/** Signs at hand-over, with the PIN of whoever is chosen there. */
export async function signs(page) {
  await page.getByLabel("Signer's PIN").fill(PIN);
  await after(page, () => page.getByRole('button', { name: /^Sign/ }).click());
}

/** Makes a card void on which nothing was opened: whoever is signed in asks, the lead puts a second name to it. */
export async function makesVoid(page, card, reason) {
  await page.goto(`/handover/${card}`);
  await page.locator('#void-reason').fill(reason);
  await after(page, () => page.getByRole('button', { name: 'Make the card void' }).click());
  await page.getByLabel('Countersigned by').selectOption('una');
  await page.getByLabel('Their PIN').fill(PIN);
  await after(page, () => page.getByRole('button', { name: 'Countersign' }).click());
  await expect(page).toHaveURL(new RegExp(`/record/${card}`));
}

export const title = (page) => page.locator('main h1').innerText();

/** From the yard to the first step of a new card for a vehicle with just these jobs; gives the card's number. */
export async function openWith(page, plate, odometer, jobs) {
  await page.goto(`/intake?plate=${plate}`);
  for (const job of await page.locator('input[name=job]').evaluateAll((boxes) => boxes.map((b) => b.value))) {
    const box = page.locator(`input[name=job][value=${job}]`);
    if ((await box.isChecked()) === jobs.includes(job)) continue;
    const before = await page.locator('#composed').innerText();
    await box.setChecked(jobs.includes(job), { force: true });
    await expect.poll(() => page.locator('#composed').innerText()).not.toBe(before);
  }
  for (const why of await page.locator('input[name^=drop-]').all()) if (await why.isVisible()) await why.fill('Next week, with the oil');
  await page.getByLabel('Odometer').fill(odometer);
  await page.getByRole('button', { name: 'Open the card' }).click();
  await expect(page).toHaveURL(/\/lift\/\d+/);
  return Number(page.url().match(/lift\/(\d+)/)[1]);
}

/** From the yard to the first wheel of a card that only changes HD-04's brake fluid; gives the card's number. */
export async function toTheFirstWheel(page, plate = 'HD-04', odometer = '121900') {
  await bookIn(page, 'MG-DOT4-1', 2);
  const card = await openWith(page, plate, odometer, ['brake-fluid']);
  for (let presses = 0; presses < 12 && !(await title(page)).includes('bleed until'); presses++) {
    const now = await title(page);
    if (await page.locator('#kit').count()) {
      if (await page.locator('#kit [name=pan]').count()) await page.locator('#kit [name=pan]').fill('8 L');
      await page.locator('#kit [name="oils.brake-fluid.amount"]').fill('2 L');
      await page.locator('.lift-main .main').click();
    } else await key(page, 'Enter');
    await expect.poll(() => title(page).catch(() => now), SOON).not.toBe(now);
  }
  return card;
}

/** What is done cold asks for a hand first, at the same step: says that it is cold, where it is asked. */
export async function felt(page) {
  const cold = page.getByRole('button', { name: 'It is cold to the hand' });
  if (!(await cold.count())) return false;
  await after(page, () => cold.click());
  return true;
}

// Where the card is: some steps take more than one press.
export const where = async (page) => `${await title(page)} after ${await page.locator('main').getAttribute('data-seq')}`;

// A hurried clock is past the light's seconds before anybody presses: whether it was out in time is asked.
const lateLight = (page) => page.locator('.question').filter({ hasText: 'Was the light out' });

/** Says that the oil light was out in time, where that is asked; fills in where a road test went. */
export async function answered(page) {
  if (await page.locator('form#road').count()) {
    await page.locator('#road-far').fill('4 km');
    await page.locator('#road-where').fill('Harbour road');
  }
  if (!(await lateLight(page).count())) return false;
  await after(page, () => page.locator('.question .main').click());
  return true;
}

const sitOut = (page) => expect(page.locator('.waiting-main')).toHaveCount(0, { timeout: 20_000 });

/** Presses until the step whose title begins so, sitting out the waits; without script somebody has to load the page again for it. */
export async function workUpTo(page, begins, press, settled = sitOut) {
  for (let presses = 0; presses < 90; presses++) {
    const now = await where(page);
    if (now.replace(/\s+/g, ' ').startsWith(begins)) return;
    if (await page.locator('.waiting-main').count()) {
      await settled(page);
      continue;
    }
    if ((await felt(page)) || (await answered(page))) continue;
    await press();
    await expect
      .poll(
        async () =>
          (await page.locator('.waiting-main').count()) > 0 ||
          (await lateLight(page).count()) > 0 ||
          (await where(page).catch(() => now)) !== now,
        { message: `the press at “${now}”`, ...SOON },
      )
      .toBe(true);
  }
  throw new Error(`Never came to “${begins}”.`);
}

/** Taps the drawn dipstick at a place: 0 is the bottom mark, 1 the top mark. */
export async function tapStick(page, level, tap) {
  await expect(page.getByRole('slider')).toBeVisible({ timeout: 20_000 });
  // A drawing that came a moment ago does not hear a tap yet.
  await page.locator('html[data-awake]:not(.deaf)').waitFor();
  const box = await page.locator('.stick').boundingBox();
  const scale = Math.min(box.width / 275, box.height / 500);
  const top = box.y + (box.height - 500 * scale) / 2;
  const left = box.x + (box.width - 275 * scale) / 2;
  await tap(left + 122 * scale, top + (390 - level * 230) * scale);
  await expect(page.locator('#level')).not.toHaveValue('');
}

export const heading = async (page) => (await title(page)).replace(/\s+/g, ' ');
/** Presses, and waits until the page that comes of it is there. */
export const after = async (page, press) => {
  await Promise.all([page.waitForEvent('framenavigated'), press()]);
  await page.waitForLoadState();
};

async function layOutKit(page) {
  for (const fresh of await page.locator('.kit-row input[value="InHand"]').all()) await fresh.check({ force: true });
  for (const seal of await page.locator('.kit-row').filter({ hasText: 'TC-0714-R' }).all()) {
    await seal.locator('input[value="OldAgain"]').check({ force: true });
    await seal.locator('.why').fill('The box is empty');
  }
  for (const field of await page.locator('#kit .kit-amounts input').all()) {
    const name = await field.getAttribute('name');
    if (name === 'pan') await field.fill('20 L + 20 L + 20 L');
    else if (name.endsWith('.amount')) await field.fill('20 L');
    else if (!(await field.inputValue())) {
      if (name.endsWith('.reason') && !(await field.isVisible())) await field.locator('xpath=ancestor::details/summary').click();
      await field.fill(name.endsWith('.product') ? 'Red drum' : 'Not in the book yet');
    }
  }
}

/** Types what passes where a point is measured: the middle of its range, or twice its least; gives whether one is. */
export async function gauged(page) {
  if (!(await page.locator('form#measured').count())) return false;
  const limits = (await page.locator('.point-figure b').first().innerText()).split(' to ').map(Number);
  const most = (await page.locator('.point-figure').first().innerText()).includes('at most');
  const value = limits.length > 1 ? (limits[0] + limits[1]) / 2 : limits[0] * (most ? 1 : 2);
  const asks = await page.locator('#value').getAttribute('placeholder');
  const said = /clicks|cracks|strokes|turns|years/.test(asks) ? `${Math.ceil(value)}` : value.toFixed(2);
  await page.locator('#value').fill(Array(asks.split(' ').length).fill(said).join(' '));
  return true;
}

/** What the usual right hand does at the step that is shown; the first reading of a level is short of the mark, the next is at it. */
export async function usualPress(page, times) {
  if (await answered(page)) return;
  if (await page.locator('#kit').count()) await layOutKit(page);
  await gauged(page);
  if (await page.locator('#seal-number').count())
    await page.locator('#seal-number').fill(await page.locator('.leaked-seal .mono').innerText());
  if (await page.locator('#rule #words').count()) await page.locator('#rule #words').fill('The workshop manual is newer');
  if (await page.locator('#gauge').count()) await page.locator('#level').fill(times > 1 ? '1' : '1/2');
  if (await page.locator('.panel #amount').count()) {
    await page.locator('.panel #amount').fill('7.4 L');
    await after(page, () => page.getByRole('button', { name: 'That came out' }).click());
  } else await after(page, () => page.locator('.lift-main .main').first().click());
}
