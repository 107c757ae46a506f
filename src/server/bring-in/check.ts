import {
  type BringField,
  type BringKind,
  bringFields,
  hasLeftBy,
  type Meant,
  nameKey,
  type RowReading,
  readRow,
  whoIsMeant,
} from '../../core/index.ts';
import { Person } from '../platform/identity/person.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Scope } from '../platform/scope.ts';
import type { BringIn } from './entity.ts';
import { columnsRead, newFields } from './new-fields.ts';
import { pagesOf } from './pages.ts';
import type { Told } from './read-row.ts';
import { WAYS } from './ways.ts';

/** What a column may become here. */
export const fieldsKnown = (scope: Scope, kind: BringKind): BringField[] =>
  bringFields(kind, { client: scope.workspace.clientFields, asset: scope.workspace.assetFields });

/** The same, with what this file is to add. */
export function fieldsOf(scope: Scope, bringIn: BringIn): BringField[] {
  const adding = newFields(scope, bringIn);
  const own = (of: 'client' | 'asset') => [
    ...(of === 'client' ? scope.workspace.clientFields : scope.workspace.assetFields),
    ...adding.filter((one) => one.of === of).map(({ field }) => field),
  ];
  return bringFields(bringIn.kind, { client: own('client'), asset: own('asset') });
}

/** The columns that become a field of some sort. */
export function placesOf(scope: Scope, bringIn: BringIn, isOf: (field: BringField) => boolean): number[] {
  const keys = new Set(fieldsOf(scope, bringIn).flatMap((field) => (isOf(field) ? [field.key] : [])));
  return columnsRead(scope, bringIn).flatMap((key, i) => (key !== null && keys.has(key) ? [i] : []));
}

/** What goes with an earlier line goes with what was chosen for it. */
const CHOICES_JOINED = `update bring_in_row as r set choice = first.choice from bring_in_row first
  where r.workspace_id = $1 and r.bring_in_id = $2 and r.fate = 'alike' and first.workspace_id = $1 and first.bring_in_id = $2
    and first.number = (r.read->>'joins')::int and r.choice is distinct from first.choice`;

export const joinChoices = (scope: Scope, { id }: Pick<BringIn, 'id'>) => scope.sql(CHOICES_JOINED, [id]);

/** Reads every line as is asked, and holds it against what is here and against the lines before it. */
export async function checkRows(scope: Scope, bringIn: BringIn): Promise<void> {
  const { kind, asked, id } = bringIn;
  const fields = new Map(fieldsOf(scope, bringIn).map((field) => [field.key, field]));
  const reading: RowReading = {
    ...{
      columns: columnsRead(scope, bringIn),
      dayOrder: asked.dayOrder,
      turnsNames: asked.turnsNames === true,
      fields,
    },
    people: await peopleMeant(scope, bringIn),
  };
  const look = await WAYS[kind].look(scope, { bringIn, fields, columns: reading.columns });
  for await (const rows of pagesOf(scope, bringIn)) {
    const lines = await eachInTurn(rows, ({ number, cells }) => ({ number, cells, ...readRow(cells, reading) }));
    await keep(scope, id, await look(lines));
  }
  await WAYS[kind].finish?.(scope, bringIn);
  await joinChoices(scope, bringIn);
}

async function keep(scope: Scope, id: string, told: readonly Told[]): Promise<void> {
  await scope.sql(
    `update bring_in_row r set fate = now.fate, read = now.read
     from jsonb_to_recordset($3::jsonb) as now (number integer, fate text, read jsonb)
     where r.workspace_id = $1 and r.bring_in_id = $2 and r.number = now.number`,
    [id, JSON.stringify(told)],
  );
}

export interface NameMeant {
  readonly key: string;
  /** As it is written first. */
  readonly name: string;
  readonly count: number;
  readonly personId: string | null;
  /** Told by whoever brings it in, or nobody else it could be. */
  readonly isSure: boolean;
}

/** Names of people that are told apart in one file, those that stand most often first; of the others each line says so. */
const MOST_NAMES = 200;

/** Names of people in the file, and who is meant by each. */
export async function namesMeant(scope: Scope, bringIn: BringIn): Promise<NameMeant[]> {
  const columns = placesOf(scope, bringIn, ({ value }) => value === 'person');
  if (columns.length === 0) return [];
  const rows = await scope.sql<{ name: string; count: number }>(
    `select min(r.cells->>place) as name, count(*)::int as count from bring_in_row r cross join unnest($3::int[]) place
     where r.workspace_id = $1 and r.bring_in_id = $2 and btrim(coalesce(r.cells->>place, '')) <> ''
     group by lower(btrim(r.cells->>place)) order by 2 desc, 1 limit ${MOST_NAMES}`,
    [bringIn.id, columns],
  );
  const people = (await scope.find(Person)).filter((person) => !hasLeftBy(person, scope.now.day));
  const all = new Map<string, NameMeant>();
  for (const { name, count } of rows) {
    const key = nameKey(name);
    const before = all.get(key);
    if (before) all.set(key, { ...before, count: before.count + count });
    else all.set(key, { key, name: name.trim(), count, ...meantBy(bringIn.asked.people, key, name, people) });
  }
  return [...all.values()];
}

function meantBy(
  said: Readonly<Record<string, string | null>>,
  key: string,
  name: string,
  people: readonly Person[],
): Pick<NameMeant, 'personId' | 'isSure'> {
  const chosen = said[key];
  // Whoever was meant in the last file of this shape may have left since.
  if (chosen === null || people.some(({ id }) => id === chosen)) return { personId: chosen ?? null, isSure: true };
  const meant: Meant = whoIsMeant(name, people);
  return meant.kind === 'one' ? { personId: meant.id, isSure: true } : { personId: null, isSure: false };
}

async function peopleMeant(scope: Scope, bringIn: BringIn): Promise<ReadonlyMap<string, string | null>> {
  return new Map((await namesMeant(scope, bringIn)).map(({ key, personId }) => [key, personId]));
}
