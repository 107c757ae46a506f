import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Files that are brought in: what stands in them, what each column becomes, and what was written of each line; reasons for skipping that are offered. */
export class BringIns1766100000000 implements MigrationInterface {
  readonly name = 'BringIns1766100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table workspace add skip_reasons jsonb;
      update workspace set skip_reasons = '[]';
      alter table workspace alter skip_reasons set not null;
      create index contact_by_email on contact (workspace_id, lower(email)) where email <> '';
      create index asset_by_tag on asset (workspace_id, lower(tag)) where tag is not null;
      create table bring_in (
        workspace_id uuid not null constraint bring_in_workspace_id_fkey references workspace on delete cascade,
        id uuid not null,
        kind text not null constraint bring_in_kind_check check (kind in ('clients', 'people')),
        state text not null constraint bring_in_state_check check (state in ('open', 'done', 'undone')),
        file_name text not null,
        encoding text not null,
        separator text not null,
        row_count integer not null,
        columns jsonb not null,
        shape text not null,
        asked jsonb not null,
        is_remembered boolean not null,
        by_id uuid,
        created_at timestamptz not null,
        done_at timestamptz,
        change_id uuid,
        version integer not null,
        primary key (workspace_id, id),
        constraint bring_in_workspace_id_by_id_fkey foreign key (workspace_id, by_id) references person
      );
      create index bring_in_by_shape on bring_in (workspace_id, kind, shape, created_at);
      create table bring_in_row (
        workspace_id uuid not null,
        bring_in_id uuid not null,
        number integer not null,
        cells jsonb not null,
        fate text not null,
        choice text,
        read jsonb not null,
        before jsonb,
        primary key (workspace_id, bring_in_id, number),
        constraint bring_in_row_workspace_id_bring_in_id_fkey foreign key (workspace_id, bring_in_id) references bring_in
          on delete cascade
      );
      create index bring_in_row_by_fate on bring_in_row (workspace_id, bring_in_id, fate, number);
      alter table change drop constraint change_subject_check,
        add constraint change_subject_check check (subject in
          ('task', 'schedule', 'template', 'workspace', 'person', 'client', 'asset', 'bringIn', 'file', 'several'))
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      delete from change where subject = 'bringIn';
      alter table change drop constraint change_subject_check,
        add constraint change_subject_check
          check (subject in ('task', 'schedule', 'template', 'workspace', 'person', 'client', 'asset', 'file', 'several'));
      drop table bring_in_row;
      drop table bring_in;
      drop index contact_by_email;
      drop index asset_by_tag;
      alter table workspace drop skip_reasons
    `);
  }
}
