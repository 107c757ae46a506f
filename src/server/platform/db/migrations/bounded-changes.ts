import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a change keeps of what it changed has a bound: twice what a request may bring, as the database counts it. */
export class BoundedChanges1765400000000 implements MigrationInterface {
  readonly name = 'BoundedChanges1765400000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'alter table change add constraint change_fields_check check (pg_column_size(fields) <= 8388608)',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table change drop constraint change_fields_check');
  }
}
