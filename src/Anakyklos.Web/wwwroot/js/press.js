import { isEcho, isTyped, shown } from './bounce.js';
import { fresh, speed } from './clock.js';
import { anybody, canRead, channel, deadSince, isDead, lost, session, Unanswered } from './line.js';
import { drop, everything, flush, give, keep, mark, sending, waitsOf } from './outbox.js';
import {
  block, cardHere, foresees, momentWith, pageNow, pageOf, prepare, runsStill, setTimes, shownBy, step, stepBack, tidy, wayHere, wayOf,
} from './way.js';
import { say } from './words.js';

// A press is kept here before it is sent, with the id of its form, until it is answered as saved. While the line is dead it stays kept, and
// the lift goes on along the way that was prepared.
const SENT_IN = 6000;
const SLOW = 1500;
const PREPARES_IN = 400;
const LAST = 'anakyklos-last';

// Whoever types a PIN is not the one at this screen: it is never kept, and the form stays as it is to be sent again.
const isSecret = (form) => form.querySelector('input[type="password"]') !== null;

export const tell = (text) => dispatchEvent(new CustomEvent('notice', { detail: { text } }));

function put(html, address, fix) {
  fresh();
  shown();
  const page = new DOMParser().parseFromString(html, 'text/html');
  fix?.(page);
  document.title = page.title;
  document.documentElement.lang = page.documentElement.lang;
  if (address) history.pushState(null, '', address);
  document.documentElement.classList.remove('reads-only');
  document.body.replaceWith(page.body);
  window.scrollTo(0, 0);
  (document.querySelector('[autofocus], [aria-invalid="true"]') ?? document.querySelector('#main'))?.focus?.();
}

const fieldsIn = (doc) => [...doc.querySelectorAll('input:not([type=hidden]), textarea, select')];

// What still stands in its field as it was sent with this press: nobody typed it since.
function isSaid(field, entry) {
  const isChoice = ['radio', 'checkbox'].includes(field.type);
  const said = entry.fields.some(([name, value]) => name === field.name && value === field.value);
  return isChoice ? said === field.checked : said;
}

// Where the same is asked again, what was typed while the answer was on its way is newer than what was sent.
function typedSince(entry) {
  const isText = (f) => f.id && ['text', 'textarea'].includes(f.type);
  const typed = fieldsIn(document).filter((f) => isText(f) && isTyped([f]) && !isSaid(f, entry));
  return (page) => {
    for (const { id, name, value } of typed) {
      const field = page.getElementById(id);
      if (field?.name === name && isSaid(field, entry)) field.value = value;
    }
  };
}

function show(answer, entry) {
  tell('');
  put(answer.html, answer.ok ? answer.url : location.href, answer.is === 'refused' ? typedSince(entry) : undefined);
  prepareSoon();
}

