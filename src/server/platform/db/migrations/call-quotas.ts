import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Quotas of calls, the lists of a day that are made from them, and what is known of the calls to a contact. */
export class CallQuotas1768400000000 implements MigrationInterface {
  readonly name = 'CallQuotas1768400000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table call_quota (
        workspace_id uuid not null constraint call_quota_workspace_id_fkey references workspace (id) on delete cascade,
        id uuid not null,
        version integer not null,
        name text not null,
        starts_on date not null,
        ends_on date,
        pauses jsonb not null,
        terms jsonb not null,
        made_on date,
        primary key (workspace_id, id)
      );

      create table call_list (
        workspace_id uuid not null constraint call_list_workspace_id_fkey references workspace (id) on delete cascade,
        id uuid not null,
        quota_id uuid not null,
        person_id uuid not null,
        list_on date not null,
        wanted integer not null,
        made_at timestamptz not null,
        primary key (workspace_id, id),
        constraint call_list_once unique (workspace_id, quota_id, person_id, list_on),
        constraint call_list_workspace_id_quota_id_fkey foreign key (workspace_id, quota_id) references call_quota (workspace_id, id),
        constraint call_list_workspace_id_person_id_fkey foreign key (workspace_id, person_id) references person (workspace_id, id)
      );
      create index call_list_by_person on call_list (workspace_id, person_id, list_on);

      create table call (
        workspace_id uuid not null constraint call_workspace_id_fkey references workspace (id) on delete cascade,
        id uuid not null,
        version integer not null,
        list_id uuid not null,
        list_on date not null,
        place integer not null,
        contact_id uuid not null,
        client_id uuid not null,
        why jsonb not null,
        state text not null,
        number text not null,
        outcome jsonb,
        note text not null,
        rung_at timestamptz,
        rung_by uuid,
        call_back jsonb,
        standing_before jsonb,
        primary key (workspace_id, id),
        constraint call_state_check check (state in ('open', 'rung', 'carried', 'dropped')),
        constraint call_workspace_id_list_id_fkey foreign key (workspace_id, list_id) references call_list (workspace_id, id),
        constraint call_workspace_id_client_id_fkey foreign key (workspace_id, client_id) references client (workspace_id, id),
        constraint call_workspace_id_rung_by_fkey foreign key (workspace_id, rung_by) references person (workspace_id, id)
      );
      create index call_by_list on call (workspace_id, list_id, place);
      create index call_open on call (workspace_id, list_on) where state = 'open';
      create index call_by_contact on call (workspace_id, contact_id, list_on);
      create index call_by_client on call (workspace_id, client_id);
      -- Nobody stands on two lists of one day.
      create unique index call_once_a_day on call (workspace_id, list_on, contact_id);

      create table call_standing (
        workspace_id uuid not null constraint call_standing_workspace_id_fkey references workspace (id) on delete cascade,
        contact_id uuid not null,
        last_rung_on date,
        tries integer not null,
        again_on date,
        alone_until date,
        call_back_on date,
        call_back_at text,
        call_back_by uuid,
        call_back_quota uuid,
        is_never_called boolean not null,
        wrong_number text,
        primary key (workspace_id, contact_id)
      );
      create index call_standing_promised on call_standing (workspace_id, call_back_quota, call_back_on) where call_back_on is not null;

      alter table workspace add column outcomes jsonb not null default
        '[{"key":"reached","name":"reached","isReached":true,"follows":{"kind":"rests"}},{"key":"no-answer","name":"no answer","isReached":false,"follows":{"kind":"triedAgain","workingDays":3,"tries":4}},{"key":"call-back","name":"call back","isReached":true,"follows":{"kind":"callBack"}},{"key":"declined","name":"not interested","isReached":true,"follows":{"kind":"leftAlone","days":180}},{"key":"wrong-number","name":"wrong number","isReached":false,"follows":{"kind":"wrongNumber"}},{"key":"never","name":"do not call","isReached":true,"follows":{"kind":"neverCalled"}}]';
      alter table change drop constraint change_subject_check;
      alter table change add constraint change_subject_check check (subject in ('task', 'schedule', 'template', 'workspace',
        'person', 'leave', 'client', 'asset', 'bringIn', 'file', 'letter', 'notice', 'plan', 'onPlan', 'quota', 'call', 'several'));
      alter table workspace alter column outcomes drop default;
      alter table mail drop constraint mail_kind_check;
      alter table mail add constraint mail_kind_check
        check (kind in ('invitation', 'password', 'address', 'notice', 'task', 'code', 'calls'));
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      delete from mail where kind = 'calls';
      alter table mail drop constraint mail_kind_check;
      alter table mail add constraint mail_kind_check
        check (kind in ('invitation', 'password', 'address', 'notice', 'task', 'code'));
      delete from change where subject in ('quota', 'call');
      alter table change drop constraint change_subject_check;
      alter table change add constraint change_subject_check check (subject in ('task', 'schedule', 'template', 'workspace',
        'person', 'leave', 'client', 'asset', 'bringIn', 'file', 'letter', 'notice', 'plan', 'onPlan', 'several'));
      alter table workspace drop column outcomes;
      drop table call_standing;
      drop table call;
      drop table call_list;
      drop table call_quota;
    `);
  }
}
