import type { MigrationInterface, QueryRunner } from 'typeorm';

/** All that somebody is told of, by the bell or by mail; what there is to tell is noted by the database itself. */
export class MessagesTold1768700000000 implements MigrationInterface {
  readonly name = 'MessagesTold1768700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table bell_line rename to message;
      alter table message rename constraint bell_line_pkey to message_pkey;
      alter table message rename constraint bell_line_workspace_id_fkey to message_workspace_id_fkey;
      alter table message rename constraint bell_line_workspace_id_person_id_fkey to message_workspace_id_person_id_fkey;
      alter table message rename constraint bell_line_workspace_id_task_id_fkey to message_workspace_id_task_id_fkey;
      alter table message rename constraint bell_line_workspace_id_by_fkey to message_workspace_id_by_fkey;
      -- A line about several outlives the first of them.
      alter table message drop constraint message_workspace_id_task_id_fkey, add constraint message_workspace_id_task_id_fkey
        foreign key (workspace_id, task_id) references task (workspace_id, id) on delete set null (task_id);
      alter index bell_line_of_task rename to message_of_task;
      drop index bell_line_of_person;
      drop index bell_line_unread;
      alter table message drop constraint bell_line_kind_check;
      alter table message
        alter task_id drop not null,
        alter by drop not null,
        add side text not null default 'mine',
        add title text not null default '',
        add path text,
        add here boolean not null default true,
        add mail text not null default 'no',
        add mail_at timestamptz;
      update message set title = task.title,
          text = (select who.name from person who where who.workspace_id = message.workspace_id and who.id = message.by)
            || case when kind = 'nudge' then ' nudges you' else ' named you' end || case when message.text = '' then '' else ': ' || message.text end,
          kind = 'named'
        from task where task.workspace_id = message.workspace_id and task.id = message.task_id;
      alter table message
        alter side drop default, alter title drop default, alter here drop default, alter mail drop default,
        add constraint message_kind_check check (kind in ('new', 'reminder', 'soon', 'late', 'hands', 'moved', 'held', 'check', 'finished',
          'nobody', 'asked', 'named', 'run', 'mail')),
        add constraint message_side_check check (side in ('mine', 'gave')),
        add constraint message_mail_check check (mail in ('undecided', 'no', 'waits', 'sent')),
        add constraint message_mail_when check ((mail = 'waits') = (mail_at is not null));
      create index message_of_person on message (workspace_id, person_id, id);
      create index message_unread on message (workspace_id, person_id) where here and read_at is null;
      create index message_to_mail on message (workspace_id, mail, mail_at) where mail in ('undecided', 'waits');

      alter table summary_wish rename to message_wish;
      alter table message_wish rename constraint summary_wish_pkey to message_wish_pkey;
      alter table message_wish rename constraint summary_wish_workspace_id_fkey to message_wish_workspace_id_fkey;
      alter table message_wish rename constraint summary_wish_workspace_id_person_id_fkey to message_wish_workspace_id_person_id_fkey;
      alter table message_wish rename wish to summary;
      alter table message_wish add hears jsonb, add quiet jsonb;

      -- How often there was something to tell, whether it was told or not.
      create table message_count (
        workspace_id uuid not null references workspace (id) on delete cascade,
        person_id uuid not null,
        on_day date not null,
        side text not null,
        kind text not null,
        times integer not null,
        primary key (workspace_id, person_id, on_day, side, kind),
        foreign key (workspace_id, person_id) references person (workspace_id, id) on delete cascade
      );
      -- What was told of a task that comes with the time: once for each instant.
      create table told_once (
        workspace_id uuid not null references workspace (id) on delete cascade,
        task_id uuid not null,
        kind text not null,
        at timestamptz not null,
        primary key (workspace_id, task_id, kind, at),
        foreign key (workspace_id, task_id) references task (workspace_id, id) on delete cascade
      );
      create index told_once_by_age on told_once (at);
      -- Until when all that comes with the time has been told.
      create table told_to (
        workspace_id uuid primary key references workspace (id) on delete cascade,
        at timestamptz not null
      );

