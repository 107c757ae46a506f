import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { bringItIn, oneBringIn, readFile, startBringIn } from '../src/server/bring-in/index.ts';
import { undoChange } from '../src/server/history/undo.ts';
import { impactOfSettings, settingsOf } from '../src/server/settings/service.ts';
import { largeDatabase, largeScope } from './lists-database.ts';
import { longStep } from './measure.ts';

/**
 * npm run bench import: a list of 20,000 clients with a contact and an asset each, read and checked against the 3,000 that are
 * there, written, and taken out again, beside the bare statements that write as many rows, in the same run; and the impact of
 * a holiday over as many schedules.
 */

const ROWS = 20_000;
const large = await largeDatabase();
try {
  await measure();
} finally {
  await large.close();
}

async function measure(): Promise<void> {
  const scope = await largeScope(large.source);
  const folder = mkdtempSync(join(tmpdir(), 'jolly-bench-'));
  const path = join(folder, 'clients.csv');
  const lines = Array.from({ length: ROWS }, (_, i) => {
    const there = i % 20 === 0 ? `Client ${String((i % 9000) + 1).padStart(4, '0')}` : `Brought ${i}`;
    return `${there},"${i} Mill Lane\nSaltreath",${there} senior,c${i}@bench.example,01632 ${100_000 + i},Craft ${i},BR-${i},berth ${i}`;
  });
  writeFileSync(path, `client,address,contact,mail,telephone,asset,tag,place\n${lines.join('\n')}\n`);
  const step = async <T>(what: string, work: () => Promise<T>): Promise<T> => {
    globalThis.gc?.();
    const heap = process.memoryUsage().heapUsed;
    let most = heap;
    const watch = setInterval(() => {
      most = Math.max(most, process.memoryUsage().heapUsed);
    }, 20);
    try {
      const { value } = await longStep(what, work, () => `heap +${((most - heap) / 1024 / 1024).toFixed(0)} MB`);
      return value;
    } finally {
      clearInterval(watch);
    }
  };
  try {
    const file = await step('read', () => readFile(path));
    const id = await step('kept and checked', () => startBringIn(scope, 'clients', 'clients.csv', file));
    const { version, counts } = await step('its page', () => oneBringIn(scope, id));
    console.log(`  ${JSON.stringify(counts)}`);
    await step('brought in', () => bringItIn(scope, id, { version, counts }));
    const { changeId } = await oneBringIn(scope, id);
    console.log(`  ${(await step('taken out again', () => undoChange(scope, changeId ?? ''))).said}`);
    await step('bare rows, as many', () => bare());
    const settings = await settingsOf(scope);
    const holidays = [...settings.holidays, { date: '2026-12-09', name: 'Regatta' }];
    const { figures } = await step('impact of a holiday, 10,000 schedules', () =>
      impactOfSettings(scope, { ...settings, holidays }),
    );
    console.log(`  ${JSON.stringify(figures)}`);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }

  async function bare(): Promise<void> {
    await scope.rehearse(async (tx) => {
      await tx.sql(
        `with made as (
           insert into client (workspace_id, id, name, address, notes, fields, version)
           select $1, gen_random_uuid(), 'Bare ' || n, n || ' Mill Lane', '', '{}', 1 from generate_series(1, $2::int) n returning id, name),
         reached as (
           insert into contact (workspace_id, id, client_id, position, name, role, email, telephone)
           select $1, gen_random_uuid(), id, 0, name, '', name || '@bench.example', '01632' from made)
         insert into asset (workspace_id, id, client_id, name, place, tag, is_site, fields, version)
         select $1, gen_random_uuid(), id, name, '', name, false, '{}', 1 from made`,
        [ROWS],
      );
    });
  }
}
