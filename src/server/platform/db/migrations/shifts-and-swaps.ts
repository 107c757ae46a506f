import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Hours of people may say when they lie and be others on single days, people clock on and off and swap turns: nobody has so far. */
export class ShiftsAndSwaps1766800000000 implements MigrationInterface {
  readonly name = 'ShiftsAndSwaps1766800000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table person add shifts jsonb not null default '[]', add shift_changes jsonb not null default '[]';
      alter table person alter shifts drop default, alter shift_changes drop default;
      create table clocking (
        workspace_id uuid not null constraint clocking_workspace_id_fkey references workspace (id) on delete cascade,
        id uuid not null,
        person_id uuid not null,
        on_at timestamptz not null,
        off_at timestamptz,
        on_by uuid not null,
        off_by uuid,
        primary key (workspace_id, id),
        constraint clocking_workspace_id_person_id_fkey foreign key (workspace_id, person_id) references person (workspace_id, id),
        constraint clocking_workspace_id_on_by_fkey foreign key (workspace_id, on_by) references person (workspace_id, id),
        constraint clocking_workspace_id_off_by_fkey foreign key (workspace_id, off_by) references person (workspace_id, id),
        constraint clocking_times_check check (on_at <= off_at)
      );
      create index clocking_by_person on clocking (workspace_id, person_id, on_at);
      create unique index clocking_open on clocking (workspace_id, person_id) where off_at is null;
      alter table workspace add swaps_need_nod boolean not null default false;
      alter table workspace alter swaps_need_nod drop default;
      create table turn_swap (
        workspace_id uuid not null constraint turn_swap_workspace_id_fkey references workspace (id) on delete cascade,
        id uuid not null,
        version integer not null,
        schedule_id uuid not null,
        gives date not null,
        takes date not null,
        asked_by uuid not null,
        asked_of uuid not null,
        note text not null,
        state text not null,
        asked_at timestamptz not null,
        decided_by uuid,
        decided_at timestamptz,
        primary key (workspace_id, id),
        constraint turn_swap_workspace_id_schedule_id_fkey foreign key (workspace_id, schedule_id) references schedule (workspace_id, id),
        constraint turn_swap_workspace_id_asked_by_fkey foreign key (workspace_id, asked_by) references person (workspace_id, id),
        constraint turn_swap_workspace_id_asked_of_fkey foreign key (workspace_id, asked_of) references person (workspace_id, id),
        constraint turn_swap_workspace_id_decided_by_fkey foreign key (workspace_id, decided_by) references person (workspace_id, id),
        constraint turn_swap_state_check check (state in ('asked', 'agreed', 'done', 'refused', 'withdrawn'))
      );
      create index turn_swap_waiting on turn_swap (workspace_id, gives) where state in ('asked', 'agreed');
      create index turn_swap_by_asker on turn_swap (workspace_id, asked_by);
      create index turn_swap_by_asked on turn_swap (workspace_id, asked_of)
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      'drop table turn_swap; drop table clocking; alter table workspace drop swaps_need_nod; alter table person drop shifts, drop shift_changes',
    );
  }
}
