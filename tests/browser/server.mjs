import { spawn } from 'node:child_process';
import { copyFileSync, existsSync, mkdirSync, renameSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const program = join(import.meta.dirname, '../../src/Anakyklos.Web/bin/Release/net10.0/Anakyklos.Web.dll');

// A demo keeps its past years beside it and takes them up again where they are its own: one demo's serve all others of the day.
const past = join(tmpdir(), 'anakyklos-demo-past');

function folderOf(args) {
  return args[0] === 'demo' && args.includes('--data') ? args[args.indexOf('--data') + 1] : null;
}

// The label goes first on the way in and last on the way out: it never stands beside a file that is older than it is.
function takePast(folder) {
  if (!['past.txt', 'past.keys'].every((f) => existsSync(join(past, f))) || existsSync(join(folder, 'past.txt'))) return;
  mkdirSync(folder, { recursive: true });
  for (const file of ['past.txt', 'past.keys', 'past.db']) copyFileSync(join(past, file), join(folder, file));
}

function givePast(folder) {
  if (!existsSync(join(folder, 'past.txt'))) return;
  mkdirSync(past, { recursive: true });
  for (const file of ['past.db', 'past.keys', 'past.txt']) {
    copyFileSync(join(folder, file), join(past, `${file}.${process.pid}`));
    renameSync(join(past, `${file}.${process.pid}`), join(past, file));
  }
}

/** Starts the program and waits until it answers. kill() ends it as the power going would. */
export async function startServer(args, port) {
  // Whatever listens there would be taken for the server that is started.
  const other = await fetch(`http://localhost:${port}/healthz`).then(() => true, () => false);
  if (other) throw new Error(`Something listens at port ${port} already: end it first.`);
  const folder = folderOf(args);
  if (folder) takePast(folder);
  const process_ = spawn('dotnet', [program, ...args], { stdio: ['ignore', 'pipe', 'pipe'] });
  let complaint = '';
  let said = '';
  process_.stdout.on('data', (d) => {
    said += d;
  });
  process_.stderr.on('data', (d) => {
    complaint += d;
  });
  const ended = new Promise((resolve) => {
    process_.on('exit', resolve);
  });
  for (let tries = 0; ; tries++) {
    if (process_.exitCode !== null) throw new Error(`The server did not start: ${complaint}`);
    if (tries > 3600) {
      process_.kill('SIGKILL');
      throw new Error(`The server did not answer at port ${port} in three minutes: ${complaint}`);
    }
    const up = await fetch(`http://localhost:${port}/healthz`).then(
      (r) => r.ok,
      () => false,
    );
    if (up) {
      if (folder) givePast(folder);
      break;
    }
    await new Promise((r) => {
      setTimeout(r, 50);
    });
  }
  return {
    /** The word that it prints at its first start, for whoever makes the first lead. */
    word: async () => {
      for (;;) {
        const found = said.match(/type this word in the browser: (\w+)/);
        if (found) return found[1];
        await new Promise((r) => {
          setTimeout(r, 50);
        });
      }
    },
    kill: async () => {
      process_.kill('SIGKILL');
      await ended;
    },
  };
}

/** Runs the program to its end and gives what it printed. */
export function run(args) {
  return new Promise((resolve) => {
    const process_ = spawn('dotnet', [program, ...args]);
    let out = '';
    process_.stdout.on('data', (d) => {
      out += d;
    });
    process_.stderr.on('data', (d) => {
      out += d;
    });
    process_.on('exit', (code) => resolve({ code, out }));
  });
}

/** Signs in without a browser; gives a function that calls the JSON endpoints. */
export async function client(port, person, pin, tellHeaders = () => {}) {
  const base = `http://localhost:${port}`;
  const jar = new Map();
  const keep = (r) => {
    for (const c of r.headers.getSetCookie()) jar.set(...c.split(';')[0].split(/=(.*)/s).slice(0, 2));
    return r;
  };
  const cookie = () => [...jar].map(([k, v]) => `${k}=${v}`).join('; ');
  const html = await keep(await fetch(`${base}/signin`)).text();
  const token = html.match(/name="__RequestVerificationToken"[^>]*value="([^"]+)"/)[1];
  keep(
    await fetch(`${base}/signin`, {
      method: 'POST',
      redirect: 'manual',
      headers: { cookie: cookie() },
      body: new URLSearchParams({ person, pin, __RequestVerificationToken: token }),
    }),
  );
  const session = await keep(await fetch(`${base}/api/v1/session`, { headers: { cookie: cookie() } })).json();
  const headers = { cookie: cookie(), 'X-Antiforgery': session.antiforgery };
  tellHeaders(headers);
  return (method, path, body) =>
    fetch(`${base}${path}`, {
      method,
      headers: { ...headers, ...(body ? { 'content-type': 'application/json' } : {}) },
      body: body && JSON.stringify(body),
    });
}
