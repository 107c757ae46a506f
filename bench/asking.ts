import { runMigrations } from 'graphile-worker';
import { askOwed } from '../src/server/client-links/index.ts';
import { largeDatabase, largeScope } from './lists-database.ts';
import { longStep } from './measure.ts';

/**
 * npm run bench asking: 2,000 tasks of clients among a million are asked for by mail, each with a link of its own, beside a bare
 * row of the outbox for each; then once more, where nothing is owed. All of it is taken back.
 */

const TASKS = 2_000;

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
    const chosen = await scope.sql<{ id: string; clientId: string }>(
      `update task set offered_to = '{"of": "client"}', assignee_id = null, appears_on = $2, held_until = null, held_reason = null, held_at = null
       where workspace_id = $1 and id in (select t.id from task t where t.workspace_id = $1 and t.state = 'open' and t.client_id is not null
         and t.due_on >= $2 order by t.due_on, t.id limit ${TASKS}) returning id, client_id as "clientId"`,
      [scope.today],
    );
    await scope.sql(
      `insert into contact (workspace_id, id, client_id, position, name, role, email, telephone)
       select $1, gen_random_uuid(), c, 0, 'A contact', '', 'contact@bench.example', ''
       from (select distinct unnest($2::uuid[]) as c) clients
       where not exists (select 1 from contact k where k.workspace_id = $1 and k.client_id = c and k.email <> '')`,
      [chosen.map(({ clientId }) => clientId)],
    );
    await scope.sql('update client set archived_at = null where workspace_id = $1 and id = any($2::uuid[])', [
      chosen.map(({ clientId }) => clientId),
    ]);
    const { seconds: bare } = await longStep(`${chosen.length} bare rows of the outbox`, async () => {
      for (const { id } of chosen)
        await scope.sql(
          `insert into mail (workspace_id, id, reason, kind, to_name, to_email, subject, text, html, is_private, state, created_at, tries, try_at, answer_key)
           values ($1, gen_random_uuid(), $2, 'task', 'A contact', 'contact@bench.example', 'What', 'Text', 'Html', true, 'sent', now(), 0, now(), gen_random_uuid()::text)`,
          [`bare ${id}`],
        );
    });
    const { value, seconds } = await longStep(
      `${chosen.length} clients asked`,
      () => askOwed(scope, 'http://127.0.0.1'),
      (sent) => `${sent} mails`,
    );
    if (value < chosen.length) throw new Error(`${value} of ${chosen.length} were asked.`);
    await longStep(
      'asked again on the same day',
      () => askOwed(scope, 'http://127.0.0.1'),
      (sent) => `${sent} mails`,
    );
    console.log(
      `  ${(seconds / bare).toFixed(1)} times the bare rows, ${((seconds / value) * 1000).toFixed(1)} ms a mail`,
    );
  });
}
