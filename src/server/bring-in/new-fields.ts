import { LONGEST_FIELD_NAME, MOST_OWN_FIELDS } from '../../contract/index.ts';
import { ASSET_OWN, isNewField, NEW_FIELDS, type NewField, OWN, type OwnField } from '../../core/index.ts';
import { changedMeanwhile, invalid } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { keyed } from '../settings/index.ts';
import { type Added, BringIn } from './entity.ts';

interface Adding extends Added {
  /** The column that becomes it. */
  readonly column: number;
  readonly field: OwnField;
}

const LISTS = { client: 'clientFields', asset: 'assetFields' } as const;
const PREFIXES = { client: OWN, asset: ASSET_OWN } as const;

/** Fields that a file is to add, under the keys that they will have. */
export function newFields(
  scope: Scope,
  { asked, columns, state }: Pick<BringIn, 'asked' | 'columns' | 'state'>,
): Adding[] {
  const wanted = asked.columns.flatMap((key, column) => (isNewField(key) ? [{ column, ...NEW_FIELDS[key] }] : []));
  // Once it is brought in they are there, and no longer new.
  if (state !== 'open') return [];
  return (['client', 'asset'] as const).flatMap((of) => {
    const ofKind = wanted.filter((one) => one.of === of);
    const here = scope.workspace[LISTS[of]];
    const fresh = ofKind.map(({ column, kind }) => ({ key: '', name: columns[column] ?? '', kind, choices: [] }));
    return keyed([...here, ...fresh], here)
      .slice(here.length)
      .map((field, i) => ({ of, key: field.key, field, column: ofKind[i]?.column ?? 0 }));
  });
}

/** What each column becomes, fields that are to be added by the keys that they will have. */
export function columnsRead(scope: Scope, bringIn: Pick<BringIn, 'asked' | 'columns' | 'state'>): (string | null)[] {
  const adding = new Map(newFields(scope, bringIn).map(({ column, of, key }) => [column, PREFIXES[of] + key]));
  const added = new Map((bringIn.asked.added ?? []).map(({ column, of, key }) => [column, PREFIXES[of] + key]));
  return bringIn.asked.columns.map((key, column) =>
    isNewField(key) ? (adding.get(column) ?? added.get(column) ?? null) : key,
  );
}

/** Why a column can't become a new field beside the other columns; null where it can. */
export function whyNoNewField(
  scope: Scope,
  key: NewField,
  column: number,
  { columns, becomes }: { readonly columns: readonly string[]; readonly becomes: readonly (string | null)[] },
): string | null {
  const name = columns[column] ?? '';
  if (!scope.mayAll('settings')) return 'Only a manager can add a field: choose one that is there, or leave it out.';
  if (name.trim() === '') return 'The column has no name, and so the field would have none.';
  if (name.length > LONGEST_FIELD_NAME)
    return `A field is called in ${LONGEST_FIELD_NAME} characters at most: give the column a shorter name in the file.`;
  const { of } = NEW_FIELDS[key];
  const others = becomes.flatMap((one, i) => (i !== column && isNewField(one) && NEW_FIELDS[one].of === of ? [i] : []));
  if (others.some((i) => columns[i]?.toLowerCase() === name.toLowerCase()))
    return `Two columns are called “${name}”: only one of them can become a field of that name.`;
  if (scope.workspace[LISTS[of]].length + others.length >= MOST_OWN_FIELDS) return `${MOST_OWN_FIELDS} fields at most.`;
  const there = scope.workspace[LISTS[of]].some((one) => one.name.toLowerCase() === name.toLowerCase());
  return there ? `There is a field “${name}” already: choose that one.` : null;
}

/** Adds the fields of a file that is brought in, to the workspace and to what is known of the file. */
export async function addNewFields(tx: Scope, bringIn: BringIn): Promise<void> {
  const adding = newFields(tx, bringIn);
  if (adding.length === 0) return;
  // Who brings it in may be another than who said what becomes of the columns, and a field of that name may be there by now.
  const becomes = bringIn.asked.columns;
  const problems = becomes.flatMap((key, i) => {
    const message = isNewField(key) ? whyNoNewField(tx, key, i, { columns: bringIn.columns, becomes }) : null;
    return message === null ? [] : [{ path: `columns.${i}`, message }];
  });
  if (problems.length > 0) throw invalid(problems);
  await change(tx, (list, of) => {
    const own = adding.filter((one) => one.of === of).map(({ field }) => field);
    if (own.some(({ name }) => list.some((one) => one.name.toLowerCase() === name.toLowerCase())))
      throw changedMeanwhile('Somebody has added a field of that name meanwhile. Nothing is written; look once more.');
    return [...list, ...own];
  });
  const added = adding.map(({ of, key, column }) => ({ of, key, column }));
  await tx.save(BringIn, bringIn.id, { asked: { ...bringIn.asked, added } });
}

/** Takes the fields of a file out again, but for those that somebody has filled in since; names those that stay. */
export async function takeNewFieldsOut(scope: Scope, { asked }: BringIn): Promise<string[]> {
  const stay: string[] = [];
  const going = new Set<string>();
  for (const { of, key } of asked.added ?? []) {
    const field = scope.workspace[LISTS[of]].find((one) => one.key === key);
    if (!field) continue;
    const [used] = await scope.sql(`select 1 from ${of} where workspace_id = $1 and fields ? $2 limit 1`, [key]);
    if (used) stay.push(field.name);
    else going.add(`${of} ${key}`);
  }
  if (going.size > 0) await change(scope, (list, of) => list.filter(({ key }) => !going.has(`${of} ${key}`)));
  return stay;
}

async function change(
  scope: Scope,
  next: (list: readonly OwnField[], of: 'client' | 'asset') => OwnField[],
): Promise<void> {
  const before = await scope.lockedWorkspace();
  const set = {
    clientFields: next(before.clientFields, 'client'),
    assetFields: next(before.assetFields, 'asset'),
  };
  await scope.saveWorkspace({ ...set, version: before.version + 1 });
  await scope.record('workspace', before.id, 'changed', fieldChanges(before, set));
}
