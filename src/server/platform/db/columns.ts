import { getMetadataArgsStorage } from 'typeorm';
import { columnName } from './naming.ts';

/** The column of a field of an entity. @throws Error for a field that the entity has no column for */
export function columnOf<E extends object>(entity: new () => E, field: keyof E & string): string {
  const args = getMetadataArgsStorage().columns.find(
    ({ target, propertyName }) => target === entity && propertyName === field,
  );
  if (!args) throw new Error(`${entity.name} has no column for ${field}.`);
  return args.options.name ?? columnName(field);
}

/** All fields of an entity that an insert fills, with their columns. */
export function insertedColumns(entity: new () => object): { readonly field: string; readonly column: string }[] {
  return getMetadataArgsStorage().columns.flatMap(({ target, propertyName, options }) =>
    target === entity && options.insert !== false
      ? [{ field: propertyName, column: options.name ?? columnName(propertyName) }]
      : [],
  );
}

/** The type of the column of a field; undefined where the entity has none of that name. */
export function typeOf(entity: new () => object, field: string): string | undefined {
  const args = getMetadataArgsStorage().columns.find(
    ({ target, propertyName }) => target === entity && propertyName === field,
  );
  return args === undefined ? undefined : String(args.options.type);
}

/** Fields of an entity under names of their own, for rows that stand beside others. */
export type Named<E, Names extends Readonly<Record<string, keyof E>>> = {
  -readonly [Name in keyof Names]: E[Names[Name]];
};

/** What to select for them. */
export function namedColumns<E extends object>(
  entity: new () => E,
  alias: string,
  names: Readonly<Record<string, keyof E & string>>,
): string {
  return Object.entries(names)
    .map(([name, field]) => `${alias}.${columnOf(entity, field)} as "${name}"`)
    .join(', ');
}

/** What to select for fields of an entity under their own names, from its table under an alias. */
export function columnsOf<E extends object>(
  entity: new () => E,
  alias: string,
  fields: readonly (keyof E & string)[],
): string {
  return fields.map((field) => `${alias}.${columnOf(entity, field)} as "${field}"`).join(', ');
}
