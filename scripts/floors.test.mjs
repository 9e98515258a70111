import { spawnSync } from 'node:child_process';

/** Lints pieces of code as if they stood in files; in a process of its own, for the configuration is a module. */
function lint(cases) {
  const program = `
    import { ESLint } from 'eslint';
    import path from 'node:path';
    const eslint = new ESLint();
    const found = [];
    for (const [file, code] of ${JSON.stringify(cases)}) {
      const [result] = await eslint.lintText(code + '\\n', { filePath: path.resolve(file) });
      found.push(result.messages.filter((m) => m.severity === 2).map((m) => m.ruleId));
    }
    process.stdout.write(JSON.stringify(found));`;
  const { stdout, stderr } = spawnSync(process.execPath, ['--input-type=module', '-e', program], { encoding: 'utf8' });
  if (!stdout) throw new Error(stderr);
  return JSON.parse(stdout);
}

const floor = '@typescript-eslint/no-restricted-imports';
const core = 'no-restricted-imports';

const barred = [
  ['src/core/geometry/x.ts', "import '@/bench/state/view';", floor],
  ['src/core/geometry/x.ts', "import '../../server/journal';", floor],
  ['src/core/geometry/x.ts', "import 'react';", floor],
  ['src/core/geometry/x.ts', 'export const now = new Date();', 'no-restricted-syntax'],
  ['src/core/geometry/x.ts', 'export const chance = Math.random();', 'no-restricted-syntax'],
  ['src/workers/x.ts', "import '@/bench/state/view';", floor],
  ['src/server/x.ts', "import '@/ui/format';", floor],
  ['src/bench/x.ts', "import '@/server/journal';", floor],
  ['src/ui/x.ts', "import '@/bench/state/view';", floor],
  ['src/core/drawing/x.ts', "import '../ink/body';", core],
  ['src/core/change/steps/x.ts', "import '../../edits/lines';", core],
  ['src/core/check/x.ts', "import '../edits/lines';", core],
  ['src/core/geometry/fit/x.ts', "import '../../raster/blur';", core],
  ['src/core/scene/x.ts', "import '../index';", core],
];

const allowed = [
  ['src/bench/x.ts', "import '@/core';"],
  ['src/app/x.ts', "import '@/server/journal';"],
  ['src/server/x.ts', "import '@/core/change/change';"],
  ['src/core/edits/x.ts', "import '../check/note';"],
  ['src/core/change/steps/x.ts', "import '../../drawing/run';"],
];

test('imports run downwards only, and the core knows neither clock nor chance', () => {
  const found = lint(barred);
  barred.forEach(([file, code, rule], i) =>
    expect({ file, code, found: found[i] }).toEqual({ file, code, found: expect.arrayContaining([rule]) }),
  );
  expect(lint(allowed)).toEqual(allowed.map(() => []));
}, 120_000);
