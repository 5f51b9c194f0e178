// Tries to lose something or to get in where nobody should: power that goes, a full disk, a file that another program holds, a line that
// is cut, a file that was changed by hand, and whatever a client or a reader can be given. Prints what was tried and what failed.
//   node bench/faults/run.mjs [kills|disk|lock|line|tamper|fuzz|readers ...]
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gate } from '../../tests/browser/gate.mjs';
import { client, run, startServer } from '../../tests/browser/server.mjs';

const [PORT, LINE] = [5197, 5198];
const PIN = '2468';
const CARD = '/api/v1/cards/1058';
const root = join(import.meta.dirname, '../..');
const sleep = (ms) => new Promise((r) => setTimeout(r, ms));
const folder = (name) => mkdtempSync(join(tmpdir(), `anakyklos-faults-${name}-`));
const args = (data) => ['demo', '--keep', '--data', data, '--port', `${PORT}`];

// The same numbers each time.
let seed = 20_261_130;
const random = (most) => {
  seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648;
  return Math.floor((seed / 2_147_483_648) * most);
};

/** Presses until told to stop; remembers what was answered as saved, as refused for the file's sake, and what was not answered. */
function presser(call) {
  const seen = { saved: new Set(), unknown: new Set(), troubled: 0, wrong: [], tried: 0 };
  seen.press = async (id = randomUUID()) => {
    seen.tried++;
    seen.unknown.add(id);
    try {
      const said = { command: id, say: 'saw', step: 'label', grade: 'sound', text: `press ${seen.tried}` };
      const answer = await call('POST', `${CARD}/commands`, said);
      const text = await answer.text();
      if (answer.ok) seen.saved.add(id);
      else if (answer.status === 503 && /written|send this again/.test(text)) seen.troubled++;
      else seen.wrong.push(`${answer.status}: ${text.slice(0, 200)}`);
      if (answer.ok) seen.unknown.delete(id);
      return answer.ok;
    } catch {
      return false;
    }
  };
  return seen;
}

/** How often each command stands on the card. */
async function counted(call) {
  const events = await (await call('GET', `${CARD}/events`)).json();
  const counts = new Map();
  for (const e of events) counts.set(e.command, (counts.get(e.command) ?? 0) + 1);
  return counts;
}

async function lost(call, seen) {
  const counts = await counted(call);
  return [
    ...[...seen.saved].filter((id) => counts.get(id) !== 1).map((id) => `${id} was saved and stands there ${counts.get(id) ?? 0} times`),
    ...[...seen.unknown].filter((id) => counts.get(id) > 1).map((id) => `${id} stands there ${counts.get(id)} times`),
    ...seen.wrong,
  ];
}

const verified = async (data) => {
  const { code, out } = await run(['verify', '--data', data]);
  return code === 0 ? [] : [out];
};

async function kills() {
  const data = folder('kills');
  const failed = [];
  let seen = presser(null);
  let call;
  for (let kill = 0; kill < 20; kill++) {
    const server = await startServer(args(data), PORT);
    call ??= await client(PORT, 'iona', PIN);
    const before = seen;
    seen = Object.assign(presser(call), { saved: before.saved, unknown: before.unknown, tried: before.tried });
    failed.push(...(await lost(call, seen)));
    for (const id of [...seen.unknown]) await seen.press(id);
    let on = true;
    const hands = [1, 2, 3].map(async () => {
      while (on && (await seen.press()));
    });
    await sleep(15 + random(150));
    await server.kill();
    on = false;
    await Promise.all(hands);
  }
  return { tried: `20 kills, ${seen.tried} presses`, failed: [...failed, ...(await verified(data))] };
}

async function withServer(data, work) {
  const server = await startServer(args(data), PORT);
  try {
    const call = await client(PORT, 'iona', PIN);
    return await work(call, server);
  } finally {
    await server.kill();
  }
}

// A disk of its own, small, that is filled up; needs the right to mount one.
async function disk() {
  const data = folder('disk');
  const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=96m', 'tmpfs', data]).status === 0;
  if (!mounted) return { tried: 'nothing: no disk may be mounted here', failed: [] };
  try {
    return await withServer(join(data, 'workshop'), async (call) => {
      const seen = presser(call);
      const failed = [];
      for (let round = 0; round < 3; round++) {
        spawnSync('dd', ['if=/dev/zero', `of=${join(data, 'full')}`, 'bs=64k']);
        const before = seen.troubled;
        // What is written first still finds room in files that were larger once.
        for (let batch = 0; batch < 60 && seen.troubled < before + 60; batch++) {
          const late = setTimeout(() => failed.push('a press was not answered in ten seconds'), 10_000);
          await Promise.all(Array.from({ length: 30 }, () => seen.press()));
          clearTimeout(late);
        }
        if (seen.troubled === before) failed.push('the disk was never full');
        spawnSync('rm', [join(data, 'full')]);
        for (let i = 0; i < 10; i++) if (!(await seen.press())) failed.push('a press was refused when there was room again');
      }
      return { tried: `${seen.tried} presses, ${seen.troubled} told that it is full`, failed: [...failed, ...(await lost(call, seen))] };
    });
  } finally {
    await sleep(300);
    spawnSync('umount', ['-l', data]);
  }
}

const HOLD = `
import sqlite3, sys, time
c = sqlite3.connect(sys.argv[1], isolation_level=None, timeout=20)
c.execute('begin immediate')
print('held', flush=True)
time.sleep(float(sys.argv[2]))
c.execute('rollback')`;

