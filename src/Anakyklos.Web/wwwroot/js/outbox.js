import { cupboard } from './cupboard.js';
import { ask, back, channel, isDead, lost, meaning, session, Unanswered } from './line.js';

// What was pressed and is not saved yet. It stays here until the workshop has answered that it is saved, or somebody who sees both sides
// says that it is left out; whatever else comes back, it is sent again, each with the id that makes a repeat harmless.
const RETRY = 2000;
const SENT_IN = 15_000;
// What came sooner than this was not kept, only sent.
const KEPT_FROM = 4000;

// Presses that are on their way from this page just now.
const inHand = new Set();

const changed = () => {
  dispatchEvent(new CustomEvent('kept'));
  channel?.postMessage('kept');
};

/** Everything that is kept here, in the order in which it was pressed. */
export const everything = async () => (await cupboard()).getAll('kept');

/** Keeps one press; gives its number. */
export async function keep(entry) {
  const n = await (await cupboard()).add('kept', entry);
  changed();
  return n;
}

/** Takes one out: it is saved, or somebody left it out. */
export async function drop(n) {
  if (n === null) return;
  await (await cupboard()).delete('kept', n);
  changed();
}

/** Notes something with a press that is kept. */
export async function mark(n, to) {
  const db = await cupboard();
  const entry = await db.get('kept', n);
  if (entry) await db.put('kept', { ...entry, ...to });
  changed();
}

/** Whether something of this chain waits to be sent before anything else of it. */
export const waitsOf = async (chain) => (await everything()).some((e) => e.chain === chain && !e.refusal && !inHand.has(e.n));

/** Keeps a press while it is sent from here, and only from here. */
export async function sending(n, send) {
  inHand.add(n);
  try {
    return await send();
  } finally {
    inHand.delete(n);
  }
}

/** Lets what was stopped by a refusal go again. */
export async function letGo(chain) {
  for (const e of await everything()) if (e.chain === chain && e.refusal) await mark(e.n, { refusal: null });
  flush();
}

/** Sends one press; gives what it means and the answer. */
export async function give(entry, antiforgery, most = SENT_IN) {
  const fields = new URLSearchParams(entry.fields);
  const kept = Date.now() - entry.at;
  if (fields.has('command') && entry.card && (entry.isKept || kept > KEPT_FROM)) fields.set('kept', String(Math.round(kept * entry.speed)));
  const { response, text } = await ask(entry.url, { method: 'POST', body: fields, headers: { 'X-Antiforgery': antiforgery } }, most);
  return { is: meaning(response), url: response.url, status: response.status, ok: response.ok, html: text };
}

const textsIn = (html, ...selectors) => {
  const page = new DOMParser().parseFromString(html, 'text/html');
  const texts = (selector) => [...page.querySelectorAll(selector)].map((e) => e.innerText.replace(/\s+/g, ' ').trim()).filter(Boolean);
  return selectors.map(texts);
};

// Both sides: what the workshop says against it, and how the card stands since this screen saw it.
async function refusalIn(answer, entry) {
  const [reasons, question, problems, lead] = textsIn(answer.html, '.refusal li', '.question h2, .question > p', '.problem', '.lead');
  const said = [reasons, question, problems, lead].find((texts) => texts.length) ?? [];
  const seen = entry.fields.find(([name]) => name === 'seen')?.[1] ?? '';
  const shown = entry.card ? await ask(`/lift/${entry.card}?since=${seen}`).catch(() => null) : null;
  const [now, meanwhile] = shown ? textsIn(shown.text, 'main h1', '.meanwhile span') : [[], []];
  return { said, now: now[0] ?? '', meanwhile };
}

let running = null;

/** Sends what is kept, chain by chain. Gives the last answer of each chain, and whether it was a refusal. */
export const flush = () => (running ??= (navigator.locks ? navigator.locks.request('anakyklos-outbox', send) : send()).finally(() => {
  running = null;
}));

async function send() {
  const answers = new Map();
  const here = await everything();
  if (here.length === 0 && !isDead()) return answers;
  const me = await session();
  if (!me) return answers;
  const stopped = new Set(here.filter((e) => e.refusal).map((e) => e.chain));
  let all = true;
  for (const entry of here) {
    if (entry.person !== me.id) continue;
    // Meanwhile it may be on its way from where it was pressed, or answered there.
    if (inHand.has(entry.n)) stopped.add(entry.chain);
    if (stopped.has(entry.chain) || !(await (await cupboard()).getKey('kept', entry.n))) continue;
    let answer;
    try {
      answer = await give(entry, me.antiforgery);
    } catch (e) {
      lost(e instanceof Unanswered ? 'silent' : 'none');
      all = false;
      break;
    }
    if (answer.is === 'saved') await drop(entry.n);
    else if (answer.is === 'refused') {
      stopped.add(entry.chain);
      await mark(entry.n, { refusal: await refusalIn(answer, entry) });
    } else {
      lost(answer.is);
      all = false;
      break;
    }
    answers.set(entry.chain, { answer, entry });
  }
  if (all) back();
  if (answers.size) {
    dispatchEvent(new CustomEvent('sent', { detail: answers }));
    channel?.postMessage('sent');
  }
  return answers;
}

// While anything is in the way or waits, it is tried again and again.
setInterval(async () => {
  const { person } = document.body.dataset;
  if (!person) return;
  if (isDead() || (await everything()).some((e) => !e.refusal && e.person === person && !inHand.has(e.n))) flush();
}, RETRY);
addEventListener('online', flush);
