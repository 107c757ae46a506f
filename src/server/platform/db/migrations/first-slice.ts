import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Workspaces, people, clients and their assets, templates, schedules, tasks, runs, changes, sessions. */
export class FirstSlice1764000000000 implements MigrationInterface {
  readonly name = 'FirstSlice1764000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table setting (
        key text primary key,
        value text not null
      );

      create table account (
        id uuid primary key,
        email text not null,
        password_hash text not null
      );
      create unique index account_email on account (lower(email));

      create table session (
        sid varchar primary key,
        sess json not null,
        expire timestamp(6) not null
      );
      create index session_expire on session (expire);

      create table workspace (
        id uuid primary key,
        name text not null,
        tagline text not null,
        zone text not null,
        working_weekdays jsonb not null,
        categories jsonb not null,
        horizon_days integer not null check (horizon_days between 1 and 366),
        make_time text not null check (make_time ~ '^([01][0-9]|2[0-3]):[0-5][0-9]$'),
        made_on date,
        is_demo boolean not null
      );

      create table holiday (
        workspace_id uuid not null references workspace on delete cascade,
        date date not null,
        name text not null,
        primary key (workspace_id, date)
      );

      create table person (
        workspace_id uuid not null references workspace on delete cascade,
        id uuid not null,
        account_id uuid references account on delete set null,
        name text not null,
        role text not null,
        is_manager boolean not null,
        capacity_minutes integer not null check (capacity_minutes between 0 and 1440),
        primary key (workspace_id, id),
        unique (workspace_id, account_id)
      );

      create table client (
        workspace_id uuid not null references workspace on delete cascade,
        id uuid not null,
        name text not null,
        primary key (workspace_id, id)
      );

      create table asset (
        workspace_id uuid not null references workspace on delete cascade,
        id uuid not null,
        client_id uuid,
        name text not null,
        place text not null,
        primary key (workspace_id, id),
        foreign key (workspace_id, client_id) references client (workspace_id, id)
      );

      create table template (
        workspace_id uuid not null references workspace on delete cascade,
        id uuid not null,
        version integer not null,
        name text not null check (length(name) between 1 and 120),
        title_pattern text not null check (length(title_pattern) between 1 and 200),
        category text,
        instructions text not null,
        check_lines jsonb not null,
        estimate_minutes integer not null check (estimate_minutes between 1 and 6000),
        changed_at timestamptz not null,
        changed_by uuid,
        primary key (workspace_id, id),
        foreign key (workspace_id, changed_by) references person (workspace_id, id)
      );
      create index template_by_name on template (workspace_id, lower(name), id);

      create table schedule (
        workspace_id uuid not null references workspace on delete cascade,
        id uuid not null,
        version integer not null,
        template_id uuid not null,
        client_id uuid,
        asset_id uuid,
        assignee_id uuid,
        recurrence jsonb not null,
        timing jsonb not null,
        pauses jsonb not null,
        settled_to date not null,
        problem text,
        created_at timestamptz not null,
        primary key (workspace_id, id),
        foreign key (workspace_id, template_id) references template (workspace_id, id),
        foreign key (workspace_id, client_id) references client (workspace_id, id),
        foreign key (workspace_id, asset_id) references asset (workspace_id, id),
        foreign key (workspace_id, assignee_id) references person (workspace_id, id)
      );
      create index schedule_by_template on schedule (workspace_id, template_id);

      create table task (
        workspace_id uuid not null references workspace on delete cascade,
        id uuid not null,
        version integer not null default 1,
        template_id uuid not null,
        schedule_id uuid,
        nominal_date date,
        step_key text not null default '',
        head text not null default '',
        title text not null,
        instructions text not null,
        check_lines jsonb not null,
        ticks jsonb not null,
        note text not null,
        estimate_minutes integer not null check (estimate_minutes >= 1),
        client_id uuid,
        asset_id uuid,
        assignee_id uuid,
        state text not null check (state in ('open', 'underWay', 'toCheck', 'done', 'skipped', 'lapsed')),
        work_on date not null,
        appears_on date not null,
        starts_on date not null,
        due_on date not null,
        start_time text,
        due_time text,
        started_at timestamptz,
        done_at timestamptz,
        done_by uuid,
        made_at timestamptz not null,
        primary key (workspace_id, id),
        foreign key (workspace_id, template_id) references template (workspace_id, id),
        foreign key (workspace_id, schedule_id) references schedule (workspace_id, id),
        foreign key (workspace_id, client_id) references client (workspace_id, id),
        foreign key (workspace_id, asset_id) references asset (workspace_id, id),
        foreign key (workspace_id, assignee_id) references person (workspace_id, id),
        foreign key (workspace_id, done_by) references person (workspace_id, id),
        check ((state = 'done') = (done_at is not null)),
        check (schedule_id is null or nominal_date is not null),
        constraint task_made_once unique (workspace_id, schedule_id, nominal_date, step_key, head)
      );
      create index task_by_due on task (workspace_id, due_on);
      create index task_by_person on task (workspace_id, assignee_id, due_on);
      create index task_unfinished on task (workspace_id, due_on) where state in ('open', 'underWay', 'toCheck');

      create table run (
        workspace_id uuid not null references workspace on delete cascade,
        id uuid not null,
        why text not null check (why in ('daily', 'startup', 'byHand')),
        started_at timestamptz not null,
        milliseconds integer not null,
        made integer not null,
        already integer not null,
        problems jsonb not null,
        primary key (workspace_id, id)
      );

      create table change (
        workspace_id uuid not null references workspace on delete cascade,
        id uuid not null,
        at timestamptz not null,
        actor_id uuid,
        subject text not null check (subject in ('task', 'schedule', 'template')),
        subject_id uuid not null,
        action text not null,
        fields jsonb not null,
        undone_at timestamptz,
        primary key (workspace_id, id),
        foreign key (workspace_id, actor_id) references person (workspace_id, id)
      );
      create index change_by_subject on change (workspace_id, subject_id, at);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      'drop table change, run, task, schedule, template, asset, client, person, holiday, workspace, session, account, setting',
    );
  }
}