// Another program holds the file for a while.
async function lock() {
  if (spawnSync('python3', ['-c', 'import sqlite3']).status !== 0) return { tried: 'nothing: Python is not there', failed: [] };
  const data = folder('lock');
  const outcome = await withServer(data, async (call) => {
    const seen = presser(call);
    const failed = [];
    for (const seconds of [1, 20]) {
      const other = spawn('python3', ['-c', HOLD, join(data, 'anakyklos.db'), `${seconds}`]);
      await new Promise((held) => {
        other.stdout.once('data', held);
      });
      const late = setTimeout(() => failed.push('a press was not answered in 30 seconds'), 30_000);
      await Promise.all(Array.from({ length: 20 }, () => seen.press()));
      clearTimeout(late);
      await new Promise((ended) => {
        if (other.exitCode !== null) ended();
        other.on('exit', ended);
      });
      if (!(await seen.press())) failed.push('a press was refused when the file was free again');
    }
    if (seen.troubled === 0) failed.push('the file was never held');
    return { tried: `${seen.tried} presses, ${seen.troubled} told that it is held`, failed: [...failed, ...(await lost(call, seen))] };
  });
  return { ...outcome, failed: [...outcome.failed, ...(await verified(data))] };
}

// Each press is sent until it is answered, through a line that is cut, silent or answered by something else at any moment.
async function line() {
  const data = folder('line');
  return withServer(data, async (direct) => {
    const between = await gate(LINE, PORT);
    const call = await client(LINE, 'iona', PIN);
    const silent = () => sleep(700).then(() => Promise.reject(new Error('silent')));
    const seen = presser((method, path, body) => Promise.race([call(method, path, body), silent()]));
    let on = true;
    let cuts = 0;
    const cutting = (async () => {
      while (on) {
        await sleep(20 + random(120));
        between.set(['cut', 'silent', 'strange'][random(3)]);
        cuts++;
        await sleep(10 + random(150));
        between.set('up');
      }
    })();
    const hands = [1, 2, 3, 4].map(async () => {
      for (let i = 0; i < 60; i++) {
        const id = randomUUID();
        while (!(await seen.press(id))) await sleep(20);
      }
    });
    await Promise.all(hands);
    on = false;
    await cutting;
    await between.close();
    seen.wrong = seen.wrong.filter((w) => !w.startsWith('502'));
    const failed = await lost(direct, seen);
    if (seen.saved.size !== 240) failed.push(`${seen.saved.size} of 240 presses came`);
    return { tried: `240 presses, sent ${seen.tried} times, ${cuts} cuts`, failed };
  });
}

// What the tests do a little of, in full.
async function room(filter, environment) {
  const tests = spawn(
    'dotnet',
    ['test', 'tests/Web.Tests', '-c', 'Release', '--no-build', '--filter', filter, '--logger', 'console;verbosity=detailed'],
    { cwd: root, env: { ...process.env, ...environment } },
  );
  let text = '';
  for (const out of [tests.stdout, tests.stderr]) out.on('data', (part) => (text += part));
  const code = await new Promise((ended) => {
    tests.on('close', ended);
  });
  const passed = code === 0 && /Passed!|Passed: +[1-9]|Total tests: [1-9]/.test(text);
  const told = text.split('\n').filter((l) => /FAIL|of \d+|Error|error|Assert/.test(l));
  return passed ? [] : [told.slice(0, 20).join('\n') || text.slice(-1500)];
}

const tries = {
  kills,
  disk,
  lock,
  line,
  tamper: async () => ({
    tried: 'a value of every column of every table, rows taken out, copied, swapped, guards laid anew',
    failed: await room('FullyQualifiedName~TamperTests', { ANAKYKLOS_FAULTS: 'full' }),
  }),
  fuzz: async () => ({
    tried: '4,000 requests to all routes and forms',
    failed: await room('FullyQualifiedName~.FuzzTests', { ANAKYKLOS_FUZZ: '4000' }),
  }),
  readers: async () => ({
    tried: '96,000 inputs to all readers',
    failed: await room('FullyQualifiedName~ReaderFuzzTests', { ANAKYKLOS_FUZZ_READERS: '96000' }),
  }),
};

const wanted = process.argv.slice(2).length ? process.argv.slice(2) : Object.keys(tries);
for (const name of wanted) if (!tries[name]) throw new Error(`There is no “${name}”: ${Object.keys(tries).join(', ')}.`);
execFileSync('dotnet', ['build', 'tests/Web.Tests', '-c', 'Release', '-v', 'quiet'], { cwd: root, stdio: 'ignore' });
let all = 0;
const begun = Date.now();
async function oneByOne(names) {
  for (const name of names) {
    const from = Date.now();
    const { tried, failed } = await tries[name]();
    all += failed.length;
    console.log(`${name.padEnd(8)} ${`${Math.round((Date.now() - from) / 1000)} s`.padStart(6)}  failed ${failed.length}  tried: ${tried}`);
    for (const f of failed.slice(0, 10)) console.log(`    ${f}`);
  }
}
// The longest of them needs no server, and goes beside the others.
const beside = wanted.filter((name) => name === 'tamper');
await Promise.all([oneByOne(beside), oneByOne(wanted.filter((name) => !beside.includes(name)))]);
console.log(`${all} failed in ${Math.round((Date.now() - begun) / 1000)} s`);
process.exitCode = all ? 1 : 0;
