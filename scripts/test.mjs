import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join, relative } from 'node:path';
import { CHROMIUM, PAPER_READER, POSTGRES, requireDebian, requireNode, requirePackages } from './requirements.mjs';
import { root } from './root.mjs';
import { runScript } from './say.mjs';
import { UNHANDLED_REPORT } from './unhandled.mjs';

/** npm test: all set-up, then types, lint, unit, API and end-to-end tests; ends with `N passed, N failed`. */
await runScript(async () => {
  requireNode();
  requirePackages();
  requireDebian({ ...POSTGRES, ...CHROMIUM, ...PAPER_READER });
  const cache = join(root, '.cache');
  mkdirSync(cache, { recursive: true });
  const vitestReport = join(cache, 'vitest.json');
  const e2eReport = join(cache, 'e2e.json');
  rmSync(vitestReport, { force: true });
  rmSync(e2eReport, { force: true });
  rmSync(UNHANDLED_REPORT, { force: true });

  // Types and lint take one processor, while the demo is made that the API tests copy.
  const stages = [
    [
      { name: 'types', run: (heard) => bin(heard, 'tsc'), count: oneCheck },
      { name: 'lint', run: (heard) => bin(heard, 'biome', 'check', '.'), count: oneCheck },
      {
        name: 'unit and API',
        run: () =>
          bin(
            null,
            ...['vitest', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${vitestReport}`],
            `--reporter=${join(root, 'scripts', 'unhandled.mjs')}`,
          ),
        count: (ok) => countVitest(vitestReport, ok),
      },
    ],
    [
      {
        name: 'end to end',
        run: () => ranWell(process.execPath, [join(root, 'scripts', 'e2e.mjs')], null),
        count: (ok) => countPlaywright(e2eReport, ok),
      },
    ],
  ];
  const total = { passed: 0, failed: 0 };
  const fell = [];
  for (const beside of stages) await Promise.all(beside.map(passThrough));

  async function passThrough({ name, run, count }) {
    console.log(`\n── ${name} ──`);
    const began = Date.now();
    const said = [];
    const ok = await run((chunk) => said.push(chunk));
    const { passed, failed, names = [] } = count(ok);
    // What it said stands together, whatever else was being said.
    process.stdout.write(Buffer.concat(said));
    total.passed += passed;
    total.failed += failed;
    fell.push(
      ...(failed > 0 && names.length === 0 ? [name] : names).map((one) => (one === name ? one : `${name}: ${one}`)),
    );
    console.log(`${name}: ${passed} passed, ${failed} failed, ${Math.round((Date.now() - began) / 1000)} s`);
  }
  // Once more at the end: whoever reads only the last lines sees which.
  if (fell.length > 0) console.log(`\nfailed:\n${fell.join('\n')}`);
  console.log(`\n${total.passed} passed, ${total.failed} failed`);
  process.exit(total.failed === 0 ? 0 : 1);
});

function bin(heard, name, ...args) {
  return ranWell(join(root, 'node_modules', '.bin', name), args, heard);
}

/** @param heard is given what it says; null where it speaks for itself */
function ranWell(command, args, heard) {
  const said = heard === null ? 'inherit' : 'pipe';
  const one = spawn(command, args, { cwd: root, stdio: ['ignore', said, said] });
  one.stdout?.on('data', heard);
  one.stderr?.on('data', heard);
  return new Promise((resolve, reject) => {
    one.once('error', reject);
    one.once('close', (code) => resolve(code === 0));
  });
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
  const { numPassedTests, numFailedTests, testResults } = JSON.parse(readFileSync(report, 'utf8'));
  const names = testResults.flatMap(({ name, status, message, assertionResults }) => {
    const fell = assertionResults.filter((one) => one.status === 'failed');
    const why = (text = '') => text.split('\n')[0];
    // A file that did not get as far as its tests is named with why.
    if (fell.length === 0) return status === 'failed' ? [`${relative(root, name)}: ${why(message)}`] : [];
    return fell.map((one) => `${relative(root, name)}: ${one.fullName}: ${why(one.failureMessages[0])}`);
  });
  const unhandled = existsSync(UNHANDLED_REPORT) ? JSON.parse(readFileSync(UNHANDLED_REPORT, 'utf8')) : [];
  names.push(...unhandled.map(({ message, stack }) => `beside the tests: ${message}\n${stack ?? ''}`));
  return { ...atLeastOneFailure({ passed: numPassedTests, failed: numFailedTests }, ok), names };
}

function countPlaywright(report, ok) {
  if (!existsSync(report)) return { passed: 0, failed: 1 };
  const { stats, suites } = JSON.parse(readFileSync(report, 'utf8'));
  const { expected, unexpected, flaky } = stats;
  const names = suites.flatMap(function fallen({ specs = [], suites: within = [] }) {
    return [...specs.filter((one) => !one.ok).map(({ file, title }) => `${file}: ${title}`), ...within.flatMap(fallen)];
  });
  return { ...atLeastOneFailure({ passed: expected, failed: unexpected + flaky }, ok), names };
}
