// Names every line that is longer than 140 columns; ends with how many there are.
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';

const MOST = 140;
const tracked = execFileSync('git', ['ls-files', '*.cs', '*.css', '*.sql', '*.js', '*.mjs'], { encoding: 'utf8' });
const files = tracked.split('\n').filter(existsSync);
const long = files.flatMap((file) => readFileSync(file, 'utf8').split('\n')
  .map((line, n) => ({ at: `${file}:${n + 1}`, length: [...line].length })).filter((line) => line.length > MOST));
for (const line of long) console.log(`${line.at} has ${line.length} columns; ${MOST} is the most.`);
process.exitCode = long.length > 0 ? 1 : 0;
