import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Views keep which columns they show, and more orders; what is not of normal priority is found by it. */
export class TaskColumns1767700000000 implements MigrationInterface {
  readonly name = 'TaskColumns1767700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table task_view add column columns text[];
      alter table task_view drop constraint task_view_order_check;
      alter table task_view add constraint task_view_order_check
        check ("order" in ('due', 'latest', 'title', 'longest', 'shortest', 'urgent', 'finished'));
      create index task_by_priority on task (workspace_id, priority, due_on) where priority <> 'normal';
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      drop index task_by_priority;
      alter table task_view drop constraint task_view_order_check;
      update task_view set "order" = 'due' where "order" in ('shortest', 'urgent', 'finished');
      alter table task_view add constraint task_view_order_check check ("order" in ('due', 'latest', 'title', 'longest'));
      alter table task_view drop column columns;
    `);
  }
}
