import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Backups that were asked for, and how often one is written by itself. */
export class Backups1769300000000 implements MigrationInterface {
  readonly name = 'Backups1769300000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table backup (
        workspace_id uuid not null,
        id uuid not null,
        state text not null,
        asked_at timestamptz not null,
        asked_by uuid,
        name text not null,
        rows integer not null,
        files integer not null,
        bytes bigint,
        missing jsonb not null,
        trouble text,
        primary key (workspace_id, id),
        constraint backup_workspace_id_fkey foreign key (workspace_id) references workspace (id) on delete cascade,
        constraint backup_workspace_id_asked_by_fkey foreign key (workspace_id, asked_by) references person (workspace_id, id),
        constraint backup_state_check check (state in ('asked', 'done', 'failed'))
      );
      create index backup_by_time on backup (workspace_id, asked_at);
      create table backup_plan (
        workspace_id uuid not null,
        every text not null,
        keep integer not null,
        said_by uuid,
        primary key (workspace_id),
        constraint backup_plan_workspace_id_fkey foreign key (workspace_id) references workspace (id) on delete cascade,
        constraint backup_plan_workspace_id_said_by_fkey foreign key (workspace_id, said_by) references person (workspace_id, id),
        constraint backup_plan_every_check check (every in ('day', 'week'))
      );
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop table backup_plan; drop table backup;');
  }
}
