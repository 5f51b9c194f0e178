// Confirming over HTTP with eight clients and with one, against a bare endpoint that does one synced insert behind one lock. The two take
// turns on one file system, so that what the machine does meanwhile hits both; ratios count. Then the bytes of the lift page and the time
// to the first answer.
import { spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import http from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliDecompressSync } from 'node:zlib';
import { client, startServer } from '../../tests/browser/server.mjs';

const [OURS, BARE, CLIENTS, ROUNDS, SECONDS] = [5195, 5196, 8, 6, 3];
const root = join(import.meta.dirname, '../..');
const folder = mkdtempSync(join(tmpdir(), 'anakyklos-bench-'));
const agent = new http.Agent({ keepAlive: true, maxSockets: CLIENTS });

function request(port, method, path, headers = {}, body = null) {
  return new Promise((resolve, reject) => {
    const r = http.request(
      {
        host: 'localhost',
        port,
        method,
        path,
        agent,
        headers: body ? { ...headers, 'content-type': 'application/json', 'content-length': Buffer.byteLength(body) } : headers,
      },
      (answer) => {
        const parts = [];
        answer
          .on('data', (d) => parts.push(d))
          .on('end', () => resolve({ status: answer.statusCode, headers: answer.headers, body: Buffer.concat(parts) }));
      },
    );
    r.on('error', reject).end(body);
  });
}

async function press(seconds, send, clients = CLIENTS) {
  const times = [];
  const end = performance.now() + seconds * 1000;
  await Promise.all(
    Array.from({ length: clients }, async (_, worker) => {
      while (performance.now() < end) {
        const from = performance.now();
        const answer = await send(worker, times.length);
        if (answer.status !== 200) throw new Error(`${answer.status}: ${answer.body}`);
        times.push(performance.now() - from);
      }
    }),
  );
  return times;
}

const cells = (name, ours, bare) => `| ${name} | ${ours.toFixed(2)} ms | ${bare.toFixed(2)} ms | ${(ours / bare).toFixed(2)} |`;

const at = (times, part) => [...times].sort((a, b) => a - b)[Math.floor((times.length - 1) * part)];

const begun = performance.now();
const ours = await startServer(['demo', '--data', join(folder, 'ours'), '--port', String(OURS)], OURS);
const firstAnswer = performance.now() - begun;
const bare = spawn('dotnet', [join(root, 'bench/Bare/bin/Release/net10.0/Bare.dll'), join(folder, 'bare.db'), String(BARE)], {
  stdio: 'ignore',
});
try {
  let headers;
  await client(OURS, 'iona', '2468', (h) => {
    headers = h;
  });
  const body = (n) => JSON.stringify({ command: crypto.randomUUID(), say: 'saw', step: 'label', grade: 'sound', text: `press ${n}` });
  // Noting a finding passes the same path as confirming a step: antiforgery, person, rules, event, hash chain, sync; it can be repeated.
  const confirm = (_, n) => request(OURS, 'POST', '/api/v1/cards/1058/commands', headers, body(n));
  const insert = (_, n) => request(BARE, 'POST', '/line', {}, JSON.stringify({ command: crypto.randomUUID(), reason: `press ${n}` }));
  // Long enough for the runtime to have compiled both for good.
  await press(12, confirm);
  await press(12, insert);
  for (const clients of [CLIENTS, 1]) {
    const times = { ours: [], bare: [] };
    for (let round = 0; round < ROUNDS; round++) {
      times.bare.push(...(await press(SECONDS, insert, clients)));
      times.ours.push(...(await press(SECONDS, confirm, clients)));
    }
    const row = (name, part) => cells(name, at(times.ours, part), at(times.bare, part));
    console.log(`| confirm with ${clients} client${clients > 1 ? 's' : ''} | Anakyklos | bare insert | ratio |\n| --- | --- | --- | --- |`);
    console.log(row('median', 0.5));
    console.log(row('99th percentile', 0.99));
    console.log(`| answers in ${ROUNDS * SECONDS} s | ${times.ours.length} | ${times.bare.length} | |\n`);
  }

  const page = await request(OURS, 'GET', '/lift/1058', { ...headers, 'accept-encoding': 'br' });
  const html = brotliDecompressSync(page.body).toString();
  const files = new Set(
    [...html.matchAll(/(?:src|href)="(\/(?:js|lib|css|img)\/[^"]+)"/g)]
      .map((m) => m[1])
      .concat('/js/keys.js', '/js/press.js', '/js/gauges.js', '/js/bounce.js'),
  );
  let assets = 0;
  for (const file of files) assets += (await request(OURS, 'GET', file, { 'accept-encoding': 'br' })).body.length;
  console.log(`| the lift page | bytes on the line |\n| --- | --- |`);
  console.log(`| first visit: page and ${files.size} files | ${page.body.length + assets} |`);
  console.log(`| later visit: page alone | ${page.body.length} (${html.length} unpacked) |\n`);
  console.log(`From the start of the program to its first answer, with a fresh demo: ${(firstAnswer / 1000).toFixed(1)} s`);
} finally {
  await ours.kill();
  bare.kill('SIGKILL');
}
