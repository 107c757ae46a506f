import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The first tasks of a run by their days are found without looking through all that it made. */
export class RunsByDay1765500000000 implements MigrationInterface {
  readonly name = 'RunsByDay1765500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('drop index task_by_run');
    await runner.query('create index task_by_run on task (workspace_id, run_id, work_on) where run_id is not null');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop index task_by_run');
    await runner.query('create index task_by_run on task (workspace_id, run_id) where run_id is not null');
  }
}
