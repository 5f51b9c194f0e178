// Whoever presses this soon after a page came has not read it: a glove taps twice, a pedal bounces, somebody else moved the card on.
const OWN = 300;
const MOVED_ON = 1000;
let until = 0;
let timer = 0;

function deaf(ms) {
  until = performance.now() + ms;
  document.documentElement.classList.add('deaf');
  clearTimeout(timer);
  timer = setTimeout(() => document.documentElement.classList.remove('deaf'), ms);
}

const FIELDS = 'input:not([type=hidden]), textarea, select';
const chosenAtFirst = (select) => Math.max(0, [...select.options].findIndex((o) => o.defaultSelected));

function differs(field) {
  if (field.options) return field.selectedIndex !== chosenAtFirst(field);
  return ['radio', 'checkbox'].includes(field.type) ? field.checked !== field.defaultChecked : field.value !== field.defaultValue;
}

/** Whether one of these fields differs from what the page came with. */
export const isTyped = (fields) => [...fields].some((f) => f.matches(FIELDS) && differs(f));

/** A page was put in place of another. */
export const shown = () => deaf(OWN);

/** Whether this press is the echo of the one before; what was typed since the page came makes it a press of its own. */
export const isEcho = (form) => performance.now() < until && !isTyped(form.elements);

deaf(new URLSearchParams(location.search).has('since') ? MOVED_ON : OWN);
