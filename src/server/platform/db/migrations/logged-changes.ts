import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The logbook tells what was deleted and who gave work to whom, by when that was done; and what was read, by when it was due. */
export class LoggedChanges1767600000000 implements MigrationInterface {
  readonly name = 'LoggedChanges1767600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create index change_deleted_task on change (workspace_id, at, id)
        where subject = 'task' and action = 'deleted' and undone_at is null;
      create index change_given_task on change (workspace_id, at, id)
        where subject = 'task' and action <> 'undone' and undone_at is null and fields ? 'assigneeId';
      create index task_answered on task (workspace_id, due_on) where answers <> '{}';
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop index task_answered, change_given_task, change_deleted_task');
  }
}
