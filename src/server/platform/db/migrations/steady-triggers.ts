import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Triggers that hold rows as they are now against what they were. */
const COMPARING = ['tell_of_task()', 'watch_tasks()'];

/**
 * The plan of a trigger is made at its first call on a connection and kept: made for one row, it went through every row for
 * every row once thousands were changed at once (3,800 of them took over thirty seconds). Hashed, one row costs no more.
 */
export class SteadyTriggers1766500000000 implements MigrationInterface {
  readonly name = 'SteadyTriggers1766500000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const name of COMPARING) await runner.query(`alter function ${name} set enable_nestloop = off`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const name of COMPARING) await runner.query(`alter function ${name} reset enable_nestloop`);
  }
}
