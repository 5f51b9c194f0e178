import { say } from './words.js';
// The lever of the wrench: while it is held the joint is drawn down, degree by degree as the vehicle answers; letting go sends how far.
const DEGREES_A_SECOND = 30;
const CLICK = 140;

export const wrench = () => ({
  shown: '0',
  plain: false,
  held: true,
  pulling: false,
  clickLook: '',
  from: 0,
  init() {
    const { curve, setting } = this.$root.dataset;
    this.curve = curve.split(' ').map(Number);
    this.setting = Number(setting);
    this.shown = this.$root.querySelector('.wrench-number b').textContent;
    this.up = () => this.end();
    addEventListener('pointerup', this.up);
    addEventListener('pointercancel', this.up);
    if (this.$root.querySelector('.wrench-click').textContent) this.clicks();
  },
  destroy() {
    removeEventListener('pointerup', this.up);
    removeEventListener('pointercancel', this.up);
  },
  begin() {
    if (this.pulling || document.body.classList.contains('busy')) return;
    this.pulling = true;
    this.from = performance.now();
    requestAnimationFrame(() => this.turn());
  },
  get degrees() {
    return Math.min(180, ((performance.now() - this.from) / 1000) * DEGREES_A_SECOND);
  },
  turn() {
    if (!this.pulling) return;
    const degrees = this.degrees;
    const torque = this.curve[Math.floor(degrees)] ?? 0;
    this.shown = String(torque);
    this.$refs.lever.setAttribute('transform', `rotate(${-degrees})`);
    if (torque >= this.setting && !this.clickLook) this.clicks();
    requestAnimationFrame(() => this.turn());
  },
  clicks() {
    this.clickLook = 'clicked';
    this.$root.querySelector('.wrench-click').textContent = say('Click');
    navigator.vibrate?.(CLICK);
  },
  end() {
    if (!this.pulling) return;
    const degrees = Math.max(1, Math.round(this.degrees));
    this.pulling = false;
    this.$refs.degrees.value = String(degrees);
    this.$refs.pull.submit();
  },
});
