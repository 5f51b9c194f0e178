// Hands and feet at a dash: what is pressed is held until it is let go, and that is how long it was held.
export const dash = () => ({
  held: '0.0',
  from: 0,
  button: null,
  timer: 0,
  init() {
    document.documentElement.classList.add('scripted');
    this.up = () => this.end();
    addEventListener('pointerup', this.up);
    addEventListener('pointercancel', this.up);
    addEventListener('keyup', this.up);
    this.down = (e) => this.number(e);
    addEventListener('keydown', this.down);
  },
  destroy() {
    clearInterval(this.timer);
    removeEventListener('pointerup', this.up);
    removeEventListener('pointercancel', this.up);
    removeEventListener('keyup', this.up);
    removeEventListener('keydown', this.down);
  },
  number(e) {
    if (e.target.closest('input, textarea, select') || e.repeat) return;
    const button = this.$root.querySelector(`[data-hold="${e.key}"]`);
    if (button) this.begin(button);
  },
  press(e) {
    if (e.type === 'keydown' && e.key !== ' ' && e.key !== 'Enter') return;
    if (e.repeat) return;
    e.preventDefault();
    this.begin(e.currentTarget);
  },
  begin(button) {
    if (this.button) return;
    this.button = button;
    this.from = performance.now();
    button.classList.add('down');
    this.timer = setInterval(() => {
      this.held = ((performance.now() - this.from) / 1000).toFixed(1);
    }, 100);
  },
  end() {
    if (!this.button) return;
    clearInterval(this.timer);
    this.$refs.held.value = ((performance.now() - this.from) / 1000).toFixed(2);
    const button = this.button;
    this.button = null;
    button.classList.remove('down');
    this.sending = true;
    this.$root.requestSubmit(button);
  },
  // With script a click alone sends nothing: what sends is letting go.
  sends(e) {
    if (!this.sending) e.preventDefault();
    this.sending = false;
  },
});
