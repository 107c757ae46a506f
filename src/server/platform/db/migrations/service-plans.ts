import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Plans of recurring work, the clients who are on them, and which schedules are theirs. */
export class ServicePlans1768200000000 implements MigrationInterface {
  readonly name = 'ServicePlans1768200000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table service_plan (
        workspace_id uuid not null constraint service_plan_workspace_id_fkey references workspace (id) on delete cascade,
        id uuid not null,
        version integer not null,
        name text not null,
        note text not null,
        rolls_on text not null,
        items jsonb not null,
        archived_at timestamptz,
        primary key (workspace_id, id),
        constraint service_plan_rolls_on_check check (rolls_on in ('itself', 'asks'))
      );

      create table on_plan (
        workspace_id uuid not null constraint on_plan_workspace_id_fkey references workspace (id) on delete cascade,
        id uuid not null,
        version integer not null,
        plan_id uuid not null,
        client_id uuid not null,
        from_on date not null,
        until_on date,
        off_on date,
        left_out jsonb not null,
        undone_at timestamptz,
        primary key (workspace_id, id),
        constraint on_plan_workspace_id_plan_id_fkey foreign key (workspace_id, plan_id) references service_plan (workspace_id, id),
        constraint on_plan_workspace_id_client_id_fkey foreign key (workspace_id, client_id) references client (workspace_id, id)
      );
      create index on_plan_by_plan on on_plan (workspace_id, plan_id, off_on) where undone_at is null;
      create index on_plan_by_client on on_plan (workspace_id, client_id) where undone_at is null;

      alter table schedule add column on_plan_id uuid, add column plan_item text,
        add constraint schedule_workspace_id_on_plan_id_fkey foreign key (workspace_id, on_plan_id) references on_plan (workspace_id, id),
        add constraint schedule_plan_check check ((on_plan_id is null) = (plan_item is null));
      create index schedule_of_plan on schedule (workspace_id, on_plan_id) where on_plan_id is not null;

      alter table change drop constraint change_subject_check;
      alter table change add constraint change_subject_check check (subject in ('task', 'schedule', 'template', 'workspace',
        'person', 'leave', 'client', 'asset', 'bringIn', 'file', 'letter', 'notice', 'plan', 'onPlan', 'several'));
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      delete from change where subject in ('plan', 'onPlan');
      alter table change drop constraint change_subject_check;
      alter table change add constraint change_subject_check check (subject in ('task', 'schedule', 'template', 'workspace',
        'person', 'leave', 'client', 'asset', 'bringIn', 'file', 'letter', 'notice', 'several'));
      drop index schedule_of_plan;
      alter table schedule drop constraint schedule_plan_check, drop constraint schedule_workspace_id_on_plan_id_fkey,
        drop column plan_item, drop column on_plan_id;
      drop table on_plan;
      drop table service_plan;
    `);
  }
}
