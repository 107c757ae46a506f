import type { MigrationInterface, QueryRunner } from 'typeorm';

/** For how long finished work is kept is a setting, for good so far; what was let go by it stays on record. */
export class Retention1767800000000 implements MigrationInterface {
  readonly name = 'Retention1767800000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table workspace add column keep_years integer, add column keep_since date,
        add constraint workspace_keep_years_check check (keep_years is null or (keep_years between 1 and 30 and keep_since is not null));
      create table letting_go (
        workspace_id uuid not null constraint letting_go_workspace_id_fkey references workspace (id) on delete cascade,
        before date not null,
        years integer not null,
        begun_at timestamptz not null,
        ended_at timestamptz,
        tasks integer not null,
        files integer not null,
        primary key (workspace_id, before)
      );
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      drop table letting_go;
      alter table workspace drop constraint workspace_keep_years_check, drop column keep_years, drop column keep_since;
    `);
  }
}
