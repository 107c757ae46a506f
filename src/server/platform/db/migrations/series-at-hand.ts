import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What is unfinished of a schedule is found without reading all that it ever made. */
export class SeriesAtHand1765600000000 implements MigrationInterface {
  readonly name = 'SeriesAtHand1765600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `create index task_unfinished_of_schedule on task (workspace_id, schedule_id)
       where schedule_id is not null and state in ('open', 'underWay', 'toCheck')`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop index task_unfinished_of_schedule');
  }
}
