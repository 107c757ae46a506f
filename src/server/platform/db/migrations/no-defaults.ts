import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What columns were given while they were added. Whoever writes a row says all of it: a field that is forgotten is an error, not an empty one. */
const DEFAULTS: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  file: { is_kept: 'false' },
  schedule: { overlap: `'{"kind": "add"}'`, exceptions: `'[]'`, revisions: `'[]'` },
  task: {
    version: '1',
    set_index: '0',
    step_key: `''`,
    head: `''`,
    priority: `'normal'`,
    answers: `'{}'`,
    note_pinned: 'false',
    sent_back: `'[]'`,
    edited: `'[]'`,
  },
  template: {
    summary: `''`,
    links: `'[]'`,
    priority: `'normal'`,
    finish_with_last: 'false',
    numbered: 'false',
    demands: `'[]'`,
    steps: `'[]'`,
  },
  workspace: { work_types: `'[]'` },
  run: { waits: `'[]'`, left_out: `'[]'`, lapsed: '0', schedule_ids: `'[]'`, state: `'done'`, total: '0' },
};

const each = (words: (column: string, value: string) => string) =>
  Object.entries(DEFAULTS)
    .map(
      ([table, columns]) =>
        `alter table ${table} ${Object.entries(columns)
          .map(([column, value]) => words(column, value))
          .join(', ')};`,
    )
    .join('\n');

/** No column fills itself. */
export class NoDefaults1765000000000 implements MigrationInterface {
  readonly name = 'NoDefaults1765000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(each((column) => `alter ${column} drop default`));
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(each((column, value) => `alter ${column} set default ${value}`));
  }
}