      -- What is to be told: noted with what was done, in the same transaction, and gone once it is told.
      create table untold (
        workspace_id uuid not null references workspace (id) on delete cascade,
        id bigint generated always as identity,
        subject text not null,
        subject_id uuid not null,
        by_id uuid,
        before jsonb,
        after jsonb,
        primary key (workspace_id, id)
      );
      create function note_untold (uuid, text, uuid, jsonb, jsonb) returns void language sql as $$
        insert into untold (workspace_id, subject, subject_id, by_id, before, after)
        -- Tasks of a workspace that is itself taken out go with it.
        select workspace.id, $2, $3, nullif(current_setting('jolly.by', true), '')::uuid, $4, $5 from workspace where workspace.id = $1
      $$;
      create function task_facts (t task) returns jsonb language sql stable as $$
        select jsonb_build_object('title', t.title, 'assigneeId', t.assignee_id, 'dueOn', t.due_on, 'state', t.state,
          'heldReason', t.held_reason, 'heldUntil', t.held_until, 'sentBack', jsonb_array_length(t.sent_back),
          'sentBackReason', t.sent_back->-1->>'reason', 'doneByContact', t.done_by_contact)
      $$;
      create function note_task () returns trigger language plpgsql as $$
      begin
        if tg_op = 'INSERT' then perform note_untold(new.workspace_id, 'task', new.id, null, task_facts(new));
        elsif tg_op = 'UPDATE' then perform note_untold(new.workspace_id, 'task', new.id, task_facts(old), task_facts(new));
        else perform note_untold(old.workspace_id, 'task', old.id, task_facts(old), null);
        end if;
        return null;
      end $$;
      -- What a run makes is work that was planned long before: it stands in the lists.
      create trigger note_made after insert on task for each row
        when (new.run_id is null and new.assignee_id is not null and new.state in ('open', 'underWay')) execute function note_task();
      create trigger note_changed after update of assignee_id, due_on, state, held_reason, held_until, sent_back on task for each row
        when (old.assignee_id is distinct from new.assignee_id or old.due_on <> new.due_on or old.state <> new.state
          or old.held_reason is distinct from new.held_reason or old.held_until is distinct from new.held_until or old.sent_back <> new.sent_back)
        execute function note_task();
      create trigger note_gone after delete on task for each row
        when (old.assignee_id is not null and old.state in ('open', 'underWay')) execute function note_task();

      create function note_state () returns trigger language plpgsql as $$
      begin
        perform note_untold(new.workspace_id, tg_argv[0], new.id, case when tg_op = 'UPDATE' then to_jsonb(old) end, to_jsonb(new));
        return null;
      end $$;
      create trigger note_leave_made after insert on leave for each row execute function note_state('leave');
      create trigger note_leave_decided after update of state on leave for each row
        when (old.state <> new.state) execute function note_state('leave');
      create trigger note_swap_made after insert on turn_swap for each row execute function note_state('swap');
      create trigger note_swap_decided after update of state on turn_swap for each row
        when (old.state <> new.state) execute function note_state('swap');

      -- What the run before has left out as well was told then.
      create function note_run () returns trigger language plpgsql as $$
      begin
        if exists (
          select from (
            select r.problems, r.left_out from run r where r.workspace_id = new.workspace_id and r.state = 'done' and r.id <> new.id
              and r.why <> 'fill' and r.started_at <= new.started_at order by r.started_at desc, r.id desc limit 1
          ) as last where last.problems = new.problems and last.left_out = new.left_out
        ) then return null; end if;
        perform note_untold(new.workspace_id, 'run', new.id, null, jsonb_build_object('why', new.why,
          'problems', jsonb_array_length(new.problems), 'leftOut', jsonb_array_length(new.left_out)));
        return null;
      end $$;
      create trigger note_run_made after insert on run for each row
        when (new.state = 'done' and (new.problems <> '[]' or new.left_out <> '[]')) execute function note_run();
      create trigger note_run_ended after update of state on run for each row
        when (old.state = 'running' and new.state = 'done' and (new.problems <> '[]' or new.left_out <> '[]')) execute function note_run();

