import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Tasks that were deleted on purpose, so that no run makes them again. */
export class DeletedTasks1764300000000 implements MigrationInterface {
  readonly name = 'DeletedTasks1764300000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table deleted_task (
        workspace_id uuid not null references workspace on delete cascade,
        schedule_id uuid not null,
        nominal_date date not null,
        step_key text not null,
        deleted_at timestamptz not null,
        deleted_by uuid,
        primary key (workspace_id, schedule_id, nominal_date, step_key),
        foreign key (workspace_id, schedule_id) references schedule (workspace_id, id) on delete cascade,
        foreign key (workspace_id, deleted_by) references person (workspace_id, id)
      );
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop table deleted_task');
  }
}
