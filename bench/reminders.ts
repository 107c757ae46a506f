import { runMigrations } from 'graphile-worker';
import { hear } from '../src/server/messages/index.ts';
import type { Scope } from '../src/server/platform/scope.ts';
import { daySheet } from '../src/server/tasks/day-sheet.ts';
import { largeDatabase, largeScope } from './lists-database.ts';
import { longStep } from './measure.ts';

/**
 * npm run bench reminders: 10,000 schedules of a database of a million tasks remind of their next one in the same minute; told,
 * gathered by person and put into the outbox beside a bare row for each, while day sheets are asked for by another connection;
 * then a minute in which nothing is due. All of it is taken back.
 */

const REMINDERS = 10_000;

const large = await largeDatabase();
try {
  // The queue that a mail calls.
  await runMigrations({ connectionString: large.url });
  await measure();
} finally {
  await large.close();
}

async function measure(): Promise<void> {
  const outside = await largeScope(large.source);
  await outside.rehearse(async (scope) => {
    const [{ count } = { count: 0 }] = await scope.sql<{ count: number }>(
      `with next as (
         select distinct on (schedule_id) schedule_id, work_on from task
         where workspace_id = $1 and schedule_id is not null and set_index = 0 and assignee_id is not null and held_until is null
           and state in ('open', 'underWay') and work_on >= $2::date
         order by schedule_id, work_on limit ${REMINDERS}),
       changed as (
         update schedule set timing = jsonb_set(timing, '{reminders}', jsonb_build_array(jsonb_build_object(
           'offset', jsonb_build_object('amount', -(next.work_on - $2::date), 'unit', 'day'), 'time', '10:40')))
         from next where schedule.workspace_id = $1 and schedule.id = next.schedule_id returning 1)
       select count(*)::int as count from changed`,
      [scope.today],
    );
    await scope.sql(
      `insert into told_to (workspace_id, at) values ($1, $2) on conflict (workspace_id) do update set at = $2`,
      [new Date(scope.clock.now() - 60_000)],
    );
    const { seconds: bare } = await longStep(`${count} bare rows of the outbox`, async () => {
      for (let i = 0; i < count; i++)
        await scope.sql(
          `insert into mail (workspace_id, id, reason, kind, to_name, to_email, subject, text, html, is_private, state, created_at, tries, try_at, answer_key)
           values ($1, gen_random_uuid(), $2, 'message', 'A', 'a@bench.example', 'What', 'Text', 'Html', false, 'sent', now(), 0, now(), gen_random_uuid()::text)`,
          [`bare ${i}`],
        );
    });
    const sheets = sheetsMeanwhile(outside);
    const { value, seconds } = await longStep(
      `${count} reminders told (aim 5 s)`,
      async () => {
        await hear(scope, 'http://127.0.0.1').catch(async (error: unknown) => {
          await sheets.end();
          throw error;
        });
        const [told] = await scope.sql<{ lines: number; tasks: number }>(
          `select count(*)::int as lines, coalesce(sum(more + 1), 0)::int as tasks from message where workspace_id = $1 and kind = 'reminder'`,
        );
        return told;
      },
      (told) => `${told?.lines} lines`,
    );
    console.log(`  day sheets meanwhile: ${await sheets.end()}`);
    if (value?.tasks !== count) throw new Error(`${value?.tasks} of ${count} were told.`);
    await longStep('told again in the same minute', () => hear(scope, 'http://127.0.0.1'));
    console.log(`  ${(seconds / bare).toFixed(2)} times the bare rows`);
  });
}

/** Asks for the day sheet of one person after the other until it is ended; says how long that took. */
function sheetsMeanwhile(scope: Scope): { readonly end: () => Promise<string> } {
  let isOver = false;
  const took: number[] = [];
  const asking = (async () => {
    const people = await scope.sql<{ id: string }>(
      'select id from person where workspace_id = $1 order by id limit 50',
    );
    for (let i = 0; !isOver; i++) {
      const began = performance.now();
      await daySheet(scope, people[i % people.length]?.id ?? '', undefined);
      took.push(performance.now() - began);
    }
  })();
  return {
    async end() {
      isOver = true;
      await asking;
      took.sort((a, b) => a - b);
      const at = (share: number) => `${(took[Math.floor(took.length * share)] ?? 0).toFixed(0)} ms`;
      return `${took.length}, half within ${at(0.5)}, nearly all within ${at(0.95)}`;
    },
  };
}
