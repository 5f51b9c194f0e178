import { randomInt, randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { client, run, startServer } from './server.mjs';
import { PIN } from './lift.mjs';

const PORT = 5193;
const KILLS = 50;
const CARD = '/api/v1/cards/1058';
const STEPS = [
  { say: 'done', step: 'filter-cap-off' },
  { say: 'answered', step: 'compare-filter', point: 'filter', says: 'same height, same ends, same hole' },
  { say: 'fitted', step: 'fit-ring', says: 'out of the cap, in my hand' },
  { say: 'done', step: 'fit-filter' },
];

test('what was answered "saved" is there after kill -9, once', async () => {
  test.setTimeout(2_400_000);
  const folder = mkdtempSync(join(tmpdir(), 'anakyklos-kill-'));
  const args = ['demo', '--keep', '--data', folder, '--port', String(PORT)];
  const saved = new Set();
  const unknown = new Map();
  const steps = [...STEPS];
  let pressed = 0;
  let call;

  const send = async (call, id, body) => {
    try {
      const answer = await call('POST', `${CARD}/commands`, { command: id, ...body });
      if (answer.ok && (await answer.json()).seq > 0) { saved.add(id); unknown.delete(id); return true; }
      throw new Error(`refused: ${await answer.text()}`);
    } catch (e) {
      if (String(e.message).startsWith('refused')) throw e;
      return false;
    }
  };

  for (let kill = 0; kill < KILLS; kill++) {
    const server = await startServer(args, PORT);
    call ??= await client(PORT, 'iona', PIN);
    const events = await (await call('GET', `${CARD}/events`)).json();
    const counted = new Map();
    for (const e of events) counted.set(e.command, (counted.get(e.command) ?? 0) + 1);
    expect([...saved].filter((id) => counted.get(id) !== 1), `saved, but not there once, after kill ${kill}`).toEqual([]);
    expect([...unknown.keys()].filter((id) => counted.get(id) > 1)).toEqual([]);
    // A client that got no answer sends the same command again: it must count once, whether it had been written or not.
    for (const [id, body] of [...unknown]) expect(await send(call, id, body)).toBe(true);

    let dead = false;
    const worker = async () => {
      while (!dead) {
        const id = randomUUID();
        const step = steps.length && pressed % 12 === 0 ? steps.shift() : null;
        const press = step ?? { say: 'saw', step: 'label', grade: 'sound', text: `press ${pressed}` };
        pressed++;
        unknown.set(id, press);
        if (!(await send(call, id, press))) return;
      }
    };
    const workers = [worker(), worker(), worker()];
    await new Promise((r) => { setTimeout(r, randomInt(15, 160)); });
    await server.kill();
    dead = true;
    await Promise.all(workers);
  }

  const verified = await run(['verify', '--data', folder]);
  expect(verified.out).toContain('all is as it was written');
  expect(verified.code).toBe(0);
  expect(saved.size).toBeGreaterThan(KILLS * 3);
});
