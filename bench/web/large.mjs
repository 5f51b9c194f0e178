// The pages of a large workshop beside the same pages of the demo depot: one client over HTTP, the two taking turns. The folder of a large
// workshop that is there already can be given; else one is made, which takes some minutes.
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { client, run, startServer } from '../../tests/browser/server.mjs';

const [PORT, WARM, ROUNDS] = [5198, 5, 41];
const scratch = () => mkdtempSync(join(tmpdir(), 'anakyklos-bench-'));
let folder = process.argv[2];
if (!folder) {
  folder = scratch();
  await run(['large', '--data', folder]);
}
const servers = [
  { name: 'large', port: PORT, process: await startServer(['demo', '--keep', '--data', folder, '--port', String(PORT)], PORT) },
  { name: 'demo', port: PORT + 1, process: await startServer(['demo', '--data', scratch(), '--port', String(PORT + 1)], PORT + 1) },
];
const pages = [
  ['yard', '/', '/'], ['week', '/week', '/week'], ['visit', '/week/LD-00042', '/week/HD-09'],
  ['a later page of it', '/?at=120', '/'], ['intake', '/intake?plate=LD-00042', '/intake?plate=HD-09'],
  ['vehicle', '/vehicle/LD-00042', '/vehicle/HD-09'], ['stores', '/stores', '/stores'], ['a part', '/stores?q=gasket', '/stores?q=filter'],
  ['desk', '/desk', '/desk'], ['find a plate', '/find?q=ld0004', '/find?q=hd0'], ['find a part', '/find?q=gasket+12', '/find?q=oil+filter'],
  ['find broad words', '/find?q=oil+filter+iona', '/find?q=oil+filter+iona'], ['find a batch', '/find?q=F2204', '/find?q=F2204'],
  ['the fleet as a file', '/files/vehicles.csv', '/files/vehicles.csv'], ["the fleet's calendar", 'KEY/fleet.ics', 'KEY/fleet.ics'],
];
try {
  for (const server of servers) {
    server.call = await client(server.port, 'iona', '2468');
    [server.key] = (await (await server.call('GET', '/vehicle/HD-07')).text()).match(/\/calendar\/[0-9a-f]+/);
  }
  console.log('| page | large, first | large, median | kB | demo, median | ratio |\n| --- | --- | --- | --- | --- | --- |');
  for (const [name, ...paths] of pages) {
    const of = servers.map(() => ({ times: [], bytes: 0, first: 0 }));
    for (let round = 0; round < WARM + ROUNDS; round++)
      for (const [i, server] of servers.entries()) {
        const from = performance.now();
        const answer = await server.call('GET', paths[i].replace('KEY', server.key));
        of[i].bytes = (await answer.arrayBuffer()).byteLength;
        const took = performance.now() - from;
        if (answer.status !== 200) throw new Error(`${paths[i]}: ${answer.status}`);
        if (round === 0) of[i].first = took;
        if (round >= WARM) of[i].times.push(took);
      }
    const [large, small] = of.map(({ times }) => times.toSorted((a, b) => a - b)[Math.floor(ROUNDS / 2)]);
    const cells = [name, `${of[0].first.toFixed(0)} ms`,
      `${large.toFixed(1)} ms`, (of[0].bytes / 1000).toFixed(0), `${small.toFixed(1)} ms`,
      (large / small).toFixed(2)];
    console.log(`| ${cells.join(' | ')} |`);
  }
} finally {
  for (const server of servers) await server.process.kill();
}
