import { isEcho, shown } from './bounce.js';
import { fresh } from './gauges.js';

// A press is sent with the id of its form. While the line is dead it is kept here and sent again; the id makes a repeat harmless.
const KEPT = 'anakyklos-kept-press';
const RETRY = 2000;

// Whoever types a PIN is not the one at this screen: it is never kept, and the form stays as it is to be sent again.
const isSecret = (form) => form.querySelector('input[type="password"]') !== null;

const tell = (text) => dispatchEvent(new CustomEvent('notice', { detail: { text } }));

async function post(kept) {
  const response = await fetch(kept.url, { method: 'POST', body: new URLSearchParams(kept.fields), redirect: 'follow' });
  return { url: response.url, ok: response.ok, status: response.status, html: await response.text() };
}

function show(answer) {
  fresh();
  shown();
  const page = new DOMParser().parseFromString(answer.html, 'text/html');
  document.title = page.title;
  history.pushState(null, '', answer.ok ? answer.url : location.href);
  document.body.replaceWith(page.body);
  window.scrollTo(0, 0);
  (document.querySelector('[autofocus], [aria-invalid="true"]') ?? document.querySelector('#main'))?.focus?.();
}

async function giveOnce(sent) {
  try {
    const answer = await post(sent);
    tell('');
    show(answer);
  } catch {
    document.body.classList.remove('busy');
    tell('No line. Nothing was sent and the PIN was not kept; press again when the line is back.');
  }
}

async function give(kept) {
  for (;;) {
    try {
      const answer = await post(kept);
      localStorage.removeItem(KEPT);
      tell('');
      show(answer);
      return;
    } catch {
      localStorage.setItem(KEPT, JSON.stringify(kept));
      tell('No line. What you pressed is kept and will be sent.');
      await new Promise((r) => {
        setTimeout(r, RETRY);
        addEventListener('online', r, { once: true });
      });
    }
  }
}

export function send(e) {
  const form = e.currentTarget;
  // A picture goes as it is: the browser sends it, and has the form again when there is no line.
  if ([...form.elements].some((field) => field.files?.length)) return;
  e.preventDefault();
  if (document.body.classList.contains('busy') || isEcho(form)) return;
  document.body.classList.add('busy');
  const fields = [...new FormData(form, e.submitter ?? undefined)].filter(([, value]) => typeof value === 'string');
  (isSecret(form) ? giveOnce : give)({
    url: new URL(e.submitter?.getAttribute('formaction') ?? form.getAttribute('action') ?? '', location.href).href,
    fields,
  });
}

export function resend() {
  const kept = localStorage.getItem(KEPT);
  if (!kept) return;
  document.body.classList.add('busy');
  tell('Sending what was kept.');
  give(JSON.parse(kept));
}

addEventListener('popstate', () => location.reload());
