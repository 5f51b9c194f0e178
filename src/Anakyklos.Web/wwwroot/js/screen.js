// What script adds to pages that work without it: keys, taps, countdowns, presses that survive a dead line, news from other screens.
import './keys.js';
import { isTyped } from './bounce.js';
import { begin, send } from './press.js';
import { keptHere, strip } from './kept.js';
import { back, heard, isDead, listening, session } from './line.js';
import { dipstick, jug, seconds, sound, wait } from './gauges.js';
import { dispenser } from './dispenser.js';
import { wrench } from './wrench.js';
import { calls } from './calls.js';
import { coming } from './coming.js';
import { dash } from './dash.js';
import { placing } from './placing.js';
import { say } from './words.js';

placing();

let begun = false;
let leaving = false;
addEventListener('pagehide', () => {
  leaving = true;
});
addEventListener('pageshow', () => {
  leaving = false;
});

document.addEventListener('alpine:init', () => {
  const { Alpine } = window;

  Alpine.data('screen', () => ({
    notice: '',
    noticeLink: false,
    init() {
      addEventListener('notice', (e) => {
        this.notice = e.detail.text;
        this.noticeLink = Boolean(e.detail.link);
      });
      // A page that is put in place of another has begun already.
      if (!begun) begin();
      begun = true;
      // From here on a key is heard.
      document.documentElement.dataset.awake = 'yes';
    },
    reload() {
      location.reload();
    },
    print() {
      window.print();
    },
  }));

  // A form is sent once however often it is pressed, and kept when the line is dead.
  Alpine.data('once', () => ({
    init() {
      this.$el.addEventListener('submit', send);
    },
  }));

  // Another vehicle or job: the page works out the card that comes of it; what was typed stays.
  const composes = ['plate', 'sheet', 'job', 'odometer', 'hours', 'dash', 'oilLife', 'remaining', 'tripLength', 'tripLeaves', 'tripDays'];
  const parts = (names) => (names.every((name) => name === 'find') ? ['which']
    : names.every((name) => name === 'job') ? ['composed'] : names.includes('find') ? ['which', 'jobs', 'composed'] : ['jobs', 'composed']);
  Alpine.data('intake', () => ({
    changed: new Set(),
    asking: false,
    init() {
      document.documentElement.classList.add('scripted');
      this.$el.addEventListener('submit', (e) => {
        if (!/handler=(Preview|Read)/.test(e.submitter?.formAction ?? '')) send(e);
      });
      // What is typed over what a device read was typed.
      this.$el.addEventListener('input', (e) => {
        const mark = this.$el.querySelector(`[data-read-for="${e.target.name}"]`);
        if (mark) mark.hidden = e.target.value !== e.target.defaultValue;
      });
      // Of many vehicles those that fit what is typed are shown as it is typed.
      const find = this.$el.querySelector('#find');
      find?.addEventListener('input', () => {
        clearTimeout(this.typed);
        this.typed = setTimeout(() => this.look('find'), 150);
      });
      find?.addEventListener('keydown', (e) => {
        if (e.key !== 'Enter') return;
        e.preventDefault();
        this.look('find');
      });
      this.$el.addEventListener('change', (e) => {
        if (!composes.includes(e.target.name)) return;
        this.changed.add(e.target.name);
        this.preview();
      });
    },
    look(name) {
      this.changed.add(name);
      this.preview();
    },
    // One question at a time: what is changed meanwhile goes along with the next, and an answer that is out of date is not shown.
    async preview() {
      if (this.asking) return;
      this.asking = true;
      while (this.changed.size) {
        const names = this.changed;
        this.changed = new Set();
        const form = new FormData(this.$el);
        if (names.has('plate') || names.has('sheet')) form.delete('job');
        const page = await fetch('/intake?handler=Preview', { method: 'POST', body: new URLSearchParams(form) })
          .then((r) => r.text())
          .catch(() => '');
        if (this.changed.size) for (const name of names) this.changed.add(name);
        else if (page) this.show(page, parts([...names]));
      }
      this.asking = false;
    },
    show(page, parts) {
      const fresh = new DOMParser().parseFromString(page, 'text/html');
      const focused = document.activeElement?.id;
      for (const id of parts) document.getElementById(id)?.replaceChildren(...(fresh.getElementById(id)?.childNodes ?? []));
      if (focused) document.getElementById(focused)?.focus();
    },
  }));

  // What is found follows what is typed; arrow keys go from one thing to the next, and Escape goes back to where one came from.
  Alpine.data('find', () => ({
    init() {
      const field = this.$el.querySelector('#q');
      const links = () => [...document.querySelectorAll('#found a.found-one')];
      let asked = field.value.trim();
      let waits;
      const ask = async () => {
        const text = field.value.trim();
        if (text === asked) return;
        asked = text;
        const address = `/find?q=${encodeURIComponent(text)}`;
        const page = await fetch(address).then((r) => (r.ok ? r.text() : '')).catch(() => '');
        if (!page || text !== asked) return;
        const fresh = new DOMParser().parseFromString(page, 'text/html').getElementById('found');
        document.getElementById('found').replaceChildren(...(fresh?.childNodes ?? []));
        history.replaceState(null, '', address);
      };
      field.addEventListener('input', () => {
        clearTimeout(waits);
        waits = setTimeout(ask, 120);
      });
      field.setSelectionRange(field.value.length, field.value.length);
      this.$el.addEventListener('keydown', (e) => {
        if (e.key === 'Escape' && !(e.target === field && field.value)) history.back();
        if (!['ArrowDown', 'ArrowUp'].includes(e.key)) return;
        e.preventDefault();
        const all = links();
        const to = all.indexOf(document.activeElement) + (e.key === 'ArrowDown' ? 1 : -1);
        (to < 0 ? field : all[Math.min(to, all.length - 1)])?.focus();
      });
    },
  }));

  Alpine.data('card', () => ({
    stream: null,
    lock: null,
    init() {
      this.onLine = () => this.listen();
      addEventListener('line', this.onLine);
      this.listen();
      this.wake();
    },
    listen() {
      if (isDead()) {
        this.stream?.close();
        this.stream = null;
        listening(false);
        return;
      }
      if (this.stream) return;
      // In the practice bay hands move it on as well as presses.
      const { card, practice } = this.$root.dataset;
      const seq = practice || this.$root.dataset.seq;
      const stream = new EventSource(`/api/v1/cards/${card}/changes`);
      this.stream = stream;
      listening(true);
      for (const said of ['open', 'beat', 'changed', 'reading']) stream.addEventListener(said, heard);
      stream.addEventListener('changed', (e) => this.changed(Number(e.data), Number(seq)));
      stream.addEventListener('reading', (e) => this.came(Number(e.data), Number(this.$root.dataset.waiting)));
      // It tries again by itself; whether there is a line at all is asked at once, unless the page itself is going.
      stream.addEventListener('error', async () => {
        if (!leaving && this.stream === stream && (await session())) back();
      });
    },
    came(waiting, seen) {
      if (waiting === seen || document.querySelector('.busy')) return;
      if (isTyped(document.querySelectorAll('input, textarea, select')))
        dispatchEvent(new CustomEvent('notice', { detail: { text: say('A reading came that waits for you.'), link: true } }));
      else location.replace(location.href);
    },
    changed(now, seen) {
      if (now <= seen || document.querySelector('.busy')) return;
      if (isTyped(document.querySelectorAll('input, textarea, select')))
        dispatchEvent(new CustomEvent('notice', { detail: { text: say('Somebody else moved this card on.'), link: true } }));
      else location.assign(`${location.pathname.replace(/\/$/, '')}?since=${seen}`);
    },
    async wake() {
      try {
        this.lock = await navigator.wakeLock?.request('screen');
      } catch {
        /* The battery saver may say no; the card works all the same. */
      }
    },
    destroy() {
      removeEventListener('line', this.onLine);
      this.stream?.close();
      listening(false);
      this.lock?.release();
    },
  }));

  // What goes on by itself is looked at again soon.
  Alpine.data('again', () => ({
    timer: 0,
    init() {
      this.timer = setTimeout(() => location.reload(), 1500);
    },
    destroy() {
      clearTimeout(this.timer);
    },
  }));

  // A bay shows what came as soon as it comes, unless somebody is typing.
  Alpine.data('bay', () => ({
    stream: null,
    init() {
      this.stream = new EventSource(`/api/v1/bays/${this.$el.dataset.bay}/changes`);
      this.stream.addEventListener('changed', () => {
        if (document.querySelector('.busy')) return;
        if (isTyped(document.querySelectorAll('input, textarea, select')) || document.querySelector('details[open]'))
          dispatchEvent(new CustomEvent('notice', { detail: { text: say('Something came.'), link: true } }));
        else location.replace(location.pathname);
      });
    },
    destroy() {
      this.stream?.close();
    },
  }));

  Alpine.data('strip', strip);
  Alpine.data('keptHere', keptHere);
  Alpine.data('coming', coming);
  Alpine.data('wait', wait);
  Alpine.data('sound', sound);
  Alpine.data('seconds', seconds);
  Alpine.data('wrench', wrench);
  Alpine.data('dispenser', dispenser);
  Alpine.data('dipstick', dipstick);
  Alpine.data('jug', jug);
  Alpine.data('calls', calls);
  Alpine.data('dash', dash);
});

// Reads the pages that were prepared where a browser would show that it cannot reach anybody. Only over HTTPS, or on this machine itself.
navigator.serviceWorker?.register('/sw.js').catch(() => {});
