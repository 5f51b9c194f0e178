// Names every line that is longer than 140 columns.
import { readdirSync, readFileSync } from 'node:fs';
import { extname, join } from 'node:path';

const MOST = 140;
const KINDS = ['.cs', '.css', '.sql', '.js', '.mjs', '.cshtml'];
// What is fetched or made is not ours to break.
const MADE = ['node_modules', 'bin', 'obj', 'lib', 'wwwroot/css', 'artifacts', 'StrykerOutput', '.git', '.demo'];

const walk = (folder) =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (MADE.some((made) => path === made || path.endsWith(`/${made}`))) return [];
    return entry.isDirectory() ? walk(path) : KINDS.includes(extname(path)) ? [path] : [];
  });

const long = walk('.').flatMap((file) =>
  readFileSync(file, 'utf8')
    .split('\n')
    .map((line, n) => ({ at: `${file}:${n + 1}`, columns: [...line].length }))
    .filter((line) => line.columns > MOST),
);
for (const line of long) console.log(`${line.at} has ${line.columns} columns; ${MOST} is the most.`);
process.exitCode = long.length > 0 ? 1 : 0;
