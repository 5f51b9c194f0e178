import { say } from './words.js';

// How far a file is that was sent: asked of the server while the browser waits for its answer.
const ASKS = 400;

const SAYS = {
  read: (done, of) => say('{0} of {1} rows are read', done, of),
  compared: (done, of) => say('{0} of {1} vehicles are compared with what is here', done, of),
  kept: (done, of) => say('{0} of {1} are written down', done, of),
};

const grouped = (number) => String(number).replace(/\B(?=(\d{3})+$)/g, '\u202F');

export const coming = () => ({
  goes: false,
  said: '',
  done: 0,
  of: 1,
  timer: 0,
  init() {
    this.$el.addEventListener('submit', () => {
      this.goes = true;
      this.said = say('The file is on its way');
      this.timer = setInterval(() => this.ask(), ASKS);
    });
    // The page that was left may be shown again as it was.
    this.onBack = () => this.destroy();
    addEventListener('pageshow', this.onBack);
  },
  destroy() {
    clearInterval(this.timer);
    this.goes = false;
  },
  async ask() {
    const id = this.$root.querySelector('[name="form-id"]').value;
    const answer = await fetch(`/files/coming/${id}`, { cache: 'no-store' }).catch(() => null);
    if (answer?.status !== 200) return;
    const { stage, done, of } = await answer.json();
    if (of === 0) return;
    [this.said, this.done, this.of] = [SAYS[stage](grouped(done), grouped(of)), done, of];
  },
});
