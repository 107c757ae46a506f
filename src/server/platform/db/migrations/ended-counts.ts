import type { MigrationInterface, QueryRunner } from 'typeorm';

const COUNTS = (row: string) => `${row}.state not in ('open', 'underWay')`;
/** With a workspace that goes, its tasks go, and nothing is counted of them any more. */
const PUT = (row: string, n: 1 | -1) =>
  `insert into ended_count (workspace_id, due_on, state, on_time, n)
     select id, ${row}.due_on, ${row}.state, ${row}.on_time, ${n} from workspace where id = ${row}.workspace_id;`;

/**
 * How many tasks ended how, by the day on which they were due, is kept beside them: to count three years of them takes over a
 * second, to add up their days some milliseconds. Each change puts down what it adds and takes away, so that none waits for
 * another; what adds up to the same is put together at night.
 */
export class EndedCounts1767900000000 implements MigrationInterface {
  readonly name = 'EndedCounts1767900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table ended_count (
        workspace_id uuid not null constraint ended_count_workspace_id_fkey references workspace (id) on delete cascade,
        due_on date not null,
        state text not null,
        on_time boolean,
        n integer not null
      );
      insert into ended_count (workspace_id, due_on, state, on_time, n)
        select workspace_id, due_on, state, on_time, count(*) from task t where ${COUNTS('t')} group by 1, 2, 3, 4;
      create index ended_count_by_day on ended_count (workspace_id, due_on) include (state, on_time, n);
      create function task_ended_in() returns trigger language plpgsql as $$ begin ${PUT('new', 1)} return null; end $$;
      create function task_ended_out() returns trigger language plpgsql as $$ begin ${PUT('old', -1)} return null; end $$;
      create function task_ended_other() returns trigger language plpgsql as $$ begin
        if ${COUNTS('old')} then ${PUT('old', -1)} end if;
        if ${COUNTS('new')} then ${PUT('new', 1)} end if;
        return null;
      end $$;
      create trigger task_ended_in after insert on task for each row when (${COUNTS('new')}) execute function task_ended_in();
      create trigger task_ended_out after delete on task for each row when (${COUNTS('old')}) execute function task_ended_out();
      create trigger task_ended_other after update on task for each row
        when ((${COUNTS('old')} or ${COUNTS('new')}) and (old.state, old.due_on, old.on_time) is distinct from (new.state, new.due_on, new.on_time))
        execute function task_ended_other();
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      drop trigger task_ended_in on task; drop trigger task_ended_out on task; drop trigger task_ended_other on task;
      drop function task_ended_in; drop function task_ended_out; drop function task_ended_other;
      drop table ended_count;
    `);
  }
}
