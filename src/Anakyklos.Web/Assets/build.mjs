// Makes everything that the pages load: styles through Tailwind, fonts and Alpine copied from their packages.
import { execFileSync } from 'node:child_process';
import { copyFileSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import woff2 from 'wawoff2';

const web = join(dirname(fileURLToPath(import.meta.url)), '..');
const modules = join(web, '..', '..', 'node_modules');
const lib = join(web, 'wwwroot', 'lib');
mkdirSync(lib, { recursive: true });
copyFileSync(join(modules, '@alpinejs/csp/dist/cdn.min.js'), join(lib, 'alpine-csp.min.js'));
copyFileSync(join(modules, 'idb/build/index.js'), join(lib, 'idb.js'));
copyFileSync(join(modules, 'idb/build/umd.js'), join(lib, 'idb-umd.js'));
for (const [family, face] of [
  ['b612', 'latin-400-normal'],
  ['b612', 'latin-700-normal'],
  ['b612-mono', 'latin-400-normal'],
  ['b612-mono', 'latin-700-normal'],
])
  copyFileSync(join(modules, '@fontsource', family, 'files', `${family}-${face}.woff2`), join(lib, `${family}-${face}.woff2`));
// Paper wants its fonts unpacked, and one more for whatever letters the first lacks.
const fonts = join(web, '..', 'Anakyklos.Paper', 'Fonts');
mkdirSync(fonts, { recursive: true });
for (const [family, weight] of [['b612', 400], ['b612', 700], ['b612-mono', 400], ['b612-mono', 700]]) {
  const packed = readFileSync(join(modules, '@fontsource', family, 'files', `${family}-latin-${weight}-normal.woff2`));
  writeFileSync(join(fonts, `${family}-${weight}.ttf`), await woff2.decompress(packed));
}
for (const [face, weight] of [['DejaVuSans', 400], ['DejaVuSans-Bold', 700]])
  copyFileSync(join(modules, 'dejavu-fonts-ttf/ttf', `${face}.ttf`), join(fonts, `dejavu-${weight}.ttf`));
// Later rules win over earlier ones, so the order is written down.
const pages = [
  'base', 'common', 'yard', 'lift', 'map', 'kit-at-lift', 'gauges', 'panels',
  'handover', 'record', 'vehicle', 'desk', 'drums', 'narrow', 'plan', 'stores', 'due', 'kit',
  'intake', 'library', 'bay', 'laboratory', 'stands', 'own-list', 'dash', 'scan-tool', 'week', 'remembered', 'people', 'line', 'practice',
  'equipment', 'in-stores', 'first-hour', 'made-up', 'help', 'write',
];
// Each coach brings the styles of its own drawings.
const styles = readdirSync(join(web, 'Coaches'), { recursive: true })
  .filter((f) => f.endsWith('.css'))
  .sort();
writeFileSync(
  join(web, 'Styles/every.css'),
  [...pages.map((p) => `./${p}.css`), ...styles.map((s) => `../Coaches/${s}`)].map((s) => `@import "${s}";\n`).join(''),
);
execFileSync(
  process.execPath,
  [
    join(modules, '@tailwindcss/cli/dist/index.mjs'),
    '-i',
    join(web, 'Styles/every.css'),
    '-o',
    join(web, 'wwwroot/css/site.css'),
    '--minify',
  ],
  { stdio: ['ignore', 'ignore', 'inherit'] },
);
