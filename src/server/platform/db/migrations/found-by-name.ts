import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Clients and assets are found by words of their names, and work by whom and what it is for and when it was done. Plain words are written as `plainWords` of the core writes them: small letters, one apostrophe, without the
 * stops around a word.
 */
export class FoundByName1765200000000 implements MigrationInterface {
  readonly name = 'FoundByName1765200000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create extension if not exists pg_trgm;
      create function plain_words(text) returns text language sql immutable parallel safe strict as $$
        select btrim(regexp_replace(
          regexp_replace(lower(replace($1, '’', '''')), '(?<=^|\\s)[,;.(“"]+|[,;.)”"!?]+(?=\\s|$)', '', 'g'),
          '\\s+', ' ', 'g'))
      $$;
      create function client_words() returns trigger language plpgsql as $$
      begin
        new.words := plain_words(new.name);
        return new;
      end $$;
      create function asset_words() returns trigger language plpgsql as $$
      begin
        new.words := plain_words(new.name);
        new.found_by := plain_words(concat_ws(' ', new.name, new.place, new.tag));
        return new;
      end $$;
      alter table client add column words text;
      alter table asset add column words text, add column found_by text;
      create trigger client_words before insert or update on client for each row execute function client_words();
      create trigger asset_words before insert or update on asset for each row execute function asset_words();
      update client set name = name;
      update asset set name = name;
      alter table client alter column words set not null;
      alter table asset alter column words set not null, alter column found_by set not null;
      create index client_by_words on client (workspace_id, words text_pattern_ops);
      create index client_with_words on client using gin ((' ' || words) gin_trgm_ops);
      create index asset_by_words on asset (workspace_id, words text_pattern_ops);
      create index asset_with_words on asset using gin ((' ' || words) gin_trgm_ops);
      create index asset_found_by on asset using gin ((' ' || found_by) gin_trgm_ops);
      create index asset_by_client on asset (workspace_id, client_id);
      create index schedule_by_client on schedule (workspace_id, client_id) where client_id is not null;
      create index schedule_by_asset on schedule (workspace_id, asset_id) where asset_id is not null;
      create index task_by_client on task (workspace_id, client_id, due_on) where client_id is not null;
      create index task_by_asset on task (workspace_id, asset_id, due_on) where asset_id is not null;
      create index task_by_done on task (workspace_id, done_at) where done_at is not null;
      create index task_over_by_day on task (workspace_id, greatest(nominal_date, work_on))
        where step_key = '' and state in ('done', 'skipped', 'lapsed');
      create index task_done_by_person on task (workspace_id, assignee_id, done_at) where done_at is not null;
      create index task_unfinished_of on task (workspace_id, assignee_id, least(starts_on, appears_on))
        where state in ('open', 'underWay', 'toCheck');
      create index task_unfinished_of_template on task (workspace_id, template_id)
        where state in ('open', 'underWay', 'toCheck');
      drop index task_by_due;
      create index task_by_due on task (workspace_id, due_on) include (state, estimate_minutes, assignee_id);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      drop index task_by_due;
      create index task_by_due on task (workspace_id, due_on);
      drop index task_unfinished_of_template, task_unfinished_of, task_done_by_person, task_over_by_day, task_by_done, task_by_asset, task_by_client, schedule_by_asset, schedule_by_client,
        asset_by_client, asset_found_by, asset_with_words, asset_by_words, client_with_words, client_by_words;
      drop trigger asset_words on asset;
      drop trigger client_words on client;
      alter table asset drop column words, drop column found_by;
      alter table client drop column words;
      drop function asset_words();
      drop function client_words();
      drop function plain_words(text);
    `);
  }
}
