import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Schedules, tasks, templates, finished work and calendars can be brought in from files too; what came from a calendar is known again. */
export class BroughtInWork1769900000000 implements MigrationInterface {
  readonly name = 'BroughtInWork1769900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table bring_in drop constraint bring_in_kind_check,
        add constraint bring_in_kind_check check (kind in ('clients', 'people', 'schedules', 'tasks', 'templates', 'history', 'calendar'));
      create table calendar_origin (
        workspace_id uuid not null constraint calendar_origin_workspace_id_fkey references workspace on delete cascade,
        uid text not null,
        hash text not null,
        schedule_id uuid,
        task_id uuid,
        template_id uuid,
        primary key (workspace_id, uid),
        constraint calendar_origin_check check (num_nonnulls(schedule_id, task_id, template_id) = 1),
        constraint calendar_origin_workspace_id_schedule_id_fkey foreign key (workspace_id, schedule_id) references schedule on delete cascade,
        constraint calendar_origin_workspace_id_task_id_fkey foreign key (workspace_id, task_id) references task on delete cascade,
        constraint calendar_origin_workspace_id_template_id_fkey foreign key (workspace_id, template_id) references template on delete cascade
      );
      create index calendar_origin_by_schedule on calendar_origin (workspace_id, schedule_id) where schedule_id is not null;
      create index calendar_origin_by_task on calendar_origin (workspace_id, task_id) where task_id is not null;
      create index calendar_origin_by_template on calendar_origin (workspace_id, template_id) where template_id is not null;
      -- A letter to somebody who is erased says nothing any more; else it stays as it was written.
      create or replace function notice_stays() returns trigger language plpgsql as $$
        begin
          if (to_jsonb(new) - '{sent_on,mail_id,client_id,written_by}'::text[]
               - case when current_setting('jolly.erasing', true) = 'yes' then 'page' else '' end)
             is distinct from (to_jsonb(old) - '{sent_on,mail_id,client_id,written_by}'::text[]
               - case when current_setting('jolly.erasing', true) = 'yes' then 'page' else '' end) then
            raise exception 'a notice that is written stays as it is';
          end if;
          return new;
        end $$
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create or replace function notice_stays() returns trigger language plpgsql as $$
        begin
          if (to_jsonb(new) - '{sent_on,mail_id,client_id,written_by}'::text[])
             is distinct from (to_jsonb(old) - '{sent_on,mail_id,client_id,written_by}'::text[]) then
            raise exception 'a notice that is written stays as it is';
          end if;
          return new;
        end $$;
      drop table calendar_origin;
      delete from bring_in where kind not in ('clients', 'people');
      alter table bring_in drop constraint bring_in_kind_check,
        add constraint bring_in_kind_check check (kind in ('clients', 'people'))
    `);
  }
}
