import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A workspace says how many minutes are worked on each weekday, Monday first: seven hours and a half where it did not yet. */
export class WeekHours1766200000000 implements MigrationInterface {
  readonly name = 'WeekHours1766200000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table workspace add week_minutes jsonb;
      update workspace set week_minutes = (
        select jsonb_agg(case when working_weekdays @> to_jsonb(weekday) then 450 else 0 end order by weekday) from generate_series(1, 7) weekday);
      alter table workspace alter week_minutes set not null
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table workspace drop week_minutes');
  }
}
