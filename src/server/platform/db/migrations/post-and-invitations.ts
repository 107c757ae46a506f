import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What leaves by mail, what the stand-in received, and links that are good once. */
export class PostAndInvitations1765900000000 implements MigrationInterface {
  readonly name = 'PostAndInvitations1765900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table mail (
        workspace_id uuid not null constraint mail_workspace_id_fkey references workspace on delete cascade,
        id uuid not null,
        -- What it is sent for: never two for one.
        reason text not null,
        kind text not null constraint mail_kind_check check (kind in ('invitation', 'password', 'address')),
        to_name text not null,
        to_email text not null,
        subject text not null,
        text text not null,
        html text not null,
        is_private boolean not null,
        state text not null constraint mail_state_check check (state in ('waiting', 'sent', 'refused')),
        created_at timestamptz not null,
        tries integer not null,
        try_at timestamptz not null,
        trouble text,
        sent_at timestamptz,
        primary key (workspace_id, id),
        constraint mail_reason unique (workspace_id, reason)
      );
      create index mail_waiting on mail (try_at) where state = 'waiting';
      create index mail_by_state on mail (workspace_id, state, id);
      -- Of the stand-in, which is no part of a workspace: what a mail server outside would have.
      create table received_mail (
        message_id text primary key,
        received_at timestamptz not null,
        times integer not null,
        raw text not null
      );
      create table invitation (
        workspace_id uuid not null constraint invitation_workspace_id_fkey references workspace on delete cascade,
        id uuid not null,
        person_id uuid not null,
        digest text not null constraint invitation_digest unique,
        email text not null,
        sent_at timestamptz not null,
        ends_at timestamptz not null,
        used_at timestamptz,
        withdrawn_at timestamptz,
        primary key (workspace_id, id),
        constraint invitation_workspace_id_person_id_fkey foreign key (workspace_id, person_id) references person on delete cascade
      );
      create unique index invitation_of_person on invitation (workspace_id, person_id) where used_at is null and withdrawn_at is null;
      create table account_link (
        id uuid primary key,
        account_id uuid not null constraint account_link_account_id_fkey references account on delete cascade,
        kind text not null constraint account_link_kind_check check (kind in ('password', 'address')),
        digest text not null constraint account_link_digest unique,
        -- The address that it leads to.
        email text not null,
        ends_at timestamptz not null,
        used_at timestamptz
      );
      create index account_link_by_account on account_link (account_id)
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop table account_link, invitation, received_mail, mail');
  }
}
