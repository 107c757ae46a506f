import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What nobody has stands on everybody's day sheet: it is found without looking through what somebody has. */
export class NobodysTasks1765100000000 implements MigrationInterface {
  readonly name = 'NobodysTasks1765100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `create index task_of_nobody on task (workspace_id, due_on) where assignee_id is null and state in ('open', 'underWay')`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop index task_of_nobody');
  }
}
