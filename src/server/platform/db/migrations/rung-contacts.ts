import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Whether a contact was ever rung stands with them, kept by the database: those who never were are found without a look at the
 * many who were.
 */
export class RungContacts1769600000000 implements MigrationInterface {
  readonly name = 'RungContacts1769600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table contact add is_rung boolean;
      update contact set is_rung = exists (select from call_standing s where s.workspace_id = contact.workspace_id
        and s.contact_id = contact.id and s.last_rung_on is not null);
      alter table contact alter is_rung set not null;
      create index contact_never_rung on contact (workspace_id, id) where not is_rung and telephone <> '';

      -- A contact is written anew with its client, under the same id.
      create function contact_is_rung () returns trigger language plpgsql as $$
      begin
        new.is_rung := exists (select from call_standing s where s.workspace_id = new.workspace_id and s.contact_id = new.id
          and s.last_rung_on is not null);
        return new;
      end $$;
      create trigger contact_is_rung before insert on contact for each row execute function contact_is_rung();
      create function contact_was_rung () returns trigger language plpgsql as $$
      declare
        of call_standing := case when tg_op = 'DELETE' then old else new end;
        is_so boolean := tg_op <> 'DELETE' and of.last_rung_on is not null;
      begin
        update contact set is_rung = is_so where workspace_id = of.workspace_id and id = of.contact_id and is_rung <> is_so;
        return null;
      end $$;
      create trigger contact_was_rung after insert or update of last_rung_on or delete on call_standing
        for each row execute function contact_was_rung();
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      drop trigger contact_was_rung on call_standing;
      drop function contact_was_rung();
      drop trigger contact_is_rung on contact;
      drop function contact_is_rung();
      alter table contact drop is_rung;
    `);
  }
}
