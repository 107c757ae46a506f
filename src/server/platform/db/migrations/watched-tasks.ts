import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * What a change did to tasks, task by task, noted by the database itself while the change is made: its undo puts back
 * exactly that. A task is noted once for each change: as it was before the first of its writes, and how it looked after the last.
 */
export class WatchedTasks1764700000000 implements MigrationInterface {
  readonly name = 'WatchedTasks1764700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table watched_task (
        workspace_id uuid not null references workspace (id) on delete cascade,
        watch_id uuid not null,
        task_id uuid not null,
        schedule_id uuid,
        -- Null for a task that the change made.
        before jsonb,
        -- Null for one that it took away.
        after text,
        primary key (workspace_id, watch_id, task_id)
      );
      alter table change add watch_id uuid;
      create index session_of_account on session ((sess->>'accountId'));
      update change set fields = fields - '#tasks' where fields ? '#tasks';

      -- All that a task says and is, as one short text to compare; columns that come later and are empty make no difference.
      create function task_look (task) returns text language sql stable as
        $$ select md5(jsonb_strip_nulls(to_jsonb($1) - 'version' - 'template_version')::text) $$;

      create function watch_tasks () returns trigger language plpgsql as $$
      declare
        watch uuid := nullif(current_setting('jolly.watch', true), '')::uuid;
      begin
        if watch is null then return null; end if;
        if tg_op = 'INSERT' then
          insert into watched_task (workspace_id, watch_id, task_id, schedule_id, before, after)
            select n.workspace_id, watch, n.id, n.schedule_id, null, task_look(n) from new_rows n
            on conflict (workspace_id, watch_id, task_id) do update set after = excluded.after;
        elsif tg_op = 'UPDATE' then
          insert into watched_task (workspace_id, watch_id, task_id, schedule_id, before, after)
            select n.workspace_id, watch, n.id, n.schedule_id, to_jsonb(o), task_look(n)
            from new_rows n join old_rows o on o.workspace_id = n.workspace_id and o.id = n.id
            where n is distinct from o
            on conflict (workspace_id, watch_id, task_id) do update set after = excluded.after;
        else
          insert into watched_task (workspace_id, watch_id, task_id, schedule_id, before, after)
            select o.workspace_id, watch, o.id, o.schedule_id, to_jsonb(o), null from old_rows o
            on conflict (workspace_id, watch_id, task_id) do update set after = null;
        end if;
        return null;
      end $$;

      create trigger watch_insert after insert on task
        referencing new table as new_rows for each statement execute function watch_tasks();
      create trigger watch_update after update on task
        referencing old table as old_rows new table as new_rows for each statement execute function watch_tasks();
      create trigger watch_delete after delete on task
        referencing old table as old_rows for each statement execute function watch_tasks();
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      drop trigger watch_delete on task;
      drop trigger watch_update on task;
      drop trigger watch_insert on task;
      drop function watch_tasks();
      drop function task_look(task);
      drop index session_of_account;
      alter table change drop watch_id;
      drop table watched_task;
    `);
  }
}
