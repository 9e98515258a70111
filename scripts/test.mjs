/** `npm test`: everything that must hold. Ends with the line "N passed, N failed". */
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import {
  ensureBuiltBeside,
  ensureChromium,
  ensureInstalled,
  ensurePoppler,
  freePort,
  makeDemoDataBeside,
  root,
  run,
  runTool,
  toolBeside,
} from './steps.mjs';

const results = path.join(root, 'test-results');
const data = mkdtempSync(path.join(tmpdir(), 'yellow-quill-e2e-'));
const tally = { passed: 0, failed: 0 };
const failures = [];

function step(name, ok) {
  tally[ok ? 'passed' : 'failed']++;
  if (!ok) failures.push(name);
  return ok;
}

/** Adds what a runner counted; a runner that broke off before it could count is a failure. */
function count(name, file, ok, read) {
  if (!existsSync(file)) return step(name, false);
  const { passed, failed } = read(JSON.parse(readFileSync(file, 'utf8')));
  tally.passed += passed;
  tally.failed += failed;
  if (failed > 0) failures.push(name);
  else if (!ok || passed === 0) step(name, false);
}

function finish(why) {
  rmSync(data, { recursive: true, force: true });
  if (why) console.error(`\n${why}`);
  if (failures.length > 0) console.error(`\nFailed: ${failures.join(', ')}`);
  process.stdout.write(`\n${tally.passed} passed, ${tally.failed} failed\n`);
  process.exit(tally.failed === 0 ? 0 : 1);
}

rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
let chromium;
try {
  ensureInstalled();
  chromium = ensureChromium();
  ensurePoppler();
} catch (error) {
  step('set-up', false);
  finish(error.message);
}

run(process.execPath, ['node_modules/next/dist/bin/next', 'typegen']);
/** What takes one core goes on beside what takes the other. */
async function lintAndData() {
  step('lint', await toolBeside('eslint', ['.', '--max-warnings', '0']));
  return step('demo data', await makeDemoDataBeside(data));
}
async function typesAndBuild() {
  step('types', await toolBeside('tsc', ['--noEmit']));
  process.env.TYPES_CHECKED = '1';
  return step('build', await ensureBuiltBeside());
}
const isReady = await Promise.all([lintAndData(), typesAndBuild()]);

const unit = path.join(results, 'jest.json');
count('unit tests', unit, runTool('jest', ['--json', `--outputFile=${unit}`]), (r) => ({
  passed: r.numPassedTests,
  failed: r.numFailedTests + r.numRuntimeErrorTestSuites,
}));

if (isReady.every(Boolean)) {
  const e2e = path.join(results, 'playwright.json');
  const port = String(await freePort());
  const ok = runTool('playwright', ['test'], {
    CHROMIUM: chromium,
    E2E_PORT: port,
    E2E_DATA: data,
    PLAYWRIGHT_JSON_OUTPUT_NAME: e2e,
    // A fresh context for each test compiles the whole program anew; one that is emptied keeps that.
    PW_TEST_REUSE_CONTEXT: '1',
  });
  count('browser tests', e2e, ok, (r) => ({ passed: r.stats.expected + r.stats.flaky, failed: r.stats.unexpected }));
  // The soak in short: everything goes wrong for a while, and nothing is lost.
  step('soak', runTool('tsx', ['soak/run.ts', '--minutes', '0.35', '--seed', '1']));
}
finish();
