import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * How dates and times are seen, by a workspace and by each person; for how long finished work stays in sight; and parts of
 * the year that have a name.
 */
export class Ways1766300000000 implements MigrationInterface {
  readonly name = 'Ways1766300000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table workspace
        add ways jsonb not null default '{"weekStarts": 1, "dateOrder": "day first", "clock": 24}',
        add seasons jsonb not null default '[]',
        add done_stays_days integer not null default 1
          constraint workspace_done_stays_days_check check (done_stays_days between 1 and 14);
      alter table workspace alter ways drop default, alter seasons drop default, alter done_stays_days drop default;
      alter table person add ways jsonb not null default '{}';
      alter table person alter ways drop default
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table person drop ways;
      alter table workspace drop ways, drop seasons, drop done_stays_days
    `);
  }
}
