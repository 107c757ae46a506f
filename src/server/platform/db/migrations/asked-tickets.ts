import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A workspace lists qualifications, and a template says which of them its work asks for: none so far. */
export class AskedTickets1766600000000 implements MigrationInterface {
  readonly name = 'AskedTickets1766600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table workspace add tickets jsonb not null default '[]';
      alter table workspace alter tickets drop default;
      update workspace w set tickets = coalesce((
        select jsonb_agg(distinct ticket->>'name') from person p, jsonb_array_elements(p.tickets) ticket where p.workspace_id = w.id), '[]');
      alter table template add tickets jsonb not null default '[]';
      alter table template alter tickets drop default
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table workspace drop tickets; alter table template drop tickets');
  }
}
