/* Stands between the pages and the line. While there is a line it only passes on; without one it shows what was prepared, so that nothing
   leads to a page of the browser. It never keeps a form, and nothing that is sent. */
importScripts('/lib/idb-umd.js');

const STORE = 'anakyklos-1';
const ASKS_AGAIN = 3000;
const LIFT_IN = 5000;
const PAGE_IN = 12_000;
const FILES = [
  '/kept', '/css/site.css', '/img/ring.svg', '/lib/alpine-csp.min.js', '/lib/idb.js',
  '/lib/b612-latin-400-normal.woff2', '/lib/b612-latin-700-normal.woff2',
  '/lib/b612-mono-latin-400-normal.woff2', '/lib/b612-mono-latin-700-normal.woff2',
  ...['screen', 'keys', 'bounce', 'press', 'kept', 'line', 'outbox', 'way', 'cupboard', 'clock', 'gauges', 'dispenser', 'wrench', 'calls',
    'dash', 'placing', 'words', 'coming'].map((name) => `/js/${name}.js`),
];

let deadAt = -ASKS_AGAIN;

// Nobody's: without whoever is signed in.
const nobodys = (path, headers = {}) => new Request(path, { cache: 'reload', credentials: 'omit', headers });

const isFile = (path) => /^\/(css|js|lib|img)\//.test(path);

self.addEventListener('install', (e) => {
  const anew = FILES.map((f) => nobodys(f));
  e.waitUntil(caches.open(STORE).then((store) => store.addAll(anew)).then(() => self.skipWaiting()));
});

self.addEventListener('activate', (e) => {
  e.waitUntil(Promise.all([
    caches.keys().then((names) => Promise.all(names.filter((n) => n !== STORE).map((n) => caches.delete(n)))),
    self.clients.claim(),
  ]));
});

async function within(ms, request) {
  const stop = new AbortController();
  const late = setTimeout(() => stop.abort('silent'), ms);
  try {
    return await fetch(request, { signal: stop.signal });
  } finally {
    clearTimeout(late);
  }
}

async function file(request) {
  const store = await caches.open(STORE);
  const kept = () => store.match(new URL(request.url).pathname);
  if (performance.now() - deadAt < ASKS_AGAIN) {
    const there = await kept();
    if (there) return there;
  }
  try {
    const response = await within(ASKS_AGAIN, request);
    if (response.ok) {
      store.put(new URL(request.url).pathname, response.clone());
      return response;
    }
    return (await kept()) ?? response;
  } catch (e) {
    deadAt = performance.now();
    const there = await kept();
    if (there) return there;
    throw e;
  }
}

async function prepared(card, why) {
  const db = await idb.openDB('anakyklos', 1).catch(() => null);
  if (!db?.objectStoreNames.contains('way')) return null;
  try {
    const way = await db.get('way', card);
    const page = way && (await db.get('page', [card, way.moments[way.place]?.id ?? 0, '']));
    if (!page) return null;
    const html = page.html.replace(/<html /, `<html data-prepared="${why}" `);
    return new Response(html, { headers: { 'content-type': 'text/html; charset=utf-8', 'x-anakyklos': 'kept' } });
  } finally {
    db.close();
  }
}

// The page of what is kept speaks as whoever was here last is spoken to; where it cannot be had, the one that is there stays.
async function keptIn(language) {
  const store = await caches.open(STORE);
  if (!language || (await store.match('/kept'))?.headers.get('content-language') === language) return;
  const page = await fetch(nobodys('/kept', { 'accept-language': language })).catch(() => null);
  if (page?.ok && page.headers.get('content-language') === language) await store.put('/kept', page);
}

async function keptPage(why) {
  const shell = await (await caches.open(STORE)).match('/kept');
  if (!shell) return Response.error();
  const html = (await shell.text()).replace(/<html /, `<html data-prepared="${why}" `);
  return new Response(html, { headers: { 'content-type': 'text/html; charset=utf-8', 'x-anakyklos': 'kept' } });
}

async function page(request, lasts) {
  const { pathname, searchParams } = new URL(request.url);
  const card = Number(pathname.match(/^\/lift\/(\d+)\/?$/)?.[1]) || null;
  const lift = card && !searchParams.has('step');
  let why;
  try {
    const response = await within(lift ? LIFT_IN : PAGE_IN, request);
    // A page that was redirected cannot be read here; whatever is the workshop's own is shown.
    if (response.type === 'opaqueredirect') return response;
    if (response.headers.get('x-anakyklos')) {
      lasts(keptIn(response.headers.get('content-language')));
      return response;
    }
    why = 'strange';
  } catch (e) {
    why = e === 'silent' || e?.name === 'AbortError' ? 'silent' : 'none';
  }
  deadAt = performance.now();
  return (card && (await prepared(card, why))) ?? keptPage(why);
}

self.addEventListener('fetch', (e) => {
  const { request } = e;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== self.location.origin) return;
  if (request.mode === 'navigate') e.respondWith(page(request, (work) => e.waitUntil(work)));
  else if (isFile(url.pathname)) e.respondWith(file(request));
});
