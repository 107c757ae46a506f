import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How letters go and which types of work have to be announced is settled by a workspace: nothing is so far. */
export class VisitRules1768000000000 implements MigrationInterface {
  readonly name = 'VisitRules1768000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table workspace add column visits jsonb not null default '{"ways": [], "terms": []}';
      alter table workspace alter column visits drop default;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table workspace drop column visits');
  }
}
