import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What has arrived from devices, by their keys: nothing so far. */
export class Arrivals1767400000000 implements MigrationInterface {
  readonly name = 'Arrivals1767400000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table arrival (
        workspace_id uuid not null constraint arrival_workspace_id_fkey references workspace (id) on delete cascade,
        person_id uuid not null,
        key uuid not null,
        at timestamptz not null,
        primary key (workspace_id, person_id, key),
        constraint arrival_workspace_id_person_id_fkey foreign key (workspace_id, person_id) references person (workspace_id, id)
      );
      create index arrival_by_time on arrival (at);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop table arrival');
  }
}
