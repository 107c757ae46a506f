import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A template may say itself who is told when it is late. */
export class LateTemplates1769100000000 implements MigrationInterface {
  readonly name = 'LateTemplates1769100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('alter table template add escalation jsonb');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table template drop escalation');
  }
}
