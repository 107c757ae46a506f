import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A call may be taken off the list of a day by hand; mails are found by whom they went to; of calls that are let go it stays on record how many. */
export class CallsTakenOff1768500000000 implements MigrationInterface {
  readonly name = 'CallsTakenOff1768500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table call drop constraint call_state_check;
      alter table call add constraint call_state_check check (state in ('open', 'rung', 'carried', 'dropped', 'off'));
      create index call_standing_by_last on call_standing (workspace_id, last_rung_on);
      create index call_standing_again on call_standing (workspace_id, again_on) where again_on is not null;
      create index mail_by_address on mail (workspace_id, lower(to_email));
      alter table letting_go add column calls integer not null default 0;
      alter table letting_go alter column calls drop default;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table letting_go drop column calls;
      drop index mail_by_address;
      drop index call_standing_by_last;
      drop index call_standing_again;
      update call set state = 'dropped' where state = 'off';
      alter table call drop constraint call_state_check;
      alter table call add constraint call_state_check check (state in ('open', 'rung', 'carried', 'dropped'));
    `);
  }
}
