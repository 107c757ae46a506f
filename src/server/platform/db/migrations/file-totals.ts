import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How much each workspace keeps in files, counted as they come and go: a quota is asked at every upload. */
export class FileTotals1764800000000 implements MigrationInterface {
  readonly name = 'FileTotals1764800000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table file_total (
        workspace_id uuid primary key references workspace on delete cascade,
        bytes bigint not null
      );
      insert into file_total (workspace_id, bytes)
        select w.id, coalesce((select sum(bytes) from file f where f.workspace_id = w.id), 0) from workspace w;
      create function file_total_follows() returns trigger language plpgsql as $$
      begin
        if tg_op = 'INSERT' then
          insert into file_total as t (workspace_id, bytes)
            select workspace_id, sum(bytes) from new_files group by workspace_id
            on conflict (workspace_id) do update set bytes = t.bytes + excluded.bytes;
        else
          update file_total t set bytes = t.bytes - gone.bytes
            from (select workspace_id, sum(bytes) as bytes from old_files group by workspace_id) gone
            where gone.workspace_id = t.workspace_id;
        end if;
        return null;
      end $$;
      create trigger file_total_added after insert on file
        referencing new table as new_files for each statement execute function file_total_follows();
      create trigger file_total_gone after delete on file
        referencing old table as old_files for each statement execute function file_total_follows();
      create index file_by_uploader on file (workspace_id, uploaded_by, uploaded_at);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      drop index file_by_uploader;
      drop trigger file_total_gone on file;
      drop trigger file_total_added on file;
      drop function file_total_follows();
      drop table file_total;
    `);
  }
}
