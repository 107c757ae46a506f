import type { MigrationInterface, QueryRunner } from 'typeorm';

/** People have an access level, several roles, a team, hours by weekday, and a time in which they work here. */
export class PeopleAndAccess1765800000000 implements MigrationInterface {
  readonly name = 'PeopleAndAccess1765800000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table workspace add roles jsonb, add teams jsonb;
      alter table person add access text, add roles jsonb, add team text, add email text, add telephone text,
        add weeks jsonb, add weeks_from date, add works_from date, add works_until date, add version integer;
      -- A Monday long past: before this everybody had one week, which it does not matter where it begins.
      update person set version = 1, access = case when is_manager then 'manager' else 'member' end,
        roles = case when role = '' then '[]' else jsonb_build_array(role) end, telephone = '', weeks_from = '2024-01-01',
        email = (select account.email from account where account.id = account_id),
        weeks = jsonb_build_array((
          select jsonb_agg(case when workspace.working_weekdays @> to_jsonb(day) then capacity_minutes else 0 end order by day)
          from workspace, generate_series(1, 7) as day where workspace.id = workspace_id));
      update workspace set teams = '[]',
        roles = coalesce((select jsonb_agg(distinct role) from person where workspace_id = workspace.id and role <> ''), '[]');
      alter table workspace alter roles set not null, alter teams set not null;
      alter table person alter access set not null, alter roles set not null, alter telephone set not null,
        alter weeks set not null, alter weeks_from set not null, alter version set not null,
        drop role, drop is_manager, drop capacity_minutes,
        add constraint person_access_check check (access in ('manager', 'planner', 'member', 'viewer')),
        add constraint person_weeks_check check (jsonb_array_length(weeks) between 1 and 2),
        add constraint person_works_check check (works_from <= works_until)
    `);
    await runner.query('create unique index person_email on person (workspace_id, lower(email))');
    await runner.query(`
      alter table change drop constraint change_subject_check,
        add constraint change_subject_check
          check (subject in ('task', 'schedule', 'template', 'workspace', 'person', 'file', 'several'))
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`delete from change where subject = 'person'`);
    await runner.query(`
      alter table change drop constraint change_subject_check,
        add constraint change_subject_check
          check (subject in ('task', 'schedule', 'template', 'workspace', 'file', 'several'))
    `);
    await runner.query(`
      drop index person_email;
      alter table person add role text, add is_manager boolean, add capacity_minutes integer;
      update person set role = coalesce(roles->>0, ''), is_manager = access = 'manager',
        capacity_minutes = (select max(day::int) from jsonb_array_elements_text(weeks->0) as day);
      alter table person alter role set not null, alter is_manager set not null, alter capacity_minutes set not null,
        drop access, drop roles, drop team, drop email, drop telephone, drop weeks, drop weeks_from, drop works_from,
        drop works_until, drop version,
        add constraint person_capacity_minutes_check check (capacity_minutes between 0 and 1440);
      alter table workspace drop roles, drop teams
    `);
  }
}
