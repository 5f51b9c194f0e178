// The workshop's clock, which a hurried demo lets run faster than this device's.
const KEPT = 'anakyklos-clock';
const page = document.querySelector.bind(document);
let arrived = performance.now();
let base = null;

// A page of a real card has the attribute as well, and empty.
const inPractice = () => Boolean(page('[data-practice]')?.dataset.practice);

// The page has just been put in place of another: its clock begins now, however long the first one was looked at.
export function fresh() {
  arrived = performance.now();
  base = null;
}

// What the workshop's clock says now, asked for: a page may be old when it is shown, out of a cache or after the device slept. A page that
// was prepared for a dead line goes on by what was heard last.
let heard = null;
if (document.documentElement.dataset.prepared) heard = JSON.parse(localStorage.getItem(KEPT) ?? 'null');

async function hear() {
  if (!page('[data-now]') || inPractice()) return;
  const asked = Date.now();
  try {
    const { now, speed } = await (await fetch('/api/v1/clock', { cache: 'no-store' })).json();
    if (!Number.isFinite(now)) return;
    heard = { now, speed, at: (asked + Date.now()) / 2 };
    localStorage.setItem(KEPT, JSON.stringify(heard));
  } catch {
    /* Without a line the page's own time goes on. */
  }
}

hear();
addEventListener('pageshow', (e) => e.persisted && hear());
addEventListener('online', hear);
document.addEventListener('visibilitychange', () => document.visibilityState === 'visible' && hear());

/** How much faster the workshop's clock goes than this device's. */
export const speed = () => heard?.speed ?? Number(page('[data-speed]')?.dataset.speed ?? 1);

export function workshopNow() {
  const card = page('[data-now]');
  // The practice bay's clock goes by what is done there.
  if (heard && !inPractice()) return heard.now + (Date.now() - heard.at) * heard.speed;
  if (!card) return Date.now();
  if (base?.element !== card)
    base = { element: card, now: Number(card.dataset.now), at: Math.min(arrived, performance.now()), speed: Number(card.dataset.speed) };
  return base.now + (performance.now() - base.at) * base.speed;
}
