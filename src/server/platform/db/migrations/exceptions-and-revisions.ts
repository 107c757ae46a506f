import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Exceptions and revisions of schedules; the zone in which a task's dates and times are meant. */
export class ExceptionsAndRevisions1764100000000 implements MigrationInterface {
  readonly name = 'ExceptionsAndRevisions1764100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table schedule
        add exceptions jsonb not null default '[]',
        add revisions jsonb not null default '[]';
      alter table task add zone text;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table task drop zone; alter table schedule drop exceptions, drop revisions');
  }
}
