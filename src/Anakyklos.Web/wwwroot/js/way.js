import { workshopNow } from './clock.js';
import { cupboard } from './cupboard.js';
import { ask, isDead, meaning } from './line.js';

// The straight way ahead of a card: what the lift would show after its usual press, and after that one's, each with its panels. The
// workshop works it out while there is a line, by the same rules; without one this device goes along it and judges nothing itself.
const AHEAD = 24;
const BEHIND = 4;
const NEAR = 2;
const PANEL_IN_MIDDLE = '';
const OWN = new Set(['command', 'seen', 'form-id', 'kept', '__RequestVerificationToken', 'at', 'panel']);

/** The number of the card whose lift is shown; null elsewhere. */
export const cardHere = (doc = document) => Number(doc.querySelector('main.lift')?.dataset.card) || null;

const read = async (card) => (card ? (await cupboard()).get('way', card) : undefined);

export const wayOf = async (card) => {
  const way = await read(card);
  return way?.person === document.body.dataset.person ? way : undefined;
};

const write = async (way) => (await cupboard()).put('way', way);

export const pageOf = async (card, moment, panel = PANEL_IN_MIDDLE) => (await (await cupboard()).get('page', [card, moment, panel]))?.html;

const handlerOf = (url) => new URL(url, location.href).searchParams.get('handler') ?? '';

// What a form says, without what differs from one showing of it to the next.
const plain = (fields) =>
  JSON.stringify([...fields].filter(([name, value]) => !OWN.has(name) && value !== '').map(([n, v]) => [n, String(v).trim()]).sort());

/** What a page that was prepared would say next: a form, or a time that passes; null where the way ends. */
function moveOf(doc, alike) {
  const waits = doc.querySelector('.lift-main .waiting-main, .move-ring[data-reload]');
  // To the whole millisecond, and one more: what is over is over.
  if (waits) return { passes: Math.max(1, Math.ceil(waits.dataset.until - doc.querySelector('main.lift').dataset.now) + 1) };
  const button = doc.querySelector('.lift-main button.main[type="submit"], .lift-step .panel .main[type="submit"]');
  if (!button?.form) return null;
  const fields = [...new FormData(button.form, button)].filter(([, value]) => typeof value === 'string');
  const handler = handlerOf(button.getAttribute('formaction') ?? button.form.getAttribute('action') ?? '');
  const answer = alike.find((a) => a.handler === handler);
  const typed = answer && fields.find(([name]) => name === answer.field);
  if (typed && !typed[1]) typed[1] = answer.usual;
  if (button.form.querySelector('input[type="password"]')) return null;
  return { handler, fields: fields.filter(([name]) => name !== '__RequestVerificationToken') };
}

const spoken = (move) =>
  move.passes ? `passes=${move.passes}` : `${new URLSearchParams([['handler', move.handler], ...move.fields])}`;

const waitsOn = (within) => {
  const waits = [...within.querySelectorAll('[data-wait]')];
  return waits.map(({ dataset }) => [dataset.wait, { until: Number(dataset.until), for: dataset.for ?? '' }]);
};

function momentOf(doc, id) {
  const main = doc.querySelector('main.lift');
  if (!main || doc.querySelector('.question')) return null;
  const alike = JSON.parse(main.dataset.alike || '[]');
  const { seq, step, now } = main.dataset;
  const waits = Object.fromEntries(waitsOn(main));
  return { id, seq: Number(seq), step, now: Number(now), waits, alike, move: moveOf(doc, alike) };
}

let preparing = null;

