import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What contacts answer by mail, whom a mail was for and what it was about, and addresses that take no more mails. */
export class MailAnswers1768900000000 implements MigrationInterface {
  readonly name = 'MailAnswers1768900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table mail
        add answer_key text,
        add client_id uuid,
        add task_id uuid,
        add author_id uuid,
        add constraint mail_workspace_id_client_id_fkey foreign key (workspace_id, client_id) references client (workspace_id, id),
        add constraint mail_workspace_id_task_id_fkey foreign key (workspace_id, task_id) references task (workspace_id, id) on delete set null (task_id),
        add constraint mail_workspace_id_author_id_fkey foreign key (workspace_id, author_id) references person (workspace_id, id);
      update mail set answer_key = replace(gen_random_uuid()::text, '-', '');
      alter table mail alter answer_key set not null, add constraint mail_answer_key unique (answer_key);
      -- By what an answer says it answers.
      create index mail_by_id on mail (id);
      create index mail_of_task on mail (workspace_id, task_id) where task_id is not null;
      create index mail_of_client on mail (workspace_id, client_id) where client_id is not null;

      create table answer (
        workspace_id uuid not null,
        id uuid not null,
        mail_id uuid,
        task_id uuid,
        client_id uuid,
        kind text not null,
        from_name text not null,
        from_email text not null,
        subject text not null,
        text text not null,
        message_id text not null,
        at timestamptz not null,
        away_at timestamptz,
        primary key (workspace_id, id),
        constraint answer_workspace_id_fkey foreign key (workspace_id) references workspace (id) on delete cascade,
        constraint answer_workspace_id_mail_id_fkey foreign key (workspace_id, mail_id) references mail (workspace_id, id) on delete set null (mail_id),
        constraint answer_workspace_id_task_id_fkey foreign key (workspace_id, task_id) references task (workspace_id, id) on delete set null (task_id),
        constraint answer_workspace_id_client_id_fkey foreign key (workspace_id, client_id) references client (workspace_id, id),
        constraint answer_kind_check check (kind in ('person', 'automatic')),
        constraint answer_message_id unique (workspace_id, message_id)
      );
      create index answer_of_task on answer (workspace_id, task_id, id) where task_id is not null;
      create index answer_of_client on answer (workspace_id, client_id, id) where client_id is not null;
      create index answer_of_mail on answer (workspace_id, mail_id);
      create index answer_to_place on answer (workspace_id, id) where kind = 'person' and client_id is null and away_at is null;
      create index answer_automatic on answer (workspace_id, id) where kind = 'automatic';
      create table answer_part (
        workspace_id uuid not null,
        id uuid not null,
        answer_id uuid not null,
        position integer not null,
        name text not null,
        size integer not null,
        bytes bytea,
        file_id uuid,
        primary key (workspace_id, id),
        constraint answer_part_workspace_id_fkey foreign key (workspace_id) references workspace (id) on delete cascade,
        constraint answer_part_workspace_id_answer_id_fkey foreign key (workspace_id, answer_id) references answer (workspace_id, id) on delete cascade,
        constraint answer_part_by_answer unique (workspace_id, answer_id, position)
      );
      create table mail_stop (
        workspace_id uuid not null,
        id uuid not null,
        email text not null,
        name text not null,
        client_id uuid,
        at timestamptz not null,
        primary key (workspace_id, id),
        constraint mail_stop_workspace_id_fkey foreign key (workspace_id) references workspace (id) on delete cascade,
        constraint mail_stop_workspace_id_client_id_fkey foreign key (workspace_id, client_id) references client (workspace_id, id),
        constraint mail_stop_email unique (workspace_id, email)
      );
      create trigger note_answer_made after insert on answer for each row when (new.kind = 'person') execute function note_state('answer');
      create trigger note_answer_placed after update of client_id on answer for each row
        when (old.client_id is null and new.client_id is not null) execute function note_state('answer');
      create trigger note_mail_stopped after insert on mail_stop for each row execute function note_state('stopped');
      create or replace function note_refused () returns trigger language plpgsql as $$
      begin
        perform note_untold(new.workspace_id, 'mail', new.id, null, jsonb_build_object('toName', new.to_name, 'toEmail', new.to_email,
          'subject', new.subject, 'kind', new.kind, 'trouble', new.trouble, 'authorId', new.author_id, 'clientId', new.client_id));
        return null;
      end $$;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create or replace function note_refused () returns trigger language plpgsql as $$
      begin
        perform note_untold(new.workspace_id, 'mail', new.id, null, jsonb_build_object('toName', new.to_name, 'toEmail', new.to_email,
          'subject', new.subject, 'kind', new.kind, 'trouble', new.trouble));
        return null;
      end $$;
      delete from untold where subject in ('answer', 'stopped');
      drop table mail_stop;
      drop table answer_part;
      drop table answer;
      drop index mail_by_id;
      alter table mail drop answer_key, drop client_id, drop task_id, drop author_id;
    `);
  }
}
