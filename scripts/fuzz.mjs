import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { POSTGRES, requireDebian, requireNode, requirePackages } from './requirements.mjs';
import { root } from './root.mjs';
import { runScript } from './say.mjs';

/** npm run fuzz: every endpoint asked 20,000 times in all, with bodies made from the contract; FUZZ_REQUESTS and FUZZ_SEED for others. */
await runScript(async () => {
  requireNode();
  requirePackages();
  requireDebian(POSTGRES);
  const { status } = spawnSync(
    join(root, 'node_modules', '.bin', 'vitest'),
    ['run', '--project', 'api', 'src/server/fuzz.test.ts'],
    {
      cwd: root,
      stdio: 'inherit',
      env: { ...process.env, FUZZ_REQUESTS: process.env.FUZZ_REQUESTS ?? '20000' },
    },
  );
  process.exit(status ?? 1);
});
