import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The workspace is changed like all else: with a version, and a financial year that begins in some month. */
export class WorkspaceSettings1765700000000 implements MigrationInterface {
  readonly name = 'WorkspaceSettings1765700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('alter table workspace add version integer');
    await runner.query('alter table workspace add year_starts integer, add phrase_habits jsonb');
    await runner.query(`update workspace set version = 1, year_starts = 1, phrase_habits = '{}'`);
    await runner.query(
      'alter table workspace alter version set not null, alter year_starts set not null, alter phrase_habits set not null',
    );
    await runner.query(
      'alter table workspace add constraint workspace_year_starts_check check (year_starts between 1 and 12)',
    );
    await runner.query(`
      alter table change drop constraint change_subject_check,
        add constraint change_subject_check
          check (subject in ('task', 'schedule', 'template', 'workspace', 'file', 'several'))
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`delete from change where subject = 'workspace'`);
    await runner.query(`
      alter table change drop constraint change_subject_check,
        add constraint change_subject_check check (subject in ('task', 'schedule', 'template', 'file', 'several'))
    `);
    await runner.query('alter table workspace drop version, drop year_starts, drop phrase_habits');
  }
}
