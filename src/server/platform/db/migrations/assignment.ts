import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The rule that gives all work to whom a schedule gave it, as the core writes it. */
const GIVEN_TO = (person: string) => `case when ${person} is null then '{"v": 1, "kind": "nobody"}'::jsonb
  else jsonb_build_object('v', 1, 'kind', 'person', 'personId', ${person}, 'daysOffToo', true, 'cover', 'deputy') end`;

/** What a change of such a rule was, so that it is told and undone as before. */
const AS_RULE = `jsonb_build_object('from', ${GIVEN_TO(`fields->'assigneeId'->>'from'`)}, 'to', ${GIVEN_TO(`fields->'assigneeId'->>'to'`)})`;

/** How a task looks to an undo: a reason that is told anew is no change that anybody made. */
const LOOK_WITHOUT = (fields: readonly string[]) => `
  create or replace function task_look (task) returns text language sql stable as
    $$ select md5(jsonb_strip_nulls(to_jsonb($1) ${fields.map((field) => `- '${field}'`).join(' ')})::text) $$`;
const NO_LOOK = ['version', 'template_version'];

const ONLY_PERSON = (rule: string) => `case when ${rule}->>'kind' = 'person' then ${rule}->>'personId' end`;

/**
 * A schedule says by a rule who does it, a task whom it was offered to and why somebody has it; people have leave, a deputy
 * and tickets. Every schedule keeps the person it had.
 */
export class Assignment1766400000000 implements MigrationInterface {
  readonly name = 'Assignment1766400000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table schedule add assignment jsonb;
      update schedule set assignment = ${GIVEN_TO('assignee_id')};
      alter table schedule alter assignment set not null, drop assignee_id;
      update change set fields = (fields - 'assigneeId') || jsonb_build_object('assignment', ${AS_RULE})
      where subject = 'schedule' and fields ? 'assigneeId';
      alter table task add offered_to jsonb, add why jsonb;
      ${LOOK_WITHOUT([...NO_LOOK, 'why'])};
      alter table person add deputy_id uuid, add tickets jsonb not null default '[]';
      alter table person alter tickets drop default,
        add constraint person_workspace_id_deputy_id_fkey foreign key (workspace_id, deputy_id) references person (workspace_id, id),
        add constraint person_deputy_check check (deputy_id <> id);
      create table leave (
        workspace_id uuid not null,
        id uuid not null,
        version integer not null,
        person_id uuid not null,
        from_on date not null,
        to_on date not null,
        half text,
        state text not null,
        note text not null,
        asked_at timestamptz not null,
        decided_by uuid,
        decided_at timestamptz,
        primary key (workspace_id, id),
        constraint leave_workspace_id_fkey foreign key (workspace_id) references workspace (id) on delete cascade,
        constraint leave_workspace_id_person_id_fkey foreign key (workspace_id, person_id) references person (workspace_id, id),
        constraint leave_workspace_id_decided_by_fkey foreign key (workspace_id, decided_by) references person (workspace_id, id),
        constraint leave_days_check check (from_on <= to_on),
        constraint leave_half_check check (half in ('morning', 'afternoon')),
        constraint leave_state_check check (state in ('asked', 'given', 'refused'))
      );
      create index leave_by_person on leave (workspace_id, person_id, to_on);
      alter table change drop constraint change_subject_check, add constraint change_subject_check check (subject in
        ('task', 'schedule', 'template', 'workspace', 'person', 'leave', 'client', 'asset', 'bringIn', 'file', 'several'));
    `);
    for (const [operation, rows] of Object.entries({ insert: 'new', update: 'new', delete: 'old' }))
      await runner.query(
        `create trigger tell_of_${operation} after ${operation} on leave
         referencing ${rows} table as touched for each statement execute function tell_of_any()`,
      );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      delete from change where subject = 'leave';
      alter table change drop constraint change_subject_check, add constraint change_subject_check check (subject in
        ('task', 'schedule', 'template', 'workspace', 'person', 'client', 'asset', 'bringIn', 'file', 'several'));
      drop table leave;
      alter table person drop deputy_id, drop tickets;
      ${LOOK_WITHOUT(NO_LOOK)};
      alter table task drop offered_to, drop why;
      alter table schedule add assignee_id uuid,
        add constraint schedule_workspace_id_assignee_id_fkey foreign key (workspace_id, assignee_id) references person (workspace_id, id);
      update schedule set assignee_id = (${ONLY_PERSON('assignment')})::uuid;
      update change set fields = (fields - 'assignment') || jsonb_build_object('assigneeId', jsonb_build_object(
        'from', ${ONLY_PERSON(`(fields->'assignment'->'from')`)}, 'to', ${ONLY_PERSON(`(fields->'assignment'->'to')`)}))
      where subject = 'schedule' and fields ? 'assignment';
      alter table schedule drop assignment
    `);
  }
}