// Each showing of a page has an id of its own for what is said there; a page that was prepared is shown more than once.
function anew(page) {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = (bytes[6] & 15) | 64;
  bytes[8] = (bytes[8] & 63) | 128;
  const hex = [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('');
  const id = hex.replace(/^(.{8})(.{4})(.{4})(.{4})/, '$1-$2-$3-$4-');
  for (const field of page.querySelectorAll('[name="command"]')) field.value = id;
}

/** Shows a page that was prepared for where the card stands, and says something once it is there. */
function showPrepared(html, way, words = '') {
  put(html, `/lift/${way.card}`, (page) => {
    setTimes(page, way);
    anew(page);
  });
  setTimeout(() => tell(words));
}
shownBy((html, way) => showPrepared(html, way));

let soon = 0;
function prepareSoon() {
  clearTimeout(soon);
  soon = setTimeout(prepare, PREPARES_IN);
}

const isAnswered = (answer) => answer.is === 'saved' || answer.is === 'refused';

const free = () => document.body.classList.remove('busy');

// What was typed, as somebody who looks at the list of what is kept would know it again.
function told(form) {
  const fields = [...form.elements].filter((f) => f.matches('input:not([type=hidden]), textarea, select') && f.type !== 'password');
  return fields
    .filter((f) => (['radio', 'checkbox'].includes(f.type) ? f.checked : f.value.trim()))
    .map((f) => {
      const label = (f.labels?.[0]?.innerText ?? f.name).replace(/\s+/g, ' ').trim();
      return ['radio', 'checkbox'].includes(f.type) ? label : `${label} ${f.value.trim()}`;
    });
}

function entryOf(form, submitter) {
  const url = new URL(submitter?.getAttribute('formaction') ?? form.getAttribute('action') ?? '', location.href).href;
  const fields = [...new FormData(form, submitter ?? undefined)]
    .filter(([name, value]) => typeof value === 'string' && name !== '__RequestVerificationToken');
  const path = new URL(url).pathname;
  const card = Number(path.match(/^\/(?:lift|handover|plan|kit)\/(\d+)/)?.[1]) || null;
  const words = submitter?.cloneNode(true);
  words?.querySelectorAll('kbd').forEach((k) => k.remove());
  return {
    url,
    fields,
    card,
    chain: card ? `card ${card}` : path,
    person: document.body.dataset.person,
    name: document.body.dataset.name,
    at: Date.now(),
    speed: speed(),
    words: (words?.innerText ?? '').replace(/\s+/g, ' ').trim(),
    where: document.querySelector('main h1')?.innerText.replace(/\s+/g, ' ') ?? '',
    told: told(form),
    isKept: false,
  };
}

async function giveSecret(form, entry) {
  const token = form.querySelector('[name="__RequestVerificationToken"]')?.value ?? '';
  const late = setTimeout(() => tell(say('Sent. Waiting for the workshop.')), SLOW);
  try {
    const answer = await give(entry, token, SENT_IN * 2);
    if (isAnswered(answer)) return show(answer, entry);
    if (answer.is === 'trouble' || answer.is === 'out') return show(answer, entry);
    tell(say('Something else answers in place of the workshop. The PIN was not kept; press again when it is back.'));
  } catch {
    tell(say('No line. Nothing was sent and the PIN was not kept; press again when the line is back.'));
  } finally {
    clearTimeout(late);
  }
  return free();
}

async function send1(entry, n, token) {
  const late = setTimeout(() => tell(say('Sent. Waiting for the workshop; it is kept here until it answers.')), SLOW);
  try {
    const answer = await sending(n, async () => {
      const came = await give(entry, token, SENT_IN);
      // In hand until it is out: or else it is found there in between, and sent once more.
      if (isAnswered(came)) await drop(n);
      return came;
    });
    if (isAnswered(answer)) return show(answer, entry);
    lost(answer.is);
  } catch (e) {
    lost(e instanceof Unanswered ? 'silent' : 'none');
  } finally {
    clearTimeout(late);
  }
  return goOn(entry, n);
}

// What was pressed is kept. The lift goes on where that was foreseen; otherwise it says that only the card can tell.
async function goOn(entry, n) {
  free();
  const way = entry.card && entry.card === cardHere() ? await wayHere(entry.card) : undefined;
  if (way && n !== null) await mark(n, { moment: way.moments[way.place]?.id });
  switch (foresees(way, entry)) {
    case 'foreseen':
      return showPrepared(await step(way), way);
    case 'beside':
      return showPrepared(await pageNow(way), way, say('Kept here.'));
    default:
      if (way && !way.blocked) await block(way, entry.words, n);
      return tell(entry.card ? say('Kept here. What the card says to it is known when the line is back; you can read on until then.')
        : say('Kept here, and sent when the line is back.'));
  }
}

const passes = new WeakSet();

// What the browser itself sends leads to a page of the browser when nobody is there: so it is asked first whether anybody is.
async function sendItself(e, without) {
  const form = e.target;
  if (passes.delete(form)) return;
  e.preventDefault();
  const { submitter } = e;
  if (await anybody()) {
    passes.add(form);
    form.requestSubmit(submitter);
  } else tell(without);
}

addEventListener('submit', (e) => {
  const form = e.target;
  if (form.method !== 'post' || form.hasAttribute('x-data')) return;
  sendItself(e, isSecret(form)
    ? say('Nothing was sent: the workshop cannot be reached. The PIN was not kept; press again when it is back.')
    : say('Nothing was sent: the workshop cannot be reached. What you typed stays here; press again when it is back.'));
});

export async function send(e) {
  const form = e.currentTarget;
  // A picture goes as it is: a file cannot be kept for later.
  if ([...form.elements].some((field) => field.files?.length)) {
    await sendItself(e, say('A picture cannot be kept without a line. Note it without one, or wait.'));
    return;
  }
  e.preventDefault();
  if (document.body.classList.contains('busy') || isEcho(form)) return;
  const entry = entryOf(form, e.submitter);
  const token = form.querySelector('[name="__RequestVerificationToken"]')?.value ?? '';
  document.body.classList.add('busy');
  if (isSecret(form)) {
    await giveSecret(form, entry);
    return;
  }
  const dead = isDead();
  if (dead && (await takeBack(entry))) return;
  const behind = dead || (await waitsOf(entry.chain));
  const refused = behind ? await whyNot(entry) : '';
  if (refused) {
    free();
    tell(refused);
    return;
  }
  let n;
  try {
    n = await keep({ ...entry, isKept: behind });
  } catch {
    // A browser that keeps nothing sends all the same.
    n = null;
  }
  if (!behind) await send1(entry, n, token);
  else {
    await goOn(entry, n);
    if (!dead) flush();
  }
}

const commandOf = (entry) => entry.fields.find(([name]) => name === 'command')?.[1];

// Without a line what was pressed last is not sent yet: taking it back takes it out of what is kept.
async function takeBack(entry) {
  const way = new URL(entry.url).searchParams.get('handler') === 'back' ? await wayOf(entry.card) : undefined;
  const last = way && (await everything()).filter((k) => k.card === entry.card && k.person === entry.person && !k.refusal).at(-1);
  if (!last || !(await stepBack(way, last))) return false;
  await drop(last.n);
  free();
  showPrepared(await pageNow(way), way, say('Taken back: {0}', last.words));
  return true;
}

// What is not even kept: what the hands could not have done yet, and what comes after something that only the card can judge.
async function whyNot(entry) {
  if (document.documentElement.classList.contains('reads-only')) return say('To read only: it is not its turn yet, or no more.');
  const command = commandOf(entry);
  if (command && (await everything()).some((k) => commandOf(k) === command))
    return say('Kept here already. It is sent when the line is back.');
  const way = entry.card && entry.card === cardHere() ? await wayHere(entry.card) : undefined;
  if (!way || foresees(way, entry) === 'beside') return '';
  if (way.blocked)
    return say('Only the card can tell what follows from “{0}”. Wait for the line; you can read on until then.', way.blocked);
  const still = runsStill(way);
  return still.length ? say('{0}: not over yet.', still.join(', ')) : '';
}

// What was kept is answered: this page shows how the card stands now.
addEventListener('sent', async (e) => {
  const mine = e.detail.get(`card ${cardHere()}`) ?? e.detail.get(location.pathname);
  if (!mine || document.body.classList.contains('busy')) return;
  const rest = (await everything()).filter((k) => k.chain === mine.entry.chain);
  if (mine.answer.is === 'refused' && rest.length === 1 && cardHere()) {
    // Nothing came after it: it is refused as any press is, at the place where it was pressed.
    await drop(rest[0].n);
    show(mine.answer, mine.entry);
  } else if (isTyped(fieldsIn(document).filter((field) => !isSaid(field, mine.entry))))
    dispatchEvent(new CustomEvent('notice', { detail: { text: say('What was kept here was sent.'), link: true } }));
  else if (mine.answer.is === 'saved' && mine.answer.ok) show(mine.answer, mine.entry);
  else location.reload();
});

channel?.addEventListener('message', (e) => {
  dispatchEvent(new CustomEvent('kept'));
  if (e.data === 'sent' && isDead()) session().then((me) => me && location.reload());
});

// Without a line no link leads into nothing: what is prepared is shown, of the rest it is said that it comes with the line.
addEventListener('click', async (e) => {
  const link = e.target.closest?.('a[href]');
  if (!link || !isDead() || e.defaultPrevented || link.target || link.hasAttribute('download')) return;
  const to = new URL(link.href, location.href);
  if (to.origin !== location.origin || (to.pathname === location.pathname && to.hash) || to.pathname === '/kept') return;
  const card = Number(to.pathname.match(/^\/lift\/(\d+)\/?$/)?.[1]) || null;
  if (canRead() && !card) return;
  e.preventDefault();
  const way = await wayOf(card);
  const html = way && (await readIn(way, to.searchParams));
  if (html) return;
  const since = new Date(deadSince()).toTimeString().slice(0, 5);
  tell(say('No line since {0}: that page is not kept here. It comes with the line.', since));
}, true);

async function readIn(way, query) {
  const [stepId, panel] = [query.get('step'), query.get('panel') ?? ''];
  const here = way.moments[way.place];
  if (!stepId || stepId === here.step) {
    const html = await pageNow(way, panel);
    if (html) showPrepared(html, way);
    return html;
  }
  const other = momentWith(way, stepId);
  const html = other && !panel && (await pageOf(way.card, other.id));
  if (!html) return null;
  put(html, null, (page) => setTimes(page, way));
  document.documentElement.classList.add('reads-only');
  setTimeout(() => tell(say('To read only: it is not its turn yet, or no more.')));
  return html;
}

// A page that was prepared and came out of the cupboard by itself: its times are put where they are before they are looked at.
export async function begin() {
  const { prepared } = document.documentElement.dataset;
  if (prepared) {
    delete document.documentElement.dataset.prepared;
    // What is nobody's page is looked at by whoever was here last.
    const { person } = document.body.dataset;
    if (!person) document.body.dataset.person = localStorage.getItem(LAST) ?? '';
    lost(prepared);
    const way = await wayOf(cardHere());
    if (way) setTimes(document, way);
    anew(document);
    return;
  }
  await tidy();
  const { person } = document.body.dataset;
  if (!person) return;
  localStorage.setItem(LAST, person);
  flush();
  prepareSoon();
}

addEventListener('popstate', async () => {
  const way = isDead() ? await wayOf(cardHere()) : undefined;
  if (!isDead()) location.reload();
  else if (way) showPrepared(await pageNow(way), way);
});
