import { defineConfig } from '@playwright/test';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { launchOptions } from './e2e/program';

const port = process.env.E2E_PORT ?? '4600';
process.env.E2E_PORT = port;
process.env.E2E_DATA ??= mkdtempSync(path.join(tmpdir(), 'yellow-quill-e2e-'));

export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results/e2e',
  workers: 2,
  timeout: 90_000,
  expect: { timeout: 10_000 },
  forbidOnly: true,
  // On two busy cores a press can come late. What passes only at the second try is named as flaky in the report.
  retries: 1,
  reporter: [['list'], ['json']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    launchOptions,
  },
  webServer: {
    command: 'node e2e/startServer.mjs',
    url: `http://127.0.0.1:${port}/api/health`,
    env: { YELLOW_QUILL_DATA: process.env.E2E_DATA, PORT: port },
    timeout: 120_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 5_000 },
  },
});
