import type { Writable } from 'node:stream';
import type { ClientBase } from 'pg';
import { keptTables } from './tables.ts';
import { packed, partsOf, writeFiles } from './writing.ts';

/** What opens something for whoever has it is nobody's to take along, not its owner's either. */
const SECRETS = ['password_hash', 'digest', 'code_digest', 'passes', 'answer_key', 'secret'];

interface OfPerson {
  readonly workspaceId: string;
  readonly personId: string;
  /** Where the bytes of a file are. */
  readonly pathOf: (stored: string) => string;
}

/**
 * Writes all that is kept of one person as an archive: every row of every table that names them, by table and as JSON, one a
 * line, without what opens something; the files they have sent; and what each part is, in words.
 * @param client of its own: what it reads is one moment
 */
export const writeOfPerson = (
  client: ClientBase,
  { workspaceId, personId, pathOf }: OfPerson,
  out: Writable,
): Promise<void> =>
  packed(client, out, async (entries) => {
    const params = [workspaceId, personId];
    const { rows: found } = await client.query<{ name: string; workspace: string }>(
      'select p.name, w.name as workspace from person p join workspace w on w.id = p.workspace_id where p.workspace_id = $1 and p.id = $2',
      params,
    );
    const [person] = found;
    if (!person) throw new Error('There is no such person.');
    const naming = await columnsNaming(client);
    const told: string[] = [];
    for (const { name, order } of await keptTables(client)) {
      const columns = naming.get(name) ?? [];
      const where =
        name === 'person'
          ? 't.workspace_id = $1 and t.id = $2'
          : name === 'account'
            ? 't.id = (select account_id from person where workspace_id = $1 and id = $2)'
            : columns.length > 0
              ? `t.workspace_id = $1 and $2 in (${columns.map((column) => `t."${column}"`).join(', ')})`
              : null;
      if (where === null) continue;
      let [part, rows] = [0, 0];
      const asked = `select (to_jsonb(t) - '{${SECRETS.join(',')}}'::text[])::text as line from "${name}" t where ${where} order by ${order}`;
      for await (const { lines, count } of partsOf(client, asked, params)) {
        await entries.text(`${name}/${String(part++).padStart(6, '0')}.jsonl`, lines);
        rows += count;
      }
      if (rows > 0)
        told.push(`${name}: ${rows}${columns.length > 0 ? `, where they stand as ${columns.join(', ')}` : ''}`);
    }
    const { files } = await writeFiles(client, { where: 'uploaded_by = $2', params }, pathOf, entries);
    if (files > 0) told.push(`files: ${files}, as they were sent; their names stand in the table of files`);
    await entries.text(
      'READ-ME.txt',
      [
        `All that ${person.workspace} keeps of ${person.name}.`,
        'Each folder is a table, each line of it a row as JSON. Keys and passwords are left out.',
        '',
        ...told,
        '',
      ].join('\n'),
    );
    await entries.end();
  });

/** By table the columns that name a person. */
async function columnsNaming(client: ClientBase): Promise<ReadonlyMap<string, string[]>> {
  const { rows } = await client.query<{ table: string; columns: string[] }>(
    `select c.conrelid::regclass::text as table, array_agg(a.attname::text order by a.attname) as columns
     from pg_constraint c cross join lateral unnest(c.conkey) k(attnum)
     join pg_attribute a on a.attrelid = c.conrelid and a.attnum = k.attnum and a.attname <> 'workspace_id'
     where c.contype = 'f' and c.confrelid = 'person'::regclass and c.conrelid <> 'person'::regclass group by c.conrelid`,
  );
  return new Map(rows.map(({ table, columns }) => [table, columns]));
}
