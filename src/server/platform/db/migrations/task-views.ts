import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Views of all tasks that people keep: nobody has so far. */
export class TaskViews1767200000000 implements MigrationInterface {
  readonly name = 'TaskViews1767200000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table task_view (
        workspace_id uuid not null constraint task_view_workspace_id_fkey references workspace (id) on delete cascade,
        id uuid not null,
        version integer not null,
        person_id uuid not null,
        name text not null,
        filter jsonb not null,
        "by" text,
        "order" text not null,
        is_shared boolean not null,
        kept_at timestamptz not null,
        primary key (workspace_id, id),
        constraint task_view_workspace_id_person_id_fkey foreign key (workspace_id, person_id) references person (workspace_id, id),
        constraint task_view_order_check check ("order" in ('due', 'latest', 'title', 'longest'))
      );
      create index task_view_of_person on task_view (workspace_id, person_id);
      create index task_view_shared on task_view (workspace_id) where is_shared;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop table task_view');
  }
}
