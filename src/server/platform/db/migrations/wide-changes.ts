import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Changes of many things at once, undone as one; schedules that were deleted on purpose; what a run left out. */
export class WideChanges1764500000000 implements MigrationInterface {
  readonly name = 'WideChanges1764500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table change drop constraint change_subject_check,
        add check (subject in ('task', 'schedule', 'template', 'file', 'several'));
      alter table schedule add deleted_at timestamptz;
      alter table run add left_out jsonb not null default '[]', add lapsed integer not null default 0;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table run drop left_out, drop lapsed;
      alter table schedule drop deleted_at;
      delete from change where subject = 'several';
      alter table change drop constraint change_subject_check,
        add check (subject in ('task', 'schedule', 'template', 'file'));
    `);
  }
}
