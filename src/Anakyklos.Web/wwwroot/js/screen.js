// What script adds to pages that work without it: keys, taps, countdowns, presses that survive a dead line, news from other screens.
import './keys.js';
import { send, resend } from './press.js';
import { dipstick, hold, wait } from './gauges.js';

document.addEventListener('alpine:init', () => {
  const { Alpine } = window;

  Alpine.data('screen', () => ({
    notice: '',
    noticeLink: false,
    init() {
      addEventListener('notice', (e) => { this.notice = e.detail.text; this.noticeLink = Boolean(e.detail.link); });
      resend();
    },
    reload() { location.reload(); },
    print() { window.print(); },
  }));

  // A form is sent once however often it is pressed, and kept when the line is dead.
  Alpine.data('once', () => ({
    init() { this.$el.addEventListener('submit', send); },
  }));

  // Another vehicle or job: the page works out the card that comes of it; what was typed stays.
  Alpine.data('intake', () => ({
    asked: 0,
    init() {
      document.documentElement.classList.add('scripted');
      this.$el.addEventListener('submit', (e) => { if (!e.submitter?.formAction.includes('handler=Preview')) send(e); });
      this.$el.addEventListener('change', (e) => { if (['plate', 'sheet', 'job', 'odometer', 'hours', 'dash', 'oilLife', 'remaining', 'tripLength', 'tripLeaves', 'tripDays'].includes(e.target.name)) this.preview(e.target); });
    },
    async preview(changed) {
      const turn = ++this.asked;
      const form = new FormData(this.$el);
      if (['plate', 'sheet'].includes(changed.name)) form.delete('job');
      const page = await fetch('/intake?handler=Preview', { method: 'POST', body: new URLSearchParams(form) }).then((r) => r.text()).catch(() => '');
      if (turn !== this.asked || !page) return;
      const fresh = new DOMParser().parseFromString(page, 'text/html');
      const focused = document.activeElement?.id;
      for (const id of changed.name === 'job' ? ['composed'] : ['jobs', 'composed']) document.getElementById(id)?.replaceChildren(...(fresh.getElementById(id)?.childNodes ?? []));
      if (focused) document.getElementById(focused)?.focus();
    },
  }));

  Alpine.data('card', () => ({
    stream: null,
    lock: null,
    init() {
      const { card, seq } = this.$el.dataset;
      this.stream = new EventSource(`/api/v1/cards/${card}/changes`);
      this.stream.addEventListener('changed', (e) => this.changed(Number(e.data), Number(seq)));
      this.wake();
    },
    changed(now, seen) {
      if (now <= seen || document.querySelector('.busy')) return;
      const typed = [...document.querySelectorAll('input:not([type=hidden])')].some((i) => i.type === 'radio' || i.type === 'checkbox' ? i.checked !== i.defaultChecked : i.value !== i.defaultValue);
      if (typed) dispatchEvent(new CustomEvent('notice', { detail: { text: 'Somebody else moved this card on.', link: true } }));
      else location.assign(`${location.pathname.replace(/\/$/, '')}?since=${seen}`);
    },
    async wake() {
      try { this.lock = await navigator.wakeLock?.request('screen'); } catch { /* The battery saver may say no; the card works all the same. */ }
    },
    destroy() { this.stream?.close(); this.lock?.release(); },
  }));

  Alpine.data('wait', wait);
  Alpine.data('hold', hold);
  Alpine.data('dipstick', dipstick);
});
