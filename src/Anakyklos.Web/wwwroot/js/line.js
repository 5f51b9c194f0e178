import { say } from './words.js';

// Whether the workshop can be reached, and what is in the way if not. It is noticed before anybody presses: the stream of a card beats.
export const channel = 'BroadcastChannel' in window ? new BroadcastChannel('anakyklos') : null;

let why = '';
let since = 0;
let heardAt = performance.now();
let listens = false;
let asking = null;
const SILENT = 4500;
const ANSWERS_IN = 2500;

/** none: no line; silent: it takes requests and does not answer; strange: something else answers; trouble: it cannot keep anything; out:
 * nobody is signed in any more. */
const words = {
  none: () => say('No line'),
  silent: () => say('The workshop does not answer'),
  strange: () => say('Something else answers in place of the workshop'),
  trouble: () => say('The workshop can keep nothing just now'),
  out: () => say('You were signed out'),
};

export const isDead = () => why !== '';
export const isOut = () => why === 'out';
/** Whether pages can be read although nothing can be kept, or somebody must sign in first. */
export const canRead = () => why === 'out' || why === 'trouble';
export const inTheWay = () => words[why]?.() ?? '';
export const deadSince = () => since;

const changed = () => dispatchEvent(new CustomEvent('line'));

export function lost(reason) {
  if (why === reason) return;
  if (!why) since = Date.now();
  why = reason;
  changed();
}

export function back() {
  heardAt = performance.now();
  if (!why) return;
  why = '';
  changed();
}

/** The stream said something. */
export const heard = () => {
  heardAt = performance.now();
};

/** A stream listens from now on, or no more; while it does, silence means something. */
export function listening(on) {
  listens = on;
  heardAt = performance.now();
}

export class Unanswered extends Error {}

/** Fetches, and gives up after a while: whoever takes a request and never answers is as good as gone. */
export async function ask(url, options = {}, most = ANSWERS_IN) {
  const stop = new AbortController();
  const late = setTimeout(() => stop.abort(), most);
  try {
    const response = await fetch(url, { ...options, cache: 'no-store', signal: stop.signal });
    // The page itself may not come any more, either.
    return { response, text: await response.text() };
  } catch (e) {
    throw stop.signal.aborted ? new Unanswered('silent') : e;
  } finally {
    clearTimeout(late);
  }
}

/** What an answer means: saved, refused, or that it is no answer of the workshop to what was sent. */
export function meaning(response) {
  if (!response.headers.get('x-anakyklos')) return 'strange';
  if (response.status === 401 || (response.redirected && /^\/(signin|setup)/.test(new URL(response.url).pathname))) return 'out';
  if (response.status >= 500 || response.status === 429) return 'trouble';
  return response.ok ? 'saved' : 'refused';
}

/** Who is signed in; null where the workshop cannot be asked or nobody is, which is said in the line's state. */
export function session() {
  return (asking ??= askSession().finally(() => {
    asking = null;
  }));
}

async function askSession() {
  try {
    const { response, text } = await ask('/api/v1/session');
    const is = meaning(response);
    if (is === 'saved') return JSON.parse(text);
    lost(is === 'refused' ? 'trouble' : is);
  } catch (e) {
    lost(e instanceof Unanswered ? 'silent' : 'none');
  }
  return null;
}

/** Whether anybody is there who would take a form; whoever is not there is said in the line's state. */
export async function anybody() {
  try {
    const { response } = await ask('/healthz');
    if (response.headers.get('x-anakyklos')) return true;
    lost('strange');
  } catch (e) {
    lost(e instanceof Unanswered ? 'silent' : 'none');
  }
  return false;
}

addEventListener('offline', () => lost('none'));
setInterval(async () => {
  if (!listens || why || performance.now() - heardAt < SILENT) return;
  if (await session()) back();
}, 1000);
if (navigator.onLine === false) lost('none');
