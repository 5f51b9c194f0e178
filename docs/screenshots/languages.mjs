// One picture of four views in both languages: the desk, a blind check, the first hour of a workshop, the lift.
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, startsWorkshop } from '../../tests/browser/lift.mjs';
import { startServer } from '../../tests/browser/server.mjs';

const PORT = 5297;
const TONGUES = [['en', 'English'], ['de-DE', 'Deutsch']];

async function comesIn(page, who, pin) {
  await page.goto('/signin');
  await page.getByText(who, { exact: true }).click();
  await page.locator('input[name=pin]').fill(pin);
  await page.locator('input[name=pin]').press('Enter');
  await page.waitForURL((to) => !to.pathname.startsWith('/signin'));
}

/**
 * Takes it.
 * @param browser The browser.
 * @param {string} base Where the demo is served.
 * @param {string} draft The address of a draft that Iona R. writes, at the thing that is shown.
 * @param {string} lift The address of a step.
 * @param {string} path The file.
 */
export async function takeLanguages(browser, base, draft, lift, path) {
  const server = await startServer(['serve', '--data', mkdtempSync(join(tmpdir(), 'anakyklos-hour-')), '--port', `${PORT}`], PORT);
  const visit = async (baseURL, locale) =>
    (await browser.newContext({ baseURL, locale, viewport: { width: 1280, height: 800 } })).newPage();
  const rows = [[], [], [], []];
  try {
    for (const [locale] of TONGUES) {
      const see = async (page, row, to) => {
        await page.goto(to);
        await page.locator('html[data-awake]').waitFor();
        rows[row].push(`data:image/png;base64,${(await page.screenshot()).toString('base64')}`);
      };
      const iona = await visit(base, locale);
      await comesIn(iona, 'Iona R.', '2468');
      await see(iona, 0, draft);
      await see(iona, 3, lift);
      const una = await visit(base, locale);
      await comesIn(una, 'Una B.', '2468');
      await see(una, 1, `${draft.split('?')[0]}/check`);
      const lead = await visit(`http://localhost:${PORT}`, locale);
      if (locale === 'en') {
        await startsWorkshop(lead, server);
        await lead.getByLabel('Names, a line each').fill('Lift\nPit');
        await after(lead, () => lead.getByRole('button', { name: 'These are the bays' }).click());
      } else await comesIn(lead, 'Mhairi', '135790');
      await see(lead, 2, '/first-hour');
    }
    const page = await browser.newPage({ viewport: { width: 1920, height: 2420 } });
    await page.setContent(`<body style="margin:0;display:grid;grid-template-columns:1fr 1fr;gap:4px;background:#15202b">${rows.flat()
      .map((src) => `<img src="${src}" style="width:100%;display:block">`).join('')}</body>`);
    await page.waitForTimeout(500);
    await page.screenshot({ path, fullPage: true });
  } finally {
    await server.kill();
  }
}
