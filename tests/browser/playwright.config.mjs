import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { defineConfig } from '@playwright/test';

// The kills run beside the other tests: they bring a port and a server of their own, and leave what they found elsewhere.
const project = process.env.ANAKYKLOS_TEST_PROJECT ?? 'pages';
const port = Number(process.env.ANAKYKLOS_TEST_PORT ?? 5191);
const program = join(import.meta.dirname, '../../src/Anakyklos.Web/bin/Release/net10.0/Anakyklos.Web.dll');
const folder = (process.env.ANAKYKLOS_TEST_FOLDER ??= mkdtempSync(join(tmpdir(), 'anakyklos-browser-')));

export default defineConfig({
  testDir: '.',
  workers: 1,
  fullyParallel: false,
  // The longest test takes a minute and a half on two idle cores; a slow machine is given the time.
  timeout: 360_000,
  expect: { timeout: 15_000 },
  outputDir: join(tmpdir(), `anakyklos-browser-results-${project}-${port}`),
  use: {
    baseURL: `http://localhost:${port}`,
    viewport: { width: 1280, height: 800 },
    actionTimeout: 90_000,
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
    },
  },
  // The kills have a server and a folder of their own, so they may run beside other tests; everything else shares one.
  projects: [
    { name: 'kill', testMatch: 'kill.spec.mjs' },
    { name: 'pages', testIgnore: ['kill.spec.mjs', 'full*.spec.mjs'] },
    { name: 'full', testMatch: 'full*.spec.mjs' },
  ],
  // The demo's clock goes 240 times as fast, so that a quarter of an hour of dripping takes four seconds.
  // On two cores with every room at work it may take minutes to answer.
  webServer: project === 'kill' ? undefined : {
    command: `dotnet ${program} demo --data ${folder} --port ${port} --speed 240`,
    url: `http://localhost:${port}/healthz`,
    reuseExistingServer: false,
    timeout: 300_000,
  },
});