/** Prepares the way ahead of the card that is shown, beyond what is prepared already. Stops when it is called again. */
export async function prepare() {
  preparing?.abort();
  const card = cardHere();
  const token = document.querySelector('main [name="__RequestVerificationToken"]')?.value;
  const command = document.querySelector('main [name="command"]')?.value;
  if (!card || !token || !command || isDead() || document.querySelector('main.lift').dataset.practice) return;
  const stop = new AbortController();
  preparing = stop;
  const bring = async (moves, panel) => {
    const body = new URLSearchParams({ moves: JSON.stringify(moves), command });
    if (panel) body.set('panel', panel);
    const options = { method: 'POST', body, headers: { 'X-Antiforgery': token } };
    const { response, text } = await ask(`/lift/${card}?handler=ahead`, options, 10_000).catch(() => ({}));
    return response && meaning(response) === 'saved' ? text : null;
  };
  const { dataset } = document.querySelector('main.lift');
  const way = goOn(await wayOf(card), dataset) ?? { card, person: document.body.dataset.person, moments: [], place: 0, ends: {}, last: 0 };
  Object.assign(way.ends, Object.fromEntries(waitsOn(document)));
  Object.assign(way, { at: Date.now(), blocked: null, shownAt: null });
  const db = await cupboard();
  const hold = () => stop.signal.aborted || isDead() || cardHere() !== card;
  const moves = [];
  for (let k = way.place; !hold() && k - way.place < AHEAD; k++) {
    if (k >= way.moments.length) {
      const html = await bring(moves);
      if (!html || hold()) break;
      const moment = momentOf(new DOMParser().parseFromString(html, 'text/html'), ++way.last);
      // The same page again: there is no way on from here.
      const before = way.moments.at(-1);
      if (!moment || (before && before.seq === moment.seq && before.step === moment.step && before.now === moment.now)) break;
      await db.put('page', { card, moment: moment.id, panel: PANEL_IN_MIDDLE, html });
      way.moments.push(moment);
      if (!hold()) await write(way);
    }
    const { move } = way.moments[k];
    if (!move) break;
    moves.push(spoken(move));
    // What stands behind the buttons of the page that is looked at is wanted before what is far ahead.
    if (k - way.place === NEAR) await panels(way, moves, bring, hold, 1);
  }
  if (hold()) return;
  while (way.place > BEHIND) {
    const old = way.moments.shift();
    way.place--;
    await db.delete('page', IDBKeyRange.bound([card, old.id, ''], [card, old.id, '\uffff']));
  }
  await write(way);
  await panels(way, moves, bring, hold, AHEAD);
}

// What stands behind the other buttons of each page: another reading, saw something, can't finish this.
async function panels(way, moves, bring, hold, most) {
  const db = await cupboard();
  for (let k = way.place; k < Math.min(way.moments.length, way.place + most); k++) {
    const { id } = way.moments[k];
    const doc = new DOMParser().parseFromString((await pageOf(way.card, id)) ?? '', 'text/html');
    const links = [...doc.querySelectorAll('a[href*="panel="]')].map((a) => new URL(a.getAttribute('href'), location.href));
    const named = new Set(links.map((to) => to.searchParams.get('panel')));
    for (const panel of named) {
      if (await db.getKey('page', [way.card, id, panel])) continue;
      const html = await bring(moves.slice(0, k - way.place), panel);
      if (hold()) return;
      if (html) await db.put('page', { card: way.card, moment: id, panel, html });
    }
  }
}

// Where the way goes on as it was prepared, only what lies beyond it is missing.
function goOn(way, shown) {
  if (!way) return null;
  const place = way.moments.findIndex((m, i) => i >= way.place && m.seq === Number(shown.seq) && m.step === shown.step);
  return place < 0 || shown.panel ? null : { ...way, place };
}

/** The way from the page that is shown: a page of the workshop may be further than what was prepared for the one before it. Undefined where
 * it leads through no page that was prepared. */
export async function wayHere(card) {
  const way = await wayOf(card);
  const main = document.querySelector('main.lift');
  if (!way || !main) return undefined;
  const waits = main.querySelector('.lift-main .waiting-main, .move-ring[data-reload]') !== null;
  const fits = (m) => m?.seq === Number(main.dataset.seq) && m.step === main.dataset.step && Boolean(m.move?.passes) === waits;
  if (fits(way.moments[way.place])) return way;
  const place = way.moments.findIndex(fits);
  if (place < 0) return undefined;
  way.place = place;
  Object.assign(way.ends, Object.fromEntries(waitsOn(document)));
  await write(way);
  return way;
}

