import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Changes that were made in one go name the change that holds them together; deleted tasks are found by their day and schedule. */
export class JoinedChanges1764600000000 implements MigrationInterface {
  readonly name = 'JoinedChanges1764600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table change add joined_id uuid;
      update change set joined_id = whole.id
        from change whole, jsonb_array_elements_text(whole.fields->'changes'->'from') as member (id)
        where whole.subject = 'several' and change.workspace_id = whole.workspace_id and change.id = member.id::uuid;
      update change set fields = fields - 'changes' where subject = 'several';
      create index change_joined on change (workspace_id, joined_id) where joined_id is not null;
      create index change_deleted_of_schedule on change (workspace_id, (fields->'row'->'from'->>'schedule_id'))
        where subject = 'task' and action = 'deleted' and undone_at is null;
      create index change_removed_template on change (workspace_id, at)
        where subject = 'template' and action = 'removed' and undone_at is null;
      create index change_deleted_on_day on change (workspace_id, (fields->'row'->'from'->>'work_on'))
        where subject = 'task' and action = 'deleted' and undone_at is null;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      drop index change_removed_template, change_deleted_on_day, change_deleted_of_schedule, change_joined;
      update change set fields = fields || jsonb_build_object('changes', jsonb_build_object('to', null, 'from',
        (select coalesce(jsonb_agg(member.id order by member.id), '[]') from change member
         where member.workspace_id = change.workspace_id and member.joined_id = change.id)))
        where subject = 'several';
      alter table change drop joined_id;
    `);
  }
}
