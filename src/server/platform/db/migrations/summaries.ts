import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The summary of a day by mail, as each wishes it. */
export class Summaries1768600000000 implements MigrationInterface {
  readonly name = 'Summaries1768600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table summary_wish (
        workspace_id uuid not null constraint summary_wish_workspace_id_fkey references workspace (id) on delete cascade,
        person_id uuid not null,
        wish jsonb,
        told_on date,
        primary key (workspace_id, person_id),
        constraint summary_wish_workspace_id_person_id_fkey foreign key (workspace_id, person_id) references person (workspace_id, id) on delete cascade
      );
      alter table mail drop constraint mail_kind_check;
      alter table mail add constraint mail_kind_check
        check (kind in ('invitation', 'password', 'address', 'notice', 'task', 'code', 'calls', 'summary'));
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      delete from mail where kind = 'summary';
      alter table mail drop constraint mail_kind_check;
      alter table mail add constraint mail_kind_check
        check (kind in ('invitation', 'password', 'address', 'notice', 'task', 'code', 'calls'));
      drop table summary_wish;
    `);
  }
}
