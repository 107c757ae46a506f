import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A call may be taken off the list of a day by hand. */
export class CallsTakenOff1768500000000 implements MigrationInterface {
  readonly name = 'CallsTakenOff1768500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table call drop constraint call_state_check;
      alter table call add constraint call_state_check check (state in ('open', 'rung', 'carried', 'dropped', 'off'));
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      update call set state = 'dropped' where state = 'off';
      alter table call drop constraint call_state_check;
      alter table call add constraint call_state_check check (state in ('open', 'rung', 'carried', 'dropped'));
    `);
  }
}
