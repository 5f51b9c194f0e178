import { workshopNow } from './clock.js';
import { again } from './way.js';
import { numberIn, say, written } from './words.js';

const two = (n) => String(n).padStart(2, '0');

function clock(ms) {
  const s = Math.max(0, Math.ceil(ms / 1000));
  return s >= 3600 ? `${Math.floor(s / 3600)}:${two(Math.floor(s / 60) % 60)}:${two(s % 60)}` : `${two(Math.floor(s / 60))}:${two(s % 60)}`;
}

const page = document.querySelector.bind(document);

// A screen is told once to be quiet, and stays so; another one beside it may call out.
const QUIET = 'anakyklos-quiet';

const isQuiet = () => localStorage.getItem(QUIET) === 'yes';

function beep() {
  if (isQuiet()) return;
  try {
    const audio = new AudioContext();
    for (const [at, pitch] of [
      [0, 660],
      [0.22, 880],
    ]) {
      const tone = audio.createOscillator();
      const loud = audio.createGain();
      tone.frequency.value = pitch;
      loud.gain.value = 0.2;
      tone.connect(loud).connect(audio.destination);
      tone.start(audio.currentTime + at);
      tone.stop(audio.currentTime + at + 0.18);
    }
    setTimeout(() => audio.close(), 800);
  } catch {
    /* No loudspeaker: it is plain to see all the same. */
  }
}

function callOut(text) {
  dispatchEvent(new CustomEvent('notice', { detail: { text } }));
  navigator.vibrate?.([200, 100, 200]);
  beep();
}

export const sound = () => ({
  quiet: isQuiet(),
  get words() {
    return this.quiet ? say('Sound is off') : say('Sound is on');
  },
  get pressed() {
    return this.quiet ? 'false' : 'true';
  },
  turn() {
    this.quiet = !this.quiet;
    localStorage.setItem(QUIET, this.quiet ? 'yes' : 'no');
    beep();
  },
});

export const wait = () => ({
  ran: false,
  left: '',
  word: '',
  over: '',
  timer: 0,
  init() {
    this.tick();
    this.timer = setInterval(() => this.tick(), 250);
  },
  tick() {
    const ms = Number(this.$el.dataset.until) - workshopNow();
    this.left = clock(ms);
    this.over = ms <= 0 ? 'over' : '';
    this.word = ms <= 0 ? say('is over') : say('runs on its own');
    if (ms > 0) this.ran = true;
    else {
      clearInterval(this.timer);
      if (this.ran && this.$el.dataset.for) callOut(say('{0}: over.', this.$el.dataset.for));
      if (this.$el.dataset.reload) setTimeout(again, 700);
    }
  },
  destroy() {
    clearInterval(this.timer);
  },
});

// Seconds that run since something was said, against those that it may take or must be held.
export const seconds = () => ({
  count: '',
  rest: 0,
  late: '',
  word: '',
  ran: false,
  timer: 0,
  init() {
    this.timer = setInterval(() => this.tick(), 100);
    this.tick();
  },
  tick() {
    const { from, until, before, after, reload } = this.$el.dataset;
    const now = workshopNow();
    const part = Math.min(1, Math.max(0, (now - from) / (until - from)));
    this.count = reload ? String(Math.max(0, Math.ceil((until - now) / 1000))) : String(Math.max(0, Math.floor((now - from) / 1000)));
    this.rest = 100 - part * 100;
    this.late = part >= 1 ? 'late' : '';
    this.word = part >= 1 ? after : before;
    if (part < 1) this.ran = true;
    // What was over before the page was there is loaded again, too.
    else if (this.ran || (reload && this.timer !== null)) {
      this.ran = false;
      // What reloads is called out by the big button.
      if (!reload) callOut(`${after}.`);
      if (reload) {
        clearInterval(this.timer);
        this.timer = null;
        setTimeout(again, 500);
      }
    }
  },
  destroy() {
    clearInterval(this.timer);
  },
});

export const dipstick = () => ({
  tap(e) {
    const field = page('#level');
    if (!field) return;
    const svg = this.$el;
    const point = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM().inverse());
    this.set((Number(svg.dataset.bottom) - point.y) / Number(svg.dataset.span));
  },
  key(e) {
    const fine = this.rod() ? 1 / this.rod().apart : 0.05;
    const step = { ArrowUp: fine, ArrowDown: -fine, PageUp: 0.25, PageDown: -0.25 }[e.key];
    if (!step || !page('#level')) return;
    e.preventDefault();
    e.stopPropagation();
    this.set(this.typed() + step);
  },
  // A rod is read in millimetres below the filler, every other gauge as a place between its marks.
  rod() {
    const { high, low } = this.$el.dataset;
    return low ? { low: Number(low), apart: Number(low) - Number(high) } : null;
  },
  typed() {
    const number = numberIn(page('#level').value);
    const rod = this.rod();
    if (Number.isNaN(number)) return 0;
    return rod ? (rod.low - number) / rod.apart : number;
  },
  set(fraction) {
    const rod = this.rod();
    const apart = rod ? rod.apart : 20;
    const level = Math.min(2, Math.max(-1, Math.round(fraction * apart) / apart));
    const svg = this.$el;
    page('#level').value = rod ? `${Math.round(rod.low - level * rod.apart)} mm` : written(level);
    svg.setAttribute('aria-valuenow', String(level));
    const y = Number(svg.dataset.bottom) - Math.min(1.35, Math.max(-0.35, level)) * Number(svg.dataset.span);
    svg.querySelector('[data-here]').classList.remove('gone');
    for (const part of svg.querySelectorAll('[data-here-line], [data-here-dot]')) part.setAttribute('transform', `translate(0 ${y})`);
    svg.querySelector('[data-oil]').setAttribute('d', svg.dataset.shape.replaceAll('{y}', String(y)));
  },
});

// What came out stands in a measuring jug: a tap, or the arrow keys, say where.
export const jug = () => ({
  tap(e) {
    const svg = this.$el;
    const point = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM().inverse());
    this.set(((Number(svg.dataset.bottom) - point.y) / Number(svg.dataset.span)) * Number(svg.dataset.holds));
  },
  key(e) {
    const fine = Number(this.$el.dataset.fine);
    const step = { ArrowUp: fine, ArrowDown: -fine, PageUp: fine * 10, PageDown: -fine * 10 }[e.key];
    if (!step) return;
    e.preventDefault();
    e.stopPropagation();
    this.set((numberIn(page('#amount').value) || 0) + step);
  },
  set(amount) {
    const svg = this.$el;
    const { bottom, span, holds, fine, unit } = svg.dataset;
    const read = Math.min(holds * 1.05, Math.max(0, Math.round(amount / fine) * fine));
    page('#amount').value = `${written(read)} ${unit}`;
    svg.setAttribute('aria-valuenow', String(Number(read.toFixed(3))));
    svg.querySelector('[data-oil]').setAttribute('y', String(bottom - (read / holds) * span));
  },
});
