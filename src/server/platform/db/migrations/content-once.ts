import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a task says that is the same for many: the columns that leave it, with their types. */
const COLUMNS = [
  ['instructions', 'text'],
  ['brief', 'text'],
  ['links', 'jsonb'],
  ['work_type', 'text'],
  ['sign_off', 'jsonb'],
  ['finish_with_last', 'boolean'],
  ['numbered', 'boolean'],
  ['check_lines', 'jsonb'],
  ['demands', 'jsonb'],
] as const;
const NAMES = COLUMNS.map(([name]) => name);
const NULLABLE: readonly string[] = ['work_type', 'sign_off'];

const of = (alias: string) => NAMES.map((name) => `${alias}.${name}`).join(', ');
/** The same, of a whole row of a task that was kept as JSON. */
const ofKept = (row: string, first = 0) =>
  COLUMNS.slice(first)
    .map(([name, type]) => (type === 'jsonb' ? `nullif(${row}->'${name}', 'null')` : `(${row}->>'${name}')::${type}`))
    .join(', ');

/** Whole rows of tasks that are kept so that an undo can write them back: where, and which. */
const KEPT = [
  { table: 'watched_task', row: 'before', where: 'before is not null' },
  {
    table: 'change',
    row: `(fields->'row'->'from')`,
    where: `subject = 'task' and jsonb_typeof(fields->'row'->'from') = 'object'`,
  },
] as const;

/** Puts another row in the place of the kept one. */
const replaced = (table: (typeof KEPT)[number]['table'], row: string) =>
  table === 'change' ? `fields = jsonb_set(fields, '{row,from}', ${row})` : `before = ${row}`;

/**
 * Instructions, check lines, proof and all else that is the same for many tasks is stored once, under an id that is told
 * from what it says, and never changed; tasks point to it.
 */
export class ContentOnce1764900000000 implements MigrationInterface {
  readonly name = 'ContentOnce1764900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create function work_content_id (${COLUMNS.map(([name, type]) => `${name} ${type}`).join(', ')}) returns uuid
        language sql immutable parallel safe as $$
          select encode(substring(sha256(convert_to(jsonb_build_array(${NAMES.map((_, i) => `$${i + 1}`).join(', ')})::text, 'UTF8')) from 1 for 16), 'hex')::uuid
        $$;
      create table work_content (
        workspace_id uuid not null references workspace (id) on delete cascade,
        id uuid not null,
        ${COLUMNS.map(([name, type]) => `${name} ${type}${NULLABLE.includes(name) ? '' : ' not null'}`).join(', ')},
        -- For telling what differs between two without reading either.
        instructions_hash text not null,
        rest_id uuid not null,
        primary key (workspace_id, id),
        constraint work_content_id_check check (id = work_content_id(${NAMES.join(', ')})),
        constraint work_content_hash_check check (instructions_hash = md5(instructions)),
        constraint work_content_rest_check check (rest_id = work_content_id('', ${NAMES.slice(1).join(', ')}))
      );
      alter table task add content_id uuid;
    `);
    // What changes found and what stands there now: whoever has not been touched since must look the same afterwards.
    await runner.query(`
      create temporary table untouched on commit drop as
        select w.workspace_id, w.watch_id, w.task_id from watched_task w
        join task t on t.workspace_id = w.workspace_id and t.id = w.task_id and task_look(t) = w.after;
      insert into work_content (workspace_id, id, ${NAMES.join(', ')}, instructions_hash, rest_id)
        select distinct t.workspace_id, work_content_id(${of('t')}), ${of('t')}, md5(t.instructions), work_content_id('', ${of('t').replace('t.instructions, ', '')}) from task t on conflict do nothing;
      update task t set content_id = work_content_id(${of('t')});
    `);
    for (const { table, row, where } of KEPT)
      await runner.query(`
        insert into work_content (workspace_id, id, ${NAMES.join(', ')}, instructions_hash, rest_id)
          select distinct workspace_id, work_content_id(${ofKept(row)}), ${ofKept(row)}, md5(${row}->>'instructions'),
            work_content_id('', ${ofKept(row, 1)}) from ${table} where ${where}
          on conflict do nothing;
        update ${table} set ${replaced(table, `(${row} ${NAMES.map((name) => `- '${name}'`).join(' ')}) || jsonb_build_object('content_id', work_content_id(${ofKept(row)}))`)}
          where ${where};
      `);
    await runner.query(`
      alter table task alter content_id set not null,
        add constraint task_content foreign key (workspace_id, content_id) references work_content (workspace_id, id),
        ${NAMES.map((name) => `drop ${name}`).join(', ')};
      update watched_task w set after = task_look(t) from task t join untouched u on u.workspace_id = t.workspace_id and u.task_id = t.id
        where w.workspace_id = u.workspace_id and w.watch_id = u.watch_id and w.task_id = u.task_id;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create temporary table untouched on commit drop as
        select w.workspace_id, w.watch_id, w.task_id from watched_task w
        join task t on t.workspace_id = w.workspace_id and t.id = w.task_id and task_look(t) = w.after;
      alter table task ${COLUMNS.map(([name, type]) => `add ${name} ${type}`).join(', ')};
      update task t set ${NAMES.map((name) => `${name} = c.${name}`).join(', ')}
        from work_content c where c.workspace_id = t.workspace_id and c.id = t.content_id;
    `);
    for (const { table, row, where } of KEPT)
      await runner.query(`
        update ${table} set ${replaced(table, `(${row} - 'content_id') || jsonb_build_object(${NAMES.map((name) => `'${name}', c.${name}`).join(', ')})`)}
          from work_content c where ${where} and c.workspace_id = ${table}.workspace_id and c.id = (${row}->>'content_id')::uuid;
      `);
    await runner.query(`
      alter table task drop content_id,
        ${NAMES.filter((name) => !NULLABLE.includes(name))
          .map((name) => `alter ${name} set not null`)
          .join(', ')};
      update watched_task w set after = task_look(t) from task t join untouched u on u.workspace_id = t.workspace_id and u.task_id = t.id
        where w.workspace_id = u.workspace_id and w.watch_id = u.watch_id and w.task_id = u.task_id;
      drop table work_content;
      drop function work_content_id;
    `);
  }
}
