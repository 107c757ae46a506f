import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { CHROMIUM, POSTGRES, requireDebian, requireNode, requirePackages } from './requirements.mjs';
import { root } from './root.mjs';
import { runScript } from './say.mjs';

/** npm test: all set-up, then types, lint, unit, API and end-to-end tests; ends with `N passed, N failed`. */
await runScript(async () => {
  requireNode();
  requirePackages();
  requireDebian({ ...POSTGRES, ...CHROMIUM });
  const cache = join(root, '.cache');
  mkdirSync(cache, { recursive: true });
  const vitestReport = join(cache, 'vitest.json');
  const e2eReport = join(cache, 'e2e.json');
  rmSync(vitestReport, { force: true });
  rmSync(e2eReport, { force: true });

  const stages = [
    { name: 'types', run: () => bin('tsc'), count: oneCheck },
    { name: 'lint', run: () => bin('biome', 'check', '.'), count: oneCheck },
    {
      name: 'unit and API',
      run: () => bin('vitest', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${vitestReport}`),
      count: (ok) => countVitest(vitestReport, ok),
    },
    {
      name: 'end to end',
      run: () => node(join(root, 'scripts', 'e2e.mjs')),
      count: (ok) => countPlaywright(e2eReport, ok),
    },
  ];
  const total = { passed: 0, failed: 0 };
  for (const { name, run, count } of stages) {
    console.log(`\n── ${name} ──`);
    const began = Date.now();
    const ok = run();
    const { passed, failed } = count(ok);
    total.passed += passed;
    total.failed += failed;
    console.log(`${name}: ${passed} passed, ${failed} failed, ${Math.round((Date.now() - began) / 1000)} s`);
  }
  console.log(`\n${total.passed} passed, ${total.failed} failed`);
  process.exit(total.failed === 0 ? 0 : 1);
});

function bin(name, ...args) {
  return (
    spawnSync(join(root, 'node_modules', '.bin', name), args, { cwd: root, stdio: ['ignore', 'inherit', 'inherit'] })
      .status === 0
  );
}

function node(script) {
  return spawnSync(process.execPath, [script], { cwd: root, stdio: ['ignore', 'inherit', 'inherit'] }).status === 0;
}

function oneCheck(ok) {
  return ok ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
}

/** A stage that failed without a report, or beside its tests, counts as one failure. */
function atLeastOneFailure(counts, ok) {
  return ok ? counts : { ...counts, failed: Math.max(1, counts.failed) };
}

function countVitest(report, ok) {
  if (!existsSync(report)) return { passed: 0, failed: 1 };
  const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(report, 'utf8'));
  return atLeastOneFailure({ passed: numPassedTests, failed: numFailedTests }, ok);
}

function countPlaywright(report, ok) {
  if (!existsSync(report)) return { passed: 0, failed: 1 };
  const { expected, unexpected, flaky } = JSON.parse(readFileSync(report, 'utf8')).stats;
  return atLeastOneFailure({ passed: expected, failed: unexpected + flaky }, ok);
}
