import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A call may be taken off the list of a day by hand; mails are found by whom they went to. */
export class CallsTakenOff1768500000000 implements MigrationInterface {
  readonly name = 'CallsTakenOff1768500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table call drop constraint call_state_check;
      alter table call add constraint call_state_check check (state in ('open', 'rung', 'carried', 'dropped', 'off'));
      create index mail_by_address on mail (workspace_id, lower(to_email));
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      drop index mail_by_address;
      update call set state = 'dropped' where state = 'off';
      alter table call drop constraint call_state_check;
      alter table call add constraint call_state_check check (state in ('open', 'rung', 'carried', 'dropped'));
    `);
  }
}
