import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Of leave it may be chosen who takes over: nothing is, so far. */
export class LeaveCover1766900000000 implements MigrationInterface {
  readonly name = 'LeaveCover1766900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('alter table leave add cover jsonb');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table leave drop cover');
  }
}
