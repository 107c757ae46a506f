import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What holds a task up, who was reminded of it, what is said about it, and the bell that tells of it: nothing so far. */
export class HeldUpAndTold1767300000000 implements MigrationInterface {
  readonly name = 'HeldUpAndTold1767300000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table task
        add held_until date,
        add held_reason text,
        add held_at timestamptz,
        add held_by uuid,
        add nudged_at timestamptz,
        add nudged_by uuid,
        add constraint task_held_check check ((held_until is null) = (held_reason is null) and (held_until is null) = (held_at is null)),
        add constraint task_workspace_id_held_by_fkey foreign key (workspace_id, held_by) references person (workspace_id, id),
        add constraint task_workspace_id_nudged_by_fkey foreign key (workspace_id, nudged_by) references person (workspace_id, id);
      create index task_held_up on task (workspace_id, held_until)
        where held_until is not null and state in ('open', 'underWay');
      create index task_under_way on task (workspace_id, started_at) where state = 'underWay';

      create table task_comment (
        workspace_id uuid not null constraint task_comment_workspace_id_fkey references workspace (id) on delete cascade,
        id uuid not null,
        send_key uuid not null,
        task_id uuid not null,
        text text not null,
        at timestamptz not null,
        by uuid not null,
        primary key (workspace_id, id),
        constraint task_comment_workspace_id_send_key_key unique (workspace_id, send_key),
        constraint task_comment_workspace_id_task_id_fkey foreign key (workspace_id, task_id) references task (workspace_id, id) on delete cascade,
        constraint task_comment_workspace_id_by_fkey foreign key (workspace_id, by) references person (workspace_id, id)
      );
      create index task_comment_of_task on task_comment (workspace_id, task_id, id);

      create table bell_line (
        workspace_id uuid not null constraint bell_line_workspace_id_fkey references workspace (id) on delete cascade,
        id uuid not null,
        person_id uuid not null,
        kind text not null,
        task_id uuid not null,
        more integer not null,
        text text not null,
        at timestamptz not null,
        by uuid not null,
        read_at timestamptz,
        primary key (workspace_id, id),
        constraint bell_line_kind_check check (kind in ('nudge', 'name')),
        constraint bell_line_workspace_id_person_id_fkey foreign key (workspace_id, person_id) references person (workspace_id, id),
        constraint bell_line_workspace_id_task_id_fkey foreign key (workspace_id, task_id) references task (workspace_id, id) on delete cascade,
        constraint bell_line_workspace_id_by_fkey foreign key (workspace_id, by) references person (workspace_id, id)
      );
      create index bell_line_of_person on bell_line (workspace_id, person_id, id);
      create index bell_line_of_task on bell_line (workspace_id, task_id);
      create index bell_line_unread on bell_line (workspace_id, person_id) where read_at is null;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      drop table bell_line;
      drop table task_comment;
      drop index task_under_way;
      alter table task drop held_until, drop held_reason, drop held_at, drop held_by, drop nudged_at, drop nudged_by;
    `);
  }
}