      create function note_refused () returns trigger language plpgsql as $$
      begin
        perform note_untold(new.workspace_id, 'mail', new.id, null, jsonb_build_object('toName', new.to_name, 'toEmail', new.to_email,
          'subject', new.subject, 'kind', new.kind, 'trouble', new.trouble));
        return null;
      end $$;
      create trigger note_mail_refused after update of state on mail for each row
        when (old.state <> 'refused' and new.state = 'refused') execute function note_refused();

      alter table workspace add escalation jsonb not null default '{"own": 1, "answering": 4, "deputy": 24}';
      alter table workspace add hearing jsonb not null default '{}';
      alter table workspace alter escalation drop default, alter hearing drop default;

      alter table mail drop constraint mail_kind_check;
      alter table mail add constraint mail_kind_check
        check (kind in ('invitation', 'password', 'address', 'notice', 'task', 'code', 'calls', 'summary', 'message'));
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table workspace drop escalation, drop hearing;
      delete from mail where kind = 'message';
      alter table mail drop constraint mail_kind_check;
      alter table mail add constraint mail_kind_check
        check (kind in ('invitation', 'password', 'address', 'notice', 'task', 'code', 'calls', 'summary'));
      drop trigger note_mail_refused on mail;
      drop trigger note_run_ended on run;
      drop trigger note_run_made on run;
      drop trigger note_swap_decided on turn_swap;
      drop trigger note_swap_made on turn_swap;
      drop trigger note_leave_decided on leave;
      drop trigger note_leave_made on leave;
      drop trigger note_gone on task;
      drop trigger note_changed on task;
      drop trigger note_made on task;
      drop function note_refused();
      drop function note_run();
      drop function note_state();
      drop function note_task();
      drop function task_facts(task);
      drop function note_untold(uuid, text, uuid, jsonb, jsonb);
      drop table untold;
      drop table told_to;
      drop table told_once;
      drop table message_count;

      alter table message_wish drop hears, drop quiet;
      alter table message_wish rename summary to wish;
      alter table message_wish rename constraint message_wish_workspace_id_person_id_fkey to summary_wish_workspace_id_person_id_fkey;
      alter table message_wish rename constraint message_wish_workspace_id_fkey to summary_wish_workspace_id_fkey;
      alter table message_wish rename constraint message_wish_pkey to summary_wish_pkey;
      alter table message_wish rename to summary_wish;

      drop index message_to_mail;
      drop index message_unread;
      drop index message_of_person;
      -- What the table could not hold before goes.
      delete from message where kind <> 'named' or task_id is null or by is null;
      alter table message
        drop constraint message_mail_when, drop constraint message_mail_check, drop constraint message_side_check, drop constraint message_kind_check;
      update message set kind = 'name';
      alter table message
        drop side, drop title, drop path, drop here, drop mail, drop mail_at,
        alter task_id set not null, alter by set not null,
        add constraint bell_line_kind_check check (kind in ('nudge', 'name'));
      alter index message_of_task rename to bell_line_of_task;
      alter table message rename constraint message_workspace_id_by_fkey to bell_line_workspace_id_by_fkey;
      alter table message drop constraint message_workspace_id_task_id_fkey, add constraint bell_line_workspace_id_task_id_fkey
        foreign key (workspace_id, task_id) references task (workspace_id, id) on delete cascade;
      alter table message rename constraint message_workspace_id_person_id_fkey to bell_line_workspace_id_person_id_fkey;
      alter table message rename constraint message_workspace_id_fkey to bell_line_workspace_id_fkey;
      alter table message rename constraint message_pkey to bell_line_pkey;
      alter table message rename to bell_line;
      create index bell_line_of_person on bell_line (workspace_id, person_id, id);
      create index bell_line_unread on bell_line (workspace_id, person_id) where read_at is null;
    `);
  }
}
