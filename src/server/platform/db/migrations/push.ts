import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Devices that show what happens though nobody looks, and what was sent to them. */
export class Push1769000000000 implements MigrationInterface {
  readonly name = 'Push1769000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table push_device (
        workspace_id uuid not null,
        id uuid not null,
        person_id uuid not null,
        endpoint text not null,
        p256dh text not null,
        auth text not null,
        name text not null,
        added_at timestamptz not null,
        told_at timestamptz,
        trouble text,
        primary key (workspace_id, id),
        constraint push_device_workspace_id_fkey foreign key (workspace_id) references workspace (id) on delete cascade,
        constraint push_device_workspace_id_person_id_fkey foreign key (workspace_id, person_id) references person (workspace_id, id) on delete cascade,
        constraint push_device_endpoint unique (workspace_id, person_id, endpoint)
      );
      alter table message add push text not null default 'no', add push_at timestamptz, add push_held timestamptz;
      alter table message alter push drop default,
        add constraint message_push_check check (push in ('no', 'undecided', 'waits', 'sent', 'failed')),
        add constraint message_push_when check ((push = 'waits') = (push_at is not null));
      create index message_to_push on message (workspace_id, push, push_at) where push in ('undecided', 'waits');
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table message drop push, drop push_at, drop push_held;
      drop table push_device;
    `);
  }
}
