import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Runs that fill a period, the tasks that each run made, and runs that were taken back. */
export class RunLog1764400000000 implements MigrationInterface {
  readonly name = 'RunLog1764400000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table run
        drop constraint run_why_check,
        add check (why in ('daily', 'startup', 'byHand', 'fill')),
        add by_id uuid,
        add from_date date,
        add to_date date,
        add schedule_ids jsonb not null default '[]',
        add state text not null default 'done' check (state in ('running', 'done', 'undone')),
        add total integer not null default 0,
        add foreign key (workspace_id, by_id) references person (workspace_id, id);
      alter table run add waits jsonb not null default '[]';
      alter table schedule add overlap jsonb not null default '{"kind": "add"}';
      alter table task add run_id uuid;
      create index task_by_run on task (workspace_id, run_id) where run_id is not null;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      delete from run where why = 'fill';
      alter table task drop run_id;
      alter table schedule drop overlap;
      alter table run
        drop constraint run_why_check,
        add check (why in ('daily', 'startup', 'byHand')),
        drop by_id, drop from_date, drop to_date, drop schedule_ids, drop state, drop total, drop waits;
    `);
  }
}