/** Whether a press is the one that was foreseen, goes beside the way, or needs the card's judgement. */
export function foresees(way, entry) {
  const moment = way?.moments[way.place];
  if (!moment || way.blocked) return 'unknown';
  const fields = entry.fields.filter(([name]) => name !== 'stay');
  const handler = handlerOf(entry.url);
  const value = (name) => fields.find(([n]) => n === name)?.[1] ?? '';
  const beside = { saw: value('grade') !== 'Stop', sample: true };
  if (handler in beside && beside[handler]) return 'beside';
  if (!moment.move || moment.move.passes || value('step') !== moment.step) return 'unknown';
  const next = way.moments[way.place + 1];
  if (!next) return 'unknown';
  if (handler === moment.move.handler && plain(fields) === plain(moment.move.fields.filter(([name]) => name !== 'stay'))) return 'foreseen';
  const answer = moment.alike.find((a) => a.handler === handler);
  const others = fields.filter(([name]) => ![answer?.field, 'step'].includes(name) && !OWN.has(name));
  return answer && others.length === 0 && answer.answers.includes(value(answer.field).trim()) ? 'foreseen' : 'unknown';
}

/** What still runs of what the way ahead takes to be over by now; empty when nothing does. */
export function runsStill(way) {
  const moment = way.moments[way.place];
  return Object.entries(way.ends).filter(([id, w]) => !(id in moment.waits) && w.until > workshopNow()).map(([, w]) => w.for);
}

/** Goes one moment on, and gives its page. */
export async function step(way) {
  const [before, next] = [way.moments[way.place], way.moments[way.place + 1]];
  const now = workshopNow();
  for (const [id, w] of Object.entries(next.waits))
    if (before.waits[id]?.until !== w.until || !(id in way.ends)) way.ends[id] = { until: now + (w.until - next.now), for: w.for };
  way.place++;
  way.shownAt = before.move?.passes ? (way.shownAt ?? now) : now;
  await write(way);
  return pageNow(way);
}

/** The page that is prepared for where the card stands as far as this device knows. */
export const pageNow = async (way, panel) => pageOf(way.card, way.moments[way.place].id, panel);

/** Another moment of the way with this step, to be read only; undefined where none is prepared. */
export const momentWith = (way, stepId) => way.moments.find((m) => m.step === stepId);

/** Says that from here the card's judgement is needed, and for which press. */
export async function block(way, words, n) {
  way.blocked = words;
  way.blockedBy = n;
  await write(way);
}

/** Goes back to where a press was given that is taken out again; false where that lies behind what is prepared. */
export async function stepBack(way, pressed) {
  const place = way.moments.findIndex((m) => m.id === pressed.moment);
  if (place < 0) return false;
  way.place = place;
  if (way.blockedBy === pressed.n) way.blocked = null;
  await write(way);
  return true;
}

/** Puts the times of a page that was prepared where they are: what a press began runs from that press. */
export function setTimes(doc, way) {
  const moment = way.moments[way.place];
  const main = doc.querySelector('main.lift');
  main.dataset.now = String(Math.round(workshopNow()));
  const shift = (way.shownAt ?? workshopNow()) - moment.now;
  for (const e of main.querySelectorAll('[data-until]')) {
    const own = way.ends[e.dataset.wait];
    if (e.dataset.from) e.dataset.from = String(Math.round(Number(e.dataset.from) + shift));
    e.dataset.until = String(Math.round(own ? own.until : Number(e.dataset.until) + shift));
  }
}

let shows = () => location.reload();

/** Who shows pages that were prepared. */
export const shownBy = (show) => {
  shows = show;
};

/** Something is over that the page waited for: it is loaded again, or without a line the next one that was prepared is shown. */
export async function again() {
  if (!isDead()) return location.reload();
  const way = await wayHere(cardHere());
  const moment = way?.moments[way.place];
  if (!moment?.move?.passes || !way.moments[way.place + 1]) return undefined;
  return shows(await step(way), way);
}

/** Forgets every way but those of whoever is signed in here, and those that are old. */
export async function tidy() {
  const { person } = document.body.dataset;
  const db = await cupboard();
  for (const way of await db.getAll('way')) {
    if (way.person === person && Date.now() - way.at < 12 * 3_600_000) continue;
    await db.delete('way', way.card);
    await db.delete('page', IDBKeyRange.bound([way.card], [way.card + 1], false, true));
  }
}
