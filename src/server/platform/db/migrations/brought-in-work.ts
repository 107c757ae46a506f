import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Schedules, tasks, templates and finished work can be brought in from files too. */
export class BroughtInWork1769900000000 implements MigrationInterface {
  readonly name = 'BroughtInWork1769900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table bring_in drop constraint bring_in_kind_check,
        add constraint bring_in_kind_check check (kind in ('clients', 'people', 'schedules', 'tasks', 'templates', 'history'))
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      delete from bring_in where kind not in ('clients', 'people');
      alter table bring_in drop constraint bring_in_kind_check,
        add constraint bring_in_kind_check check (kind in ('clients', 'people'))
    `);
  }
}
