import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Plain text as the HTML that instructions are from now on: a paragraph for each line. */
const PARAGRAPHS = `case when instructions = '' then '' else
  '<p>' || replace(replace(replace(replace(instructions, '&', '&amp;'), '<', '&lt;'), '>', '&gt;'), E'\\n', '</p><p>') || '</p>' end`;

/** Steps that are tasks of their own, proof, sign-off, files, favourites; tasks made by hand, and the set each belongs to. */
export class TemplatesStepsProof1764200000000 implements MigrationInterface {
  readonly name = 'TemplatesStepsProof1764200000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table workspace add work_types jsonb not null default '[]';
      alter table asset add tag text;

      alter table template
        add summary text not null default '' check (length(summary) <= 120),
        add dot text,
        add links jsonb not null default '[]',
        add priority text not null default 'normal' check (priority in ('low', 'normal', 'high', 'urgent')),
        add work_type text,
        add assignee_id uuid,
        add sign_off jsonb,
        add finish_with_last boolean not null default false,
        add numbered boolean not null default false,
        add demands jsonb not null default '[]',
        add steps jsonb not null default '[]',
        add archived_at timestamptz,
        add foreign key (workspace_id, assignee_id) references person (workspace_id, id);
      update template set
        instructions = ${PARAGRAPHS},
        steps = (select coalesce(jsonb_agg(line || '{"kind": "check", "note": "", "demands": []}' order by n), '[]')
                 from jsonb_array_elements(check_lines) with ordinality as lines (line, n));
      alter table template drop check_lines;

      create table favourite (
        workspace_id uuid not null references workspace on delete cascade,
        person_id uuid not null,
        template_id uuid not null,
        primary key (workspace_id, person_id, template_id),
        foreign key (workspace_id, person_id) references person (workspace_id, id) on delete cascade,
        foreign key (workspace_id, template_id) references template (workspace_id, id) on delete cascade
      );

      alter table task
        alter template_id drop not null,
        add set_id uuid,
        add set_on date,
        add set_index integer not null default 0,
        add template_version integer,
        add brief text not null default '',
        add links jsonb not null default '[]',
        add priority text not null default 'normal' check (priority in ('low', 'normal', 'high', 'urgent')),
        add work_type text,
        add sign_off jsonb,
        add finish_with_last boolean not null default false,
        add numbered boolean not null default false,
        add demands jsonb not null default '[]',
        add answers jsonb not null default '{}',
        add note_pinned boolean not null default false,
        add signed_at timestamptz,
        add signed_by uuid,
        add sent_back jsonb not null default '[]',
        add edited jsonb not null default '[]',
        add foreign key (workspace_id, signed_by) references person (workspace_id, id),
        drop constraint task_check,
        add constraint task_done_when check ((state in ('done', 'toCheck')) = (done_at is not null));
      update task set
        instructions = ${PARAGRAPHS},
        set_id = md5(coalesce(schedule_id, id)::text || ' ' || coalesce(to_char(nominal_date, 'YYYY-MM-DD'), ''))::uuid,
        set_on = work_on,
        check_lines = (select coalesce(jsonb_agg(line || '{"note": "", "demands": []}' order by n), '[]')
                       from jsonb_array_elements(check_lines) with ordinality as lines (line, n));
      alter table task alter set_id set not null, alter set_on set not null;
      create index task_by_set on task (workspace_id, set_id);
      create index task_by_template on task (workspace_id, template_id, work_on);
      create index task_to_check on task (workspace_id, due_on) where state = 'toCheck';

      create table file (
        workspace_id uuid not null references workspace on delete cascade,
        id uuid not null,
        upload_key uuid not null,
        template_id uuid,
        task_id uuid,
        demand_key text,
        name text not null check (length(name) between 1 and 200),
        media_type text not null,
        bytes integer not null check (bytes between 1 and 20971520),
        stored text not null,
        is_picture boolean not null,
        is_kept boolean not null default false,
        uploaded_at timestamptz not null,
        uploaded_by uuid,
        removed_at timestamptz,
        primary key (workspace_id, id),
        unique (workspace_id, upload_key),
        foreign key (workspace_id, template_id) references template (workspace_id, id) on delete cascade,
        foreign key (workspace_id, task_id) references task (workspace_id, id) on delete cascade,
        foreign key (workspace_id, uploaded_by) references person (workspace_id, id),
        check (template_id is null or task_id is null)
      );
      alter table change drop constraint change_subject_check,
        add check (subject in ('task', 'schedule', 'template', 'file'));
      create index file_by_task on file (workspace_id, task_id) where task_id is not null;
      create index file_by_template on file (workspace_id, template_id) where template_id is not null;
      create index file_by_name on file (stored);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      drop table file, favourite;
      delete from change where subject = 'file';
      alter table change drop constraint change_subject_check,
        add check (subject in ('task', 'schedule', 'template'));
      delete from task where template_id is null;
      alter table task drop constraint task_done_when;
      update task set done_at = null, done_by = null where state = 'toCheck';
      alter table task
        alter template_id set not null,
        add constraint task_check check ((state = 'done') = (done_at is not null)),
        drop set_id, drop set_on, drop set_index, drop template_version, drop brief, drop links, drop priority, drop work_type,
        drop sign_off, drop finish_with_last, drop numbered, drop demands, drop answers, drop note_pinned, drop signed_at,
        drop signed_by, drop sent_back, drop edited;
      alter table template add check_lines jsonb not null default '[]';
      update template set check_lines = jsonb_path_query_array(steps, '$[*] ? (@.kind == "check")');
      alter table template
        drop summary, drop dot, drop links, drop priority, drop work_type, drop assignee_id, drop sign_off,
        drop finish_with_last, drop numbered, drop demands, drop steps, drop archived_at;
      alter table asset drop tag;
      alter table workspace drop work_types;
    `);
  }
}
