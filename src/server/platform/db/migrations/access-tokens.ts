import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Tokens by which programs ask in somebody's name. */
export class AccessTokens1769400000000 implements MigrationInterface {
  readonly name = 'AccessTokens1769400000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table access_token (
        workspace_id uuid not null,
        id uuid not null,
        person_id uuid not null,
        name text not null,
        scope text not null,
        digest text not null,
        ends_on date,
        made_at timestamptz not null,
        used_at timestamptz,
        primary key (workspace_id, id),
        constraint access_token_workspace_id_fkey foreign key (workspace_id) references workspace (id) on delete cascade,
        constraint access_token_workspace_id_person_id_fkey foreign key (workspace_id, person_id) references person (workspace_id, id) on delete cascade,
        constraint access_token_scope_check check (scope in ('read', 'work', 'plan')),
        constraint access_token_digest unique (digest)
      );
      create index access_token_of_person on access_token (workspace_id, person_id, id);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop table access_token');
  }
}
