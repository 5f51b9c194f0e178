// One client that confirms a step, takes it back, notes a finding, and one bare synced insert, in turn: the same card all the time, so that
// what is confirmed is a real step with all its rules and the card does not grow as under load. Medians; the ratio counts.
import { spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import http from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { client, startServer } from '../../tests/browser/server.mjs';

const [OURS, BARE, ROUNDS, WARM] = [5195, 5196, 700, 300];
const root = join(import.meta.dirname, '../..');
const folder = mkdtempSync(join(tmpdir(), 'anakyklos-confirm-'));
const agent = new http.Agent({ keepAlive: true });

function post(port, path, headers, said) {
  const body = JSON.stringify(said);
  const sent = { ...headers, 'content-type': 'application/json', 'content-length': Buffer.byteLength(body) };
  return new Promise((resolve, reject) => {
    const r = http.request({ host: 'localhost', port, method: 'POST', path, agent, headers: sent }, (answer) => {
      const parts = [];
      answer.on('data', (d) => parts.push(d)).on('end', () => resolve({ status: answer.statusCode, body: Buffer.concat(parts) }));
    });
    r.on('error', reject).end(body);
  });
}

const ours = await startServer(['demo', '--data', join(folder, 'ours'), '--port', String(OURS)], OURS);
const bare = spawn('dotnet', [join(root, 'bench/Bare/bin/Release/net10.0/Bare.dll'), join(folder, 'bare.db'), String(BARE)], {
  stdio: 'ignore',
});
try {
  let headers;
  await client(OURS, 'iona', '2468', (h) => {
    headers = h;
  });
  const times = { 'a step confirmed': [], 'taken back': [], 'a finding noted': [], 'bare insert': [] };
  const timed = async (what, send) => {
    const from = performance.now();
    const answer = await send();
    times[what].push(performance.now() - from);
    if (answer.status !== 200) throw new Error(`${what}: ${answer.status} ${answer.body}`);
    return answer;
  };
  const tell = (said) => post(OURS, '/api/v1/cards/1058/commands', headers, { command: crypto.randomUUID(), ...said });
  for (let i = 0; i < ROUNDS; i++) {
    const done = await timed('a step confirmed', () => tell({ say: 'done', step: 'filter-cap-off' }));
    await timed('taken back', () => tell({ say: 'back', of: JSON.parse(done.body).seq }));
    await timed('a finding noted', () => tell({ say: 'saw', step: 'label', grade: 'sound', text: `press ${i}` }));
    await timed('bare insert', () => post(BARE, '/line', {}, { command: crypto.randomUUID(), reason: `press ${i}` }));
    // Until the runtime has compiled both for good.
    if (i === WARM) for (const all of Object.values(times)) all.length = 0;
  }
  const median = (all) => [...all].sort((a, b) => a - b)[all.length >> 1];
  const least = median(times['bare insert']);
  console.log('| one client, in turn | median | to the bare insert |\n| --- | --- | --- |');
  for (const [what, all] of Object.entries(times))
    console.log(`| ${what} | ${median(all).toFixed(2)} ms | ${(median(all) / least).toFixed(2)} |`);
} finally {
  await ours.kill();
  bare.kill('SIGKILL');
}
