import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Tables of which each row is, or names, one schedule. */
const OF_ONE = { schedule: 'id', task: 'schedule_id', deleted_task: 'schedule_id' } as const;
/** Tables that plans of any schedule are told from. */
const OF_ANY = ['template', 'client', 'asset', 'person', 'holiday'] as const;
const OPERATIONS = { insert: 'new', update: 'new', delete: 'old' } as const;

/**
 * The database tells which schedules were touched, whoever touches them: what is kept of plans is looked over only then.
 * One message for each statement and workspace, with the ids where they are few (a message has 8,000 bytes at most).
 */
export class ToldOfTouched1765300000000 implements MigrationInterface {
  readonly name = 'ToldOfTouched1765300000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create function tell_of_one() returns trigger language plpgsql as $$
      declare
        told record;
      begin
        for told in execute format(
          'select workspace_id, case when count(distinct %1$I) <= 100 then array_agg(distinct %1$I) end as ids
           from touched where %1$I is not null group by workspace_id', tg_argv[0])
        loop
          perform pg_notify('jolly_touched', json_build_object('workspace', told.workspace_id, 'schedules', told.ids)::text);
        end loop;
        return null;
      end $$;
      -- Who has a task and what is written on it changes no date.
      create function tell_of_task() returns trigger language plpgsql as $$
      declare
        told record;
      begin
        for told in
          select n.workspace_id, case when count(distinct n.schedule_id) <= 100 then array_agg(distinct n.schedule_id) end as ids
          from touched n join before o on o.workspace_id = n.workspace_id and o.id = n.id
          where n.schedule_id is not null
            and (n.state, n.nominal_date, n.work_on, n.due_on, n.started_at, n.done_at)
              is distinct from (o.state, o.nominal_date, o.work_on, o.due_on, o.started_at, o.done_at)
          group by n.workspace_id
        loop
          perform pg_notify('jolly_touched', json_build_object('workspace', told.workspace_id, 'schedules', told.ids)::text);
        end loop;
        return null;
      end $$;
      create function tell_of_any() returns trigger language plpgsql as $$
      declare
        told record;
      begin
        for told in select distinct workspace_id from touched loop
          perform pg_notify('jolly_touched', json_build_object('workspace', told.workspace_id, 'schedules', null)::text);
        end loop;
        return null;
      end $$;
      create function tell_of_workspace() returns trigger language plpgsql as $$
      begin
        perform pg_notify('jolly_touched', json_build_object('workspace', new.id, 'schedules', null)::text);
        return null;
      end $$;
      create trigger tell_of_update after update of working_weekdays, zone on workspace
        for each row execute function tell_of_workspace();
    `);
    for (const [table, column] of Object.entries(OF_ONE)) await this.add(runner, table, `tell_of_one('${column}')`);
    await runner.query(`
      drop trigger tell_of_update on task;
      create trigger tell_of_update after update on task
        referencing old table as before new table as touched for each statement execute function tell_of_task();
    `);
    for (const table of OF_ANY) await this.add(runner, table, 'tell_of_any()');
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of [...Object.keys(OF_ONE), ...OF_ANY])
      for (const operation of Object.keys(OPERATIONS))
        await runner.query(`drop trigger tell_of_${operation} on ${table}`);
    await runner.query(`
      drop trigger tell_of_update on workspace;
      drop function tell_of_workspace();
      drop function tell_of_any();
      drop function tell_of_task();
      drop function tell_of_one();
    `);
  }

  private async add(runner: QueryRunner, table: string, call: string): Promise<void> {
    for (const [operation, rows] of Object.entries(OPERATIONS))
      await runner.query(
        `create trigger tell_of_${operation} after ${operation} on ${table}
         referencing ${rows} table as touched for each statement execute function ${call}`,
      );
  }
}
