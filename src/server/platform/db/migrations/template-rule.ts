import type { MigrationInterface, QueryRunner } from 'typeorm';

const NOBODY = `jsonb_build_object('v', 1, 'kind', 'nobody')`;
const GIVEN_TO = (id: string) =>
  `case when ${id} is null then ${NOBODY} else jsonb_build_object('v', 1, 'kind', 'person', 'personId', ${id}, 'daysOffToo', true, 'cover', 'deputy') end`;
const BOTH = (of: (path: string) => string) => `jsonb_build_object('from', ${of('from')}, 'to', ${of('to')})`;
const PERSON = (rule: string) => `case when ${rule}->>'kind' = 'person' then ${rule}->>'personId' end`;

/** Templates have a rule of who does it, where they named one person; what was, stays so. */
export class TemplateRule1767000000000 implements MigrationInterface {
  readonly name = 'TemplateRule1767000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table template add assignment jsonb;
      update template set assignment = ${GIVEN_TO('assignee_id')};
      alter table template alter assignment set not null, drop assignee_id;
      update change set fields = (fields - 'assigneeId') || jsonb_build_object('assignment', ${BOTH((end) => GIVEN_TO(`(fields->'assigneeId'->>'${end}')`))})
      where subject = 'template' and fields ? 'assigneeId'
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table template add assignee_id uuid;
      alter table template add constraint template_workspace_id_assignee_id_fkey
        foreign key (workspace_id, assignee_id) references person (workspace_id, id);
      update template set assignee_id = (${PERSON('assignment')})::uuid;
      update change set fields = (fields - 'assignment') || jsonb_build_object('assigneeId', ${BOTH((end) => PERSON(`(fields->'assignment'->'${end}')`))})
      where subject = 'template' and fields ? 'assignment';
      alter table template drop assignment
    `);
  }
}
