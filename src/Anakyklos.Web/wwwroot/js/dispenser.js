import { say } from './words.js';
// The trigger of the dispenser: while it is held the meter runs up, until it shuts; letting go before sends how much ran.
const LITRES_A_SECOND = 0.8;
const SHUT = 140;

export const dispenser = () => ({
  shown: '0.00',
  plain: false,
  held: true,
  running: false,
  shutLook: '',
  from: 0,
  init() {
    this.shuts = Number(this.$root.dataset.shuts);
    this.shown = this.$root.querySelector('.wrench-number b').textContent;
    this.up = () => this.end();
    addEventListener('pointerup', this.up);
    addEventListener('pointercancel', this.up);
    if (this.$root.querySelector('.wrench-click').textContent) this.shutLook = 'clicked';
  },
  destroy() {
    removeEventListener('pointerup', this.up);
    removeEventListener('pointercancel', this.up);
  },
  begin() {
    if (this.running || document.body.classList.contains('busy')) return;
    this.running = true;
    this.from = performance.now();
    requestAnimationFrame(() => this.flow());
  },
  get litres() {
    return Math.min(this.shuts, ((performance.now() - this.from) / 1000) * LITRES_A_SECOND);
  },
  flow() {
    if (!this.running) return;
    const litres = this.litres;
    this.shown = litres.toFixed(2);
    this.sinks(litres);
    const shut = litres >= this.shuts;
    this.$refs.jet.classList.toggle('runs', !shut);
    if (shut && !this.shutLook) {
      this.shutLook = 'clicked';
      this.$root.querySelector('.wrench-click').textContent = say('Shut');
      navigator.vibrate?.(SHUT);
    }
    requestAnimationFrame(() => this.flow());
  },
  // The drawn oil goes down by what the meter shows; how much really ran, the page says afterwards.
  sinks(litres) {
    const { left, tall } = this.$refs.oil.dataset;
    const rest = Math.max(left - litres, 0);
    const height = left > 0 ? (tall * rest) / left : 0;
    this.$refs.oil.setAttribute('height', height);
    this.$refs.oil.setAttribute('y', 216 - height);
    this.$refs.left.textContent = `${rest.toFixed(2)} L left`;
  },
  end() {
    if (!this.running) return;
    const litres = this.litres;
    this.running = false;
    this.$refs.upTo.value = litres >= this.shuts ? '' : litres.toFixed(2);
    this.$refs.run.submit();
  },
});
