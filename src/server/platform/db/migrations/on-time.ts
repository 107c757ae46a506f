import type { MigrationInterface, QueryRunner } from 'typeorm';

const ON_TIME = (zone: string, task: string) =>
  `date_trunc('minute', ${task}.done_at at time zone coalesce(${task}.zone, ${zone})) <= ${task}.due_on + coalesce(${task}.due_time, '23:59')::time`;

/**
 * Whether a task was finished by when it was due stands with it: to tell it of a million tasks by their clocks takes seconds,
 * to read it a tenth of that. The database keeps it, so that no way of writing a task forgets it, and tells it anew where the
 * workspace moves to another zone.
 */
export class OnTime1767500000000 implements MigrationInterface {
  readonly name = 'OnTime1767500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table task add column on_time boolean;
      create function task_on_time() returns trigger language plpgsql as $$ begin
        new.on_time := case when new.done_at is not null then
          ${ON_TIME('(select zone from workspace where id = new.workspace_id)', 'new')} end;
        return new;
      end $$;
      create trigger task_on_time before insert or update of done_at, due_on, due_time, zone, on_time on task
        for each row when (new.done_at is not null or new.on_time is not null) execute function task_on_time();
      create function workspace_on_time() returns trigger language plpgsql as $$ begin
        update task t set on_time = ${ON_TIME('new.zone', 't')}
          where t.workspace_id = new.id and t.done_at is not null and t.zone is null
            and t.on_time is distinct from (${ON_TIME('new.zone', 't')});
        return null;
      end $$;
      create trigger workspace_on_time after update of zone on workspace
        for each row when (old.zone is distinct from new.zone) execute function workspace_on_time();
      update task t set on_time = ${ON_TIME('w.zone', 't')} from workspace w where w.id = t.workspace_id and t.done_at is not null;
      drop index task_by_due;
      create index task_by_due on task (workspace_id, due_on) include (state, estimate_minutes, assignee_id, on_time, held_until);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      drop trigger workspace_on_time on workspace;
      drop function workspace_on_time();
      drop trigger task_on_time on task;
      drop function task_on_time();
      drop index task_by_due;
      create index task_by_due on task (workspace_id, due_on) include (state, estimate_minutes, assignee_id);
      alter table task drop column on_time;
    `);
  }
}
