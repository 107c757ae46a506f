import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Leave may have exchanged turns with others: none has, so far. */
export class LeaveExchanges1767100000000 implements MigrationInterface {
  readonly name = 'LeaveExchanges1767100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('alter table leave add exchanges jsonb');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table leave drop exchanges');
  }
}
