import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What the look of a task is told from, beside the day on which it is due. */
const SHOWN = 'state, on_time, appears_on, held_until, due_time, zone';

/**
 * How the tasks of a client, an asset or a person look is told from an index of their days alone, in a third of the time; which
 * schedules there are, for what and for whom, from one of theirs. A set that a schedule makes is found by its schedule and
 * date, so the index of sets holds only what was made by hand. A run keeps for how many schedules it made something: that took
 * counting all of its tasks.
 */
export class CoveredTasks1770000000000 implements MigrationInterface {
  readonly name = 'CoveredTasks1770000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      drop index task_by_asset;
      create index task_by_asset on task (workspace_id, asset_id, due_on)
        include (${SHOWN}) where asset_id is not null;
      drop index task_by_client;
      create index task_by_client on task (workspace_id, client_id, due_on)
        include (${SHOWN}) where client_id is not null;
      drop index task_by_due;
      create index task_by_due on task (workspace_id, due_on)
        include (estimate_minutes, assignee_id, ${SHOWN});
      drop index task_by_set;
      create index task_by_set on task (workspace_id, set_id) where schedule_id is null;
      create index task_of_nobody_by_run on task (workspace_id, run_id)
        where run_id is not null and assignee_id is null and offered_to is null;
      drop index schedule_by_template;
      create index schedule_by_template on schedule (workspace_id, template_id) include (id, asset_id, client_id, deleted_at);
      alter table run add schedules integer;
      update run set schedules = coalesce(there.schedules, 0) from run of
        left join (select workspace_id, run_id, count(distinct schedule_id) as schedules from task where run_id is not null group by 1, 2) there
          on there.workspace_id = of.workspace_id and there.run_id = of.id
        where of.workspace_id = run.workspace_id and of.id = run.id;
      alter table run alter schedules set not null;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table run drop schedules;
      drop index schedule_by_template;
      create index schedule_by_template on schedule (workspace_id, template_id);
      drop index task_of_nobody_by_run;
      drop index task_by_set;
      create index task_by_set on task (workspace_id, set_id);
      drop index task_by_due;
      create index task_by_due on task (workspace_id, due_on) include (state, estimate_minutes, assignee_id, on_time, held_until);
      drop index task_by_client;
      create index task_by_client on task (workspace_id, client_id, due_on) where client_id is not null;
      drop index task_by_asset;
      create index task_by_asset on task (workspace_id, asset_id, due_on) where asset_id is not null;
    `);
  }
}
