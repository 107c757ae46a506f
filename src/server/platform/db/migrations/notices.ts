import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Letters that announce visits, and the notices that are written from them. What a notice says can't be changed once it is
 * written: only that it went, and when. Mails may have files with them.
 */
export class Notices1768100000000 implements MigrationInterface {
  readonly name = 'Notices1768100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      update workspace set visits = visits || '{"letterhead": "", "answering": ""}' || jsonb_build_object('ways',
        (select coalesce(jsonb_agg(way || jsonb_build_object('kind', case
            when way->>'name' ~* 'mail' then 'mail' when way->>'name' ~* 'post' then 'post'
            when way->>'name' ~* 'hand' then 'hand' else 'other' end) order by at), '[]')
         from jsonb_array_elements(visits->'ways') with ordinality as of (way, at)));

      create table notice_letter (
        workspace_id uuid not null constraint notice_letter_workspace_id_fkey references workspace (id) on delete cascade,
        id uuid not null,
        name text not null,
        work_type text,
        language text not null,
        subject text not null,
        body jsonb not null,
        version integer not null,
        deleted_at timestamptz,
        primary key (workspace_id, id)
      );

      create table notice (
        workspace_id uuid not null constraint notice_workspace_id_fkey references workspace (id) on delete cascade,
        id uuid not null,
        batch_id uuid not null,
        task_id uuid not null,
        client_id uuid not null,
        letter_name text,
        way text,
        reason text not null,
        visit_on date not null,
        page jsonb,
        issued_on date not null,
        sent_on date,
        mail_id uuid,
        replaces_id uuid,
        written_at timestamptz not null,
        written_by uuid,
        primary key (workspace_id, id),
        constraint notice_workspace_id_client_id_fkey foreign key (workspace_id, client_id) references client (workspace_id, id),
        constraint notice_workspace_id_written_by_fkey foreign key (workspace_id, written_by) references person (workspace_id, id),
        constraint notice_page_check check ((way is null) = (page is null) and (way is null) = (letter_name is null))
      );
      create index notice_by_task on notice (workspace_id, task_id, id);
      create index notice_by_client on notice (workspace_id, client_id, id);
      create index notice_by_batch on notice (workspace_id, batch_id);
      create index notice_sent on notice (workspace_id, sent_on, id) where sent_on is not null;
      create index task_to_visit on task (workspace_id, work_on)
        where client_id is not null and state in ('open', 'underWay');

      create index change_notice_gone on change (workspace_id, at, id)
        where subject = 'notice' and action in ('sent', 'mailed') and undone_at is null;

      create function notice_stays() returns trigger language plpgsql as $$
        begin
          if (to_jsonb(new) - '{sent_on,mail_id,client_id,written_by}'::text[])
             is distinct from (to_jsonb(old) - '{sent_on,mail_id,client_id,written_by}'::text[]) then
            raise exception 'a notice that is written stays as it is';
          end if;
          return new;
        end $$;
      create trigger notice_stays before update on notice for each row execute function notice_stays();

      create table mail_part (
        workspace_id uuid not null constraint mail_part_workspace_id_fkey references workspace (id) on delete cascade,
        id uuid not null,
        mail_id uuid not null,
        position integer not null,
        name text not null,
        media_type text not null,
        bytes bytea not null,
        primary key (workspace_id, id),
        constraint mail_part_by_mail unique (workspace_id, mail_id, position),
        constraint mail_part_workspace_id_mail_id_fkey foreign key (workspace_id, mail_id) references mail (workspace_id, id) on delete cascade
      );
      alter table mail drop constraint mail_kind_check;
      alter table mail add constraint mail_kind_check check (kind in ('invitation', 'password', 'address', 'notice'));
      alter table change drop constraint change_subject_check;
      alter table change add constraint change_subject_check check (subject in ('task', 'schedule', 'template', 'workspace',
        'person', 'leave', 'client', 'asset', 'bringIn', 'file', 'letter', 'notice', 'several'));
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      delete from change where subject in ('letter', 'notice');
      alter table change drop constraint change_subject_check;
      alter table change add constraint change_subject_check check (subject in ('task', 'schedule', 'template', 'workspace',
        'person', 'leave', 'client', 'asset', 'bringIn', 'file', 'several'));
      drop table mail_part;
      drop index change_notice_gone;
      delete from mail where kind = 'notice';
      alter table mail drop constraint mail_kind_check;
      alter table mail add constraint mail_kind_check check (kind in ('invitation', 'password', 'address'));
      drop table notice;
      drop function notice_stays();
      drop index task_to_visit;
      drop table notice_letter;
      update workspace set visits = (visits - '{letterhead,answering}'::text[]) || jsonb_build_object('ways',
        (select coalesce(jsonb_agg(way - 'kind' order by at), '[]')
         from jsonb_array_elements(visits->'ways') with ordinality as of (way, at)));
    `);
  }
}
