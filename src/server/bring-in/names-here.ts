import { groupBy, type LineProblem, nearestWord, type RowProblem, textOfValue } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import type { Line } from './read-row.ts';

interface Here {
  readonly id: string;
  readonly name: string;
  /** Of an asset: whose it is. */
  readonly clientId: string | null;
}

type Of = 'template' | 'client' | 'asset';

/** What lines name: by number of the line, what is here of each name. */
export type NamesHere = ReadonlyMap<number, Readonly<Record<Of, readonly Here[]>>>;

/** Of one name so many are told apart; of more than one none is taken. */
const MOST_ALIKE = 3;

/** Finds templates, clients and assets that a page of lines names, those that are in use. */
export async function namesHere(scope: Scope, lines: readonly Line[]): Promise<NamesHere> {
  const rows = await scope.sql<Here & { number: number; of: Of }>(
    `with line as materialized (
       select * from jsonb_to_recordset($2::jsonb) as line (number integer, template text, client text, asset text)),
     used as materialized (select id, name, plain_words(name) as words from template where workspace_id = $1 and archived_at is null)
     select line.number, 'template' as of, t.id, t.name, null::uuid as "clientId" from line
       join used t on t.words = plain_words(line.template) where line.template <> ''
     union all
     select line.number, 'client', c.id, c.name, null from line cross join lateral (
       select id, name from client c where c.workspace_id = $1 and c.archived_at is null and c.words = plain_words(line.client)
       limit ${MOST_ALIKE}) c where line.client <> ''
     union all
     select line.number, 'asset', a.id, a.name, a.client_id from line cross join lateral (
       select id, name, client_id from asset a where a.workspace_id = $1 and a.archived_at is null
         and (a.words = plain_words(line.asset) or lower(a.tag) = lower(line.asset)) limit 50) a where line.asset <> ''`,
    [
      JSON.stringify(
        lines.map(({ number, values }) => ({
          number,
          template: textOfValue(values, 'template'),
          client: textOfValue(values, 'client'),
          asset: textOfValue(values, 'asset'),
        })),
      ),
    ],
  );
  return new Map(
    [...groupBy(rows, ({ number }) => number)].map(([number, of]) => [
      number,
      {
        template: of.filter((one) => one.of === 'template'),
        client: of.filter((one) => one.of === 'client'),
        asset: of.filter((one) => one.of === 'asset'),
      },
    ]),
  );
}

/** For whom and what a line is; what it names and can't be told is a problem. */
export function subjectOf(
  { number, values }: Line,
  here: NamesHere,
): { readonly clientId: string | null; readonly assetId: string | null; readonly problems: readonly LineProblem[] } {
  const found = here.get(number);
  const none = { clientId: null, assetId: null };
  const client = theOne('client', textOfValue(values, 'client'), found?.client ?? []);
  if ('problem' in client) return { ...none, problems: [client.problem] };
  const assetName = textOfValue(values, 'asset');
  const all = found?.asset ?? [];
  const theirs = client.one === null ? all : all.filter(({ clientId }) => clientId === client.one?.id);
  if (client.one !== null && theirs.length === 0 && all.length > 0)
    return { ...none, problems: [{ key: 'asset', message: `“${assetName}” is not one of ${client.one.name}` }] };
  const asset = theOne('asset', assetName, theirs);
  if ('problem' in asset) return { ...none, problems: [asset.problem] };
  return { clientId: client.one?.id ?? asset.one?.clientId ?? null, assetId: asset.one?.id ?? null, problems: [] };
}

/** What a name means: one that is here, nothing where there is no name, or why it can't be told. */
export type Named =
  | { readonly one: Here | null }
  | {
      readonly problem: LineProblem;
      /** There is none of that name, rather than several. */
      readonly isUnknown: boolean;
    };

/** The template that a line names. */
export const templateOf = ({ number, values }: Line, here: NamesHere): Named =>
  theOne('template', textOfValue(values, 'template'), here.get(number)?.template ?? []);

function theOne(of: Of, name: string, found: readonly Here[]): Named {
  const [only = null, other] = found;
  if (name === '' || (only && !other)) return { one: only };
  const message = only
    ? `There are several ${of}s called “${name}”${of === 'asset' ? ': say whose it is' : ''}`
    : `There is no ${of} “${name}” here`;
  return { problem: { key: of, message }, isUnknown: only === null };
}

/** Names that are looked up for what may have been meant; of a file with more, each line says that there is none. */
const MOST_ASKED = 200;

/** Says which of some names may have been meant by another, each once. */
export function nearest(known: readonly string[]): (name: string) => string | null {
  const told = new Map<string, string | null>();
  return (name) => {
    const before = told.get(name);
    if (before !== undefined || told.size >= MOST_ASKED) return before ?? null;
    const near = nearestWord(name, known);
    told.set(name, near);
    return near;
  };
}

/** Problems by the columns that say the fields. */
export const inColumns = (problems: readonly LineProblem[], columns: readonly (string | null)[]): RowProblem[] =>
  problems.map(({ key, ...problem }) => {
    const column = key === null ? -1 : columns.indexOf(key);
    return { column: column === -1 ? null : column, ...problem };
  });
