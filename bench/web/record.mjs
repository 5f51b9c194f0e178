// The record of a signed card over HTTP, as a page, as paper and as a file: one client, the three taking turns; ratios to the page count.
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { client, startServer } from '../../tests/browser/server.mjs';

const [PORT, WARM, ROUNDS] = [5197, 30, 100];
const ours = await startServer(['demo', '--data', mkdtempSync(join(tmpdir(), 'anakyklos-bench-')), '--port', String(PORT)], PORT);
try {
  const call = await client(PORT, 'iona', '2468');
  const paths = [['page', ''], ['PDF', '/record.pdf'], ['file', '/record.json']];
  const forms = paths.map(([name, path]) => ({ name, path, times: [], bytes: 0 }));
  for (let round = 0; round < WARM + ROUNDS; round++)
    for (const form of forms) {
      const from = performance.now();
      const answer = await call('GET', `/record/1001${form.path}`);
      const body = await answer.arrayBuffer();
      if (answer.status !== 200) throw new Error(`${form.name}: ${answer.status}`);
      if (round >= WARM) form.times.push(performance.now() - from);
      form.bytes = body.byteLength;
    }
  const middle = (times) => times.toSorted((a, b) => a - b)[Math.floor(times.length / 2)];
  console.log('| the record of a card as | median | ratio to the page | bytes |\n| --- | --- | --- | --- |');
  for (const { name, times, bytes } of forms)
    console.log(`| ${name} | ${middle(times).toFixed(1)} ms | ${(middle(times) / middle(forms[0].times)).toFixed(2)} | ${bytes} |`);
} finally {
  await ours.kill();
}
