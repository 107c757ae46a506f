import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Addresses of programs that are told of what happens to tasks. What is to be told is noted in the transaction that did it, once
 * a statement, and not at all where nobody is told of anything.
 */
export class Webhooks1769500000000 implements MigrationInterface {
  readonly name = 'Webhooks1769500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table webhook (
        workspace_id uuid not null,
        id uuid not null,
        version integer not null,
        name text not null,
        url text not null,
        secret text not null,
        events text[] not null,
        is_on boolean not null,
        made_at timestamptz not null,
        made_by uuid,
        primary key (workspace_id, id),
        constraint webhook_workspace_id_fkey foreign key (workspace_id) references workspace (id) on delete cascade,
        constraint webhook_workspace_id_made_by_fkey foreign key (workspace_id, made_by) references person (workspace_id, id)
      );
      create table webhook_delivery (
        workspace_id uuid not null,
        id uuid not null,
        webhook_id uuid not null,
        event text not null,
        task_id uuid not null,
        task jsonb not null,
        at timestamptz not null,
        state text not null,
        tries integer not null,
        try_at timestamptz not null,
        said text,
        primary key (workspace_id, id),
        constraint webhook_delivery_workspace_id_fkey foreign key (workspace_id) references workspace (id) on delete cascade,
        constraint webhook_delivery_workspace_id_webhook_id_fkey foreign key (workspace_id, webhook_id) references webhook (workspace_id, id) on delete cascade,
        constraint webhook_delivery_state_check check (state in ('waiting', 'sent', 'failed'))
      );
      create index webhook_delivery_of on webhook_delivery (workspace_id, webhook_id, at, id);
      create index webhook_delivery_waiting on webhook_delivery (try_at) where state = 'waiting';
      create index webhook_delivery_not_sent on webhook_delivery (workspace_id, webhook_id, at) where state <> 'sent';
      create index webhook_delivery_late on webhook_delivery (workspace_id, webhook_id, task_id) where event = 'task.late';

      create function webhook_facts (t task) returns jsonb language sql stable as $$
        select jsonb_build_object('id', t.id, 'version', t.version, 'title', t.title, 'state', t.state, 'workOn', t.work_on, 'dueOn', t.due_on,
          'dueTime', t.due_time, 'assigneeId', t.assignee_id, 'clientId', t.client_id, 'assetId', t.asset_id,
          'templateId', t.template_id, 'scheduleId', t.schedule_id, 'doneAt', t.done_at)
      $$;
      create function webhook_made () returns trigger language plpgsql as $$
      begin
        if exists (select from webhook where is_on) then
          insert into webhook_delivery (workspace_id, id, webhook_id, event, task_id, task, at, state, tries, try_at)
          select t.workspace_id, gen_random_uuid(), w.id, 'task.made', t.id, webhook_facts(t), clock_timestamp(), 'waiting', 0, clock_timestamp()
          from made t join webhook w on w.workspace_id = t.workspace_id and w.is_on and 'task.made' = any(w.events);
        end if;
        return null;
      end $$;
      create function webhook_changed () returns trigger language plpgsql as $$
      begin
        if exists (select from webhook where is_on) then
          insert into webhook_delivery (workspace_id, id, webhook_id, event, task_id, task, at, state, tries, try_at)
          select t.workspace_id, gen_random_uuid(), w.id, happened.event, t.id, webhook_facts(t), clock_timestamp(), 'waiting', 0, clock_timestamp()
          from after t join before b on b.workspace_id = t.workspace_id and b.id = t.id
          cross join lateral (select case when t.state = 'underWay' and b.state = 'open' then 'task.started'
            when t.state in ('toCheck', 'done') and b.state not in ('toCheck', 'done') then 'task.finished' end as event) happened
          join webhook w on w.workspace_id = t.workspace_id and w.is_on and happened.event = any(w.events);
        end if;
        return null;
      end $$;
      create trigger webhook_made after insert on task referencing new table as made for each statement execute function webhook_made();
      create trigger webhook_changed after update on task referencing old table as before new table as after
        for each statement execute function webhook_changed();
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      drop trigger webhook_changed on task;
      drop trigger webhook_made on task;
      drop function webhook_changed();
      drop function webhook_made();
      drop function webhook_facts(task);
      drop table webhook_delivery;
      drop table webhook;
    `);
  }
}
