import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Work that clients do by a link: the links, what they were asked for, and who of theirs did something. */
export class ClientLinks1768300000000 implements MigrationInterface {
  readonly name = 'ClientLinks1768300000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table client_link (
        workspace_id uuid not null constraint client_link_workspace_id_fkey references workspace (id) on delete cascade,
        id uuid not null,
        client_id uuid not null,
        contact_id uuid not null,
        name text not null,
        email text not null,
        task_id uuid,
        digest text not null constraint client_link_digest unique,
        needs_code boolean not null,
        made_at timestamptz not null,
        made_by uuid,
        ends_on date not null,
        opened_at timestamptz,
        withdrawn_at timestamptz,
        code_digest text,
        code_at timestamptz,
        code_tries integer not null,
        codes_sent integer not null,
        passes jsonb not null,
        primary key (workspace_id, id),
        constraint client_link_workspace_id_client_id_fkey foreign key (workspace_id, client_id) references client (workspace_id, id),
        constraint client_link_workspace_id_made_by_fkey foreign key (workspace_id, made_by) references person (workspace_id, id)
      );
      create index client_link_by_client on client_link (workspace_id, client_id, id);

      create table client_ask (
        workspace_id uuid not null constraint client_ask_workspace_id_fkey references workspace (id) on delete cascade,
        id uuid not null,
        link_id uuid not null,
        task_id uuid not null,
        kind text not null,
        asked_on date not null,
        due_on date not null,
        at timestamptz not null,
        primary key (workspace_id, id),
        constraint client_ask_kind_check check (kind in ('asked', 'again', 'before', 'after', 'sentBack')),
        constraint client_ask_workspace_id_link_id_fkey foreign key (workspace_id, link_id) references client_link (workspace_id, id)
      );
      create index client_ask_by_task on client_ask (workspace_id, task_id, id);
      create index client_ask_by_link on client_ask (workspace_id, link_id);
      create unique index client_ask_once on client_ask (workspace_id, task_id) where kind = 'asked';

      alter table workspace add column asked_on date, add column asking jsonb not null default
        '{"sendFrom":"08:00","remindBefore":3,"remindAfter":2,"worksAfter":7,"opens":"one","needsCode":false,"telephone":"","answered":""}';
      alter table workspace alter column asking drop default;
      alter table change add column by_contact text;
      alter table task add column done_by_contact text;
      alter table file add column by_contact text;
      create index task_for_client on task (workspace_id, due_on)
        where offered_to->>'of' = 'client' and assignee_id is null and state in ('open', 'underWay');
      alter table mail drop constraint mail_kind_check;
      alter table mail add constraint mail_kind_check
        check (kind in ('invitation', 'password', 'address', 'notice', 'task', 'code'));
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      -- What was for a client to do is nobody's again: nothing before this knew of it.
      update schedule set assignment = '{"v": 1, "kind": "nobody"}' where assignment->>'kind' = 'client';
      update template set assignment = '{"v": 1, "kind": "nobody"}' where assignment->>'kind' = 'client';
      update template set steps = (
        select jsonb_agg(case when step->'assignee'->>'by' = 'client'
          then jsonb_set(step, '{assignee}', '{"by": "nobody"}') else step end order by place)
        from jsonb_array_elements(steps) with ordinality as one(step, place)
      ) where steps @> '[{"assignee": {"by": "client"}}]';
      update task set offered_to = null where offered_to->>'of' = 'client';
      delete from mail where kind in ('task', 'code');
      alter table mail drop constraint mail_kind_check;
      alter table mail add constraint mail_kind_check check (kind in ('invitation', 'password', 'address', 'notice'));
      drop index task_for_client;
      alter table file drop column by_contact;
      alter table task drop column done_by_contact;
      alter table change drop column by_contact;
      alter table workspace drop column asking, drop column asked_on;
      drop table client_ask;
      drop table client_link;
    `);
  }
}
