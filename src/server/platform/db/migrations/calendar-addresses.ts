import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Private addresses of calendars. */
export class CalendarAddresses1769200000000 implements MigrationInterface {
  readonly name = 'CalendarAddresses1769200000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table calendar_address (
        workspace_id uuid not null,
        id uuid not null,
        person_id uuid not null,
        kind text not null,
        of_id uuid not null,
        digest text not null,
        origin text not null,
        made_at timestamptz not null,
        asked_at timestamptz,
        asked_by text not null,
        primary key (workspace_id, id),
        constraint calendar_address_workspace_id_fkey foreign key (workspace_id) references workspace (id) on delete cascade,
        constraint calendar_address_workspace_id_person_id_fkey foreign key (workspace_id, person_id) references person (workspace_id, id) on delete cascade,
        constraint calendar_address_kind_check check (kind in ('person', 'client', 'asset', 'schedule', 'view')),
        constraint calendar_address_digest unique (digest)
      );
      create index calendar_address_of_person on calendar_address (workspace_id, person_id, id);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop table calendar_address');
  }
}
