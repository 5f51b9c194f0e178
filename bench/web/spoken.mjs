// Pages in German beside the same pages in English: one client over HTTP for the same person, the two taking turns. Each page is drawn in
// English and then said in the language of whoever looks at it (src/Anakyklos.Web/Languages).
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { client, startServer } from '../../tests/browser/server.mjs';

const [PORT, WARM, ROUNDS] = [5197, 5, 41];
const folder = mkdtempSync(join(tmpdir(), 'anakyklos-bench-'));
const server = await startServer(['demo', '--data', folder, '--port', String(PORT)], PORT);
const pages = [['yard', '/'], ['lift', '/lift/1058'], ['intake', '/intake?plate=HD-09'], ['vehicle', '/vehicle/HD-07'],
  ['record', '/record/1003'], ['sheet', '/library/tarn-courier-20d'], ['week', '/week'], ['stores', '/stores'],
  ['record on paper', '/record/1003/record.pdf']];
try {
  let headers = {};
  const call = await client(PORT, 'iona', '2468', (sent) => (headers = sent));
  console.log('| page | English | German, first | German | ratio |\n| --- | --- | --- | --- | --- |');
  for (const [name, path] of pages) {
    const of = { en: [], de: [] };
    let first = 0;
    for (let round = 0; round < WARM + ROUNDS; round++)
      for (const [language, times] of Object.entries(of)) {
        const from = performance.now();
        headers['Accept-Language'] = language;
        const answer = await call('GET', path);
        const text = await answer.text();
        const took = performance.now() - from;
        if (answer.status !== 200) throw new Error(`${path}: ${answer.status}`);
        if (text.startsWith('<!DOCTYPE') && !text.includes(`<html lang="${language}"`)) throw new Error(`${path} is not in ${language}`);
        if (language === 'de' && round === 0) first = took;
        if (round >= WARM) times.push(took);
      }
    const [english, german] = Object.values(of).map((times) => times.toSorted((a, b) => a - b)[Math.floor(ROUNDS / 2)]);
    const cells = [name, `${english.toFixed(1)} ms`, `${first.toFixed(0)} ms`, `${german.toFixed(1)} ms`, (german / english).toFixed(2)];
    console.log(`| ${cells.join(' | ')} |`);
  }
} finally {
  await server.kill();
}
