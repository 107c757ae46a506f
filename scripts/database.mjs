import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const NAME = 'jolly_rota';

/**
 * The application's own database on a private PostgreSQL, and a role that owns it and nothing else: whoever gets hold of
 * the application's connection can't reach other databases, files or roles of the server. A database that an earlier
 * version made as the superuser is taken over.
 *
 * Resolves to the address to connect to.
 */
export async function ownDatabase({ url, folder }) {
  const { default: pg } = await import('pg');
  const password = keptPassword(folder);
  await withClient(pg, at(url, 'template1'), async (client) => {
    const there = async (question) => (await client.query(question, [NAME])).rows.length > 0;
    if (!(await there('select 1 from pg_roles where rolname = $1')))
      await client.query(`create role ${NAME} login nosuperuser nocreatedb nocreaterole noreplication`);
    await client.query(`alter role ${NAME} password '${password}'`);
    if (await there('select 1 from pg_database where datname = $1')) return;
    const isOld = await withClient(
      pg,
      url,
      async (old) => (await old.query(`select to_regclass('public.workspace') is not null as old`)).rows[0].old,
    );
    if (isOld) {
      await client.query(`alter database postgres rename to ${NAME}`);
      await client.query('create database postgres');
    } else await client.query(`create database ${NAME}`);
  });
  await withClient(pg, at(url, NAME), takeOver);
  const own = new URL(at(url, NAME));
  own.username = NAME;
  own.password = password;
  return own.toString();
}

/** Gives all that is in the database to its role. */
async function takeOver(client) {
  await client.query(`alter database ${NAME} owner to ${NAME}`);
  await client.query(`revoke all on database ${NAME} from public`);
  const { rows } = await client.query(
    `with schemas as (select oid, nspname from pg_namespace where nspname !~ '^pg_' and nspname <> 'information_schema'),
       me as (select oid from pg_roles where rolname = $1)
     select format('alter schema %I owner to ${NAME}', nspname) as sql, 0 as place from pg_namespace n
       where n.nspname !~ '^pg_' and n.nspname <> 'information_schema' and n.nspowner <> (select oid from me)
     union all
     select format('alter %s %I.%I owner to ${NAME}',
         case c.relkind when 'v' then 'view' when 'm' then 'materialized view' when 'S' then 'sequence' else 'table' end, s.nspname, c.relname),
         case c.relkind when 'S' then 2 else 1 end
       from pg_class c join schemas s on s.oid = c.relnamespace
       where c.relkind in ('r', 'p', 'v', 'm', 'S') and c.relowner <> (select oid from me)
         -- What belongs to a column goes with its table.
         and not exists (select 1 from pg_depend d where d.objid = c.oid and d.deptype in ('a', 'i') and d.refclassid = 'pg_class'::regclass)
     union all
     select format('alter %s %s owner to ${NAME}', case p.prokind when 'p' then 'procedure' else 'function' end, p.oid::regprocedure), 3
       from pg_proc p join schemas s on s.oid = p.pronamespace where p.proowner <> (select oid from me)
     union all
     select format('alter type %I.%I owner to ${NAME}', s.nspname, t.typname), 4
       from pg_type t join schemas s on s.oid = t.typnamespace
       where t.typowner <> (select oid from me) and t.typtype in ('e', 'd', 'c')
         and (t.typrelid = 0 or exists (select 1 from pg_class c where c.oid = t.typrelid and c.relkind = 'c'))
     order by place`,
    [NAME],
  );
  for (const { sql } of rows) await client.query(sql);
}

function keptPassword(folder) {
  const file = join(folder, 'role-password');
  if (!existsSync(file)) writeFileSync(file, randomBytes(24).toString('hex'), { mode: 0o600 });
  return readFileSync(file, 'utf8').trim();
}

function at(url, database) {
  const address = new URL(url);
  address.pathname = `/${database}`;
  return address.toString();
}

async function withClient(pg, connectionString, work) {
  const client = new pg.Client({ connectionString });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}
