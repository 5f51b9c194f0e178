import { deadSince, inTheWay, isDead, isOut, session } from './line.js';
import { drop, everything, letGo } from './outbox.js';
import { say } from './words.js';

const clock = (at) => new Date(at).toTimeString().slice(0, 8);
const unsaved = (n) => (n === 1 ? say('One press is kept here, not saved yet.') : say('{0} presses are kept here, not saved yet.', n));
const undecided = (n) => (n === 1 ? say('One press is kept here: you decide.') : say('{0} presses are kept here: you decide.', n));
const sinceWhen = () => say('{0} since {1}.', inTheWay(), clock(deadSince()).slice(0, 5));

const NEWS = ['line', 'kept'];

// Shows anew whatever the line or what is kept becomes.
function follow(view) {
  view.tell = () => view.refresh();
  for (const news of NEWS) addEventListener(news, view.tell);
}

function leave(view) {
  for (const news of NEWS) removeEventListener(news, view.tell);
}

// The strip on every page: whether there is a line, what is kept here, and what somebody must decide.
export const strip = () => ({
  words: '',
  rest: '',
  link: false,
  out: false,
  look: '',
  init() {
    follow(this);
    this.refresh();
  },
  destroy() {
    leave(this);
  },
  async refresh() {
    const here = await everything().catch(() => []);
    const { person } = document.body.dataset;
    const mine = here.filter((e) => e.person === person);
    const [stopped, others] = [mine.filter((e) => e.refusal), here.filter((e) => e.person !== person)];
    const onTheWay = mine.some((e) => !e.isKept && Date.now() - e.at < 4000);
    this.link = here.length > 0 && !(onTheWay && here.length === 1) && location.pathname !== '/kept';
    this.out = isOut();
    this.look = isDead() ? 'dead' : stopped.length ? 'stopped' : '';
    this.rest = mine.length ? unsaved(mine.length) : say('What you press is kept here until it is back.');
    if (isDead()) this.words = sinceWhen();
    else if (stopped.length) {
      this.words = say('The card did not take what you pressed.');
      this.rest = undecided(mine.length);
    } else if (mine.length && !(onTheWay && here.length === 1)) this.words = say('Sending what was kept.');
    else if (others.length) {
      this.words = say('{0} pressed here while there was no line.', others[0].name);
      this.rest = say('It is kept until they sign in here.');
    } else this.words = '';
    const saved = document.querySelector('[data-saved]');
    if (saved && mine.length && this.words) saved.textContent = say('Kept here {0}', clock(mine.at(-1).at));
  },
});

const numbered = async (n) => (await everything()).find((e) => e.n === Number(n));

// Everything that is kept here, with what the workshop says to it; whoever pressed it decides what becomes of it.
export const keptHere = () => ({
  entries: [],
  none: false,
  signsIn: true,
  me: null,
  state: '',
  init() {
    follow(this);
    session().then((me) => {
      this.me = me;
      this.refresh();
    });
    this.refresh();
  },
  destroy() {
    leave(this);
  },
  async refresh() {
    const here = await everything();
    const stopped = new Set(here.filter((e) => e.refusal).map((e) => e.chain));
    this.state = isDead() ? sinceWhen() : '';
    this.none = here.length === 0;
    this.signsIn = !this.me || here.some((e) => e.person !== this.me.id);
    this.entries = here.map((e) => {
      const own = this.me?.id === e.person;
      const canDrop = own ? stopped.has(e.chain) : this.me?.role === 'lead';
      const goes = own || !this.me ? say('Goes by itself.') : say('Goes when {0} signs in here.', e.name);
      return {
        n: e.n,
        time: clock(e.at),
        place: e.card ? say('Card {0}', e.card) : e.chain,
        where: e.where,
        words: e.words,
        told: e.told.join(', '),
        by: e.name,
        says: e.refusal ? e.refusal.said.join(' ') || say('It was not taken.') : '',
        now: e.refusal?.now ? `${say('It stands at: {0}.', e.refusal.now)} ${e.refusal.meanwhile.join(' ')}` : '',
        waits: e.refusal ? '' : stopped.has(e.chain) ? say('Waits for the one before it.') : goes,
        again: Boolean(e.refusal) && own,
        canDrop,
        leaves: e.refusal && here.some((other) => other.chain === e.chain && other.n !== e.n) 
          ? say('Leave this one out, send the rest') : say('Leave this one out'),
        acts: Boolean(e.refusal) || canDrop,
        link: e.card ? `/lift/${e.card}` : e.chain,
      };
    });
  },
  async again(event) {
    const entry = await numbered(event.currentTarget.dataset.n);
    if (entry) letGo(entry.chain);
  },
  async leaveOut(event) {
    const entry = await numbered(event.currentTarget.dataset.n);
    if (!entry) return;
    await drop(entry.n);
    // What waits behind another that was refused is left out, and that one still stands.
    if (entry.refusal) letGo(entry.chain);
  },
});
