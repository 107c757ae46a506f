import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Clients have contacts, a usual person and fields of the workspace's own; assets stand at sites, and both are archived. */
export class ClientRecords1766000000000 implements MigrationInterface {
  readonly name = 'ClientRecords1766000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table workspace add client_fields jsonb, add asset_fields jsonb;
      update workspace set client_fields = '[]', asset_fields = '[]';
      alter table workspace alter client_fields set not null, alter asset_fields set not null;

      alter table client add address text, add usual_person_id uuid, add notes text, add fields jsonb, add version integer,
        add archived_at timestamptz;
      update client set address = '', notes = '', fields = '{}', version = 1;
      alter table client alter address set not null, alter notes set not null, alter fields set not null, alter version set not null,
        add constraint client_workspace_id_usual_person_id_fkey foreign key (workspace_id, usual_person_id) references person;
      create index client_in_use_by_words on client (workspace_id, words, id) where archived_at is null;

      alter table asset add is_site boolean, add site_id uuid, add fields jsonb, add serves_from date, add serves_until date,
        add version integer, add archived_at timestamptz;
      update asset set is_site = false, fields = '{}', version = 1;
      alter table asset alter is_site set not null, alter fields set not null, alter version set not null,
        add constraint asset_workspace_id_site_id_fkey foreign key (workspace_id, site_id) references asset,
        add constraint asset_serves_check check (serves_from <= serves_until);
      create index asset_by_site on asset (workspace_id, site_id) where site_id is not null;

      create table contact (
        workspace_id uuid not null constraint contact_workspace_id_fkey references workspace on delete cascade,
        id uuid not null,
        client_id uuid not null,
        position integer not null,
        name text not null,
        role text not null,
        email text not null,
        telephone text not null,
        prefers text constraint contact_prefers_check check (prefers in ('mail', 'telephone', 'post')),
        found_by text not null,
        primary key (workspace_id, id),
        constraint contact_workspace_id_client_id_fkey foreign key (workspace_id, client_id) references client on delete cascade
      );
      create index contact_by_client on contact (workspace_id, client_id, position);
      -- A telephone number is found by its digits too, however they are spaced.
      create function contact_found_by() returns trigger language plpgsql as $$
      begin
        new.found_by := plain_words(concat_ws(' ', new.name, new.email, new.telephone, regexp_replace(new.telephone, '\\D', '', 'g')));
        return new;
      end $$;
      create trigger contact_found_by before insert or update on contact for each row execute function contact_found_by();
      create index contact_found_by on contact using gin ((' ' || found_by) gin_trgm_ops);

      alter table change drop constraint change_subject_check,
        add constraint change_subject_check
          check (subject in ('task', 'schedule', 'template', 'workspace', 'person', 'client', 'asset', 'file', 'several'))
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      delete from change where subject in ('client', 'asset');
      alter table change drop constraint change_subject_check,
        add constraint change_subject_check
          check (subject in ('task', 'schedule', 'template', 'workspace', 'person', 'file', 'several'));
      drop table contact;
      drop function contact_found_by();
      alter table asset drop is_site, drop site_id, drop fields, drop serves_from, drop serves_until, drop version, drop archived_at;
      alter table client drop address, drop usual_person_id, drop notes, drop fields, drop version, drop archived_at;
      alter table workspace drop client_fields, drop asset_fields
    `);
  }
}
