import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A task that was deleted on purpose is remembered by whose it was too, where each of several has one. */
export class DeletedHeads1766700000000 implements MigrationInterface {
  readonly name = 'DeletedHeads1766700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table deleted_task add head text not null default '';
      alter table deleted_task alter head drop default, drop constraint deleted_task_pkey,
        add constraint deleted_task_pkey primary key (workspace_id, schedule_id, nominal_date, step_key, head)
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      delete from deleted_task where head <> '';
      alter table deleted_task drop constraint deleted_task_pkey, drop head,
        add constraint deleted_task_pkey primary key (workspace_id, schedule_id, nominal_date, step_key)
    `);
  }
}
