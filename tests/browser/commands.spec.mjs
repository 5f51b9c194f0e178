import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { client, run, startServer } from './server.mjs';
import { PIN } from './lift.mjs';

const SHEET = join(import.meta.dirname, '../../sheets/tarn-courier-20d.json');
const { revision } = JSON.parse(readFileSync(SHEET, 'utf8'));
const folder = () => mkdtempSync(join(tmpdir(), 'anakyklos-commands-'));

test('sheet check passes a good sheet and names every fault of a bad one with line and path', async () => {
  const good = await run(['sheet', 'check', SHEET]);
  expect(good).toMatchObject({ code: 0, out: expect.stringContaining(`Tarn Courier 2.0 D, revision ${revision}`) });
  const bad = join(folder(), 'bad.json');
  writeFileSync(
    bad,
    readFileSync(SHEET, 'utf8')
      .replace('"38 N·m", "low": "35 N·m", "high": "41 N·m"', '"380 N·m", "low": "350 N·m", "high": "410 N·m"')
      .replace(`"revision": ${revision}`, '"revision": 0'),
  );
  const answer = await run(['sheet', 'check', bad]);
  expect(answer.code).toBe(1);
  expect(answer.out).toMatch(/line 4, `revision`: 0 is not a whole number from 1 to 9999\./);
  expect(answer.out).toMatch(/line \d+, `fasteners\.engine-drain-plug\.torque`: 380 N·m is ten times what an M14 plug takes\./);
  expect(answer.out).toContain('2 errors.');
});

test('a wrong call is told with how to call, a missing file or folder in words', async () => {
  for (const args of [[], ['fly'], ['serve', '--port', 'seven'], ['demo', '--sideways'], ['serve', '--data']]) {
    const answer = await run(args);
    expect(answer.code, args.join(' ')).toBe(2);
    expect(answer.out).toContain('anakyklos serve');
    expect(answer.out).not.toContain('   at ');
  }
  for (const args of [
    ['sheet', 'check', '/nowhere/sheet.json'],
    ['verify', '--data', join(folder(), 'none')],
    ['backup', 'x.db', '--data', folder()],
  ]) {
    const answer = await run(args);
    expect(answer.code, args.join(' ')).toBe(1);
    expect(answer.out).not.toContain('   at ');
  }
});

test('a backup taken while it is served can be verified, and served again', async () => {
  const [data, restored] = [folder(), folder()];
  const server = await startServer(['demo', '--data', data, '--port', '5194'], 5194);
  try {
    const call = await client(5194, 'iona', PIN);
    const press = () =>
      call('POST', '/api/v1/cards/1058/commands', { command: crypto.randomUUID(), say: 'aside', step: 'label', reason: 'later' });
    expect((await press()).status).toBe(200);
    const copy = join(restored, 'anakyklos.db');
    expect(await run(['backup', copy, '--data', data])).toMatchObject({ code: 0 });
    expect((await run(['backup', copy, '--data', data])).out).toContain('exists already');
    expect((await press()).status).toBe(200);
    expect(await run(['verify', '--data', data])).toMatchObject({ code: 0, out: expect.stringContaining('all is as it was written') });
  } finally {
    await server.kill();
  }
  const again = await startServer(['demo', '--keep', '--data', restored, '--port', '5194'], 5194);
  try {
    const call = await client(5194, 'iona', PIN);
    const events = await (await call('GET', '/api/v1/cards/1058/events')).json();
    expect(events.filter((e) => e.event.event === 'StepPutAside')).toHaveLength(1);
  } finally {
    await again.kill();
  }
  rmSync(data, { recursive: true });
});

test('a sheet is added once; the same revision with other content is refused', async () => {
  const data = folder();
  const server = await startServer(['serve', '--data', data, '--port', '5194'], 5194);
  await server.kill();
  // For practice it lies there from the beginning; taken into use it is once.
  const added = await run(['sheet', 'add', SHEET, '--data', data]);
  expect(added.out).toContain(`revision ${revision}, is in.`);
  expect(added.out).toContain('Nobody here has');
  expect((await run(['sheet', 'add', SHEET, '--data', data])).out).toContain('was in already');
  const other = join(data, 'other.json');
  writeFileSync(other, readFileSync(SHEET, 'utf8').replace(`"revision": ${revision}`, `"revision": ${revision + 1}`));
  // What a new revision changes is looked at in the library.
  expect(await run(['sheet', 'add', other, '--data', data])).toMatchObject({ code: 1, out: expect.stringContaining('is in use') });
  writeFileSync(other, readFileSync(SHEET, 'utf8').replace('7 min', '8 min'));
  expect(await run(['sheet', 'add', other, '--data', data])).toMatchObject({ code: 1, out: expect.stringContaining('higher revision') });
});

test('a port that is taken is said so', async () => {
  const data = folder();
  const server = await startServer(['serve', '--data', data, '--port', '5194'], 5194);
  try {
    expect(await run(['serve', '--data', folder(), '--port', '5194'])).toMatchObject({
      code: 1,
      out: expect.stringContaining('Port 5194 is taken'),
    });
  } finally {
    await server.kill();
  }
});

test('the demo clears away no workshop but its own, and not while one is served or the port is taken', async () => {
  const data = folder();
  const server = await startServer(['serve', '--data', data, '--port', '5194'], 5194);
  const before = readFileSync(join(data, 'anakyklos.db')).length;
  try {
    expect(await run(['demo', '--data', data, '--port', '5194'])).toMatchObject({
      code: 1,
      out: expect.stringContaining('Port 5194 is taken'),
    });
    expect(await run(['demo', '--data', data, '--port', '5195'])).toMatchObject({
      code: 1,
      out: expect.stringContaining('is served already'),
    });
  } finally {
    await server.kill();
  }
  expect(await run(['demo', '--data', data, '--port', '5194'])).toMatchObject({ code: 1, out: expect.stringContaining('not the demo') });
  expect(readFileSync(join(data, 'anakyklos.db')).length).toBe(before);
});
