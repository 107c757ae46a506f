import {
  BRING_ROWS_A_PAGE,
  BRING_UNDO_DAYS,
  type BringIn as BringInAnswer,
  type BringInCounts,
  type Impact,
  type BringInRow as RowAnswer,
  type RowFate,
  SAME_BY,
} from '../../contract/index.ts';
import {
  BRING_KINDS,
  BRING_RIGHTS,
  type BringField,
  type BringKind,
  type CalendarAsked,
  dayOrderOf,
  ENTRY_FATES,
  guessColumns,
  isNewField,
  turnedName,
} from '../../core/index.ts';
import { changedMeanwhile, invalid, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { mustBeAllowed } from './allowed.ts';
import type { CalendarRead } from './calendar/index.ts';
import { calendarAsked, calendarNames } from './calendar/index.ts';
import { checkRows, fieldsKnown, fieldsOf, joinChoices, namesMeant, placesOf } from './check.ts';
import { effectIn } from './effect.ts';
import { type Asked, BringIn, type BringInRow } from './entity.ts';
import { addNewFields, whyNoNewField } from './new-fields.ts';
import { plansMeant } from './plans-meant.ts';
import { type FileRead, shapeOf } from './read-file.ts';
import { UNREAD } from './read-row.ts';
import { USUAL_MINUTES, usualMinutesOf } from './usual-minutes.ts';
import { WAYS } from './ways.ts';

/** Cells of each column that are looked at to guess what it is. */
const SAMPLES = 60;
const SAMPLES_TOLD = 2;
/** Lines that are put into the database in one go. */
const AT_ONCE = 500;

/** Takes a file in and reads it as it most likely is meant; nothing else is written. */
export async function startBringIn(
  scope: Scope,
  kind: BringKind,
  fileName: string,
  { encoding, separator, columns, rows }: FileRead,
  calendar: CalendarAsked | null = null,
): Promise<string> {
  mustBeAllowed(scope, kind);
  const shape = shapeOf(columns);
  const [before] = await scope.sql<{ asked: Asked }>(
    `select asked from bring_in where workspace_id = $1 and kind = $2 and shape = $3 order by created_at desc limit 1`,
    [kind, shape],
  );
  const guessed = guessColumns(
    fieldsKnown(scope, kind),
    columns,
    columns.map((_, i) => rows.slice(0, SAMPLES).map((cells) => cells[i] ?? '')),
  );
  const id = await scope.transaction(async (tx) => {
    await forgetOld(tx);
    const bringIn = await tx.insert(BringIn, {
      ...{ id: tx.newId(), kind, state: 'open' as const, fileName, encoding, separator, shape },
      ...{ rowCount: rows.length, columns: [...columns], isRemembered: before !== undefined },
      asked: {
        ...(before
          ? remembered(fieldsKnown(scope, kind), before.asked, guessed)
          : {
              columns: guessed,
              dayOrder: 'day first',
              people: {},
              sameBy: SAME_BY[kind][0],
              usualMinutes: USUAL_MINUTES,
            }),
        // Whose it is and what it holds is told of each by itself.
        ...(calendar
          ? {
              calendar: withChoices(calendar, before?.asked.calendar ? { several: before.asked.calendar.several } : {}),
            }
          : {}),
      },
      ...{ byId: tx.person?.id ?? null, createdAt: tx.instant, doneAt: null, changeId: null, version: 1 },
    });
    for (let at = 0; at < rows.length; at += AT_ONCE)
      await tx.sql(
        `insert into bring_in_row (workspace_id, bring_in_id, number, cells, fate, read)
         select $1, $2, row.number, row.cells, 'unread', $4::jsonb
         from jsonb_to_recordset($3::jsonb) as row (number integer, cells jsonb)`,
        [
          bringIn.id,
          JSON.stringify(
            rows.slice(at, at + AT_ONCE).map((cells, i) => ({ number: at + i + 1, cells: cells.map(storable) })),
          ),
          JSON.stringify(UNREAD),
        ],
      );
    return bringIn.id;
  });
  const bringIn = await scope.one(BringIn, id, 'file');
  const { order } = await datesOf(scope, bringIn);
  if (!before && order !== null) await scope.save(BringIn, id, { asked: { ...bringIn.asked, dayOrder: order } });
  await checkRows(scope, await scope.one(BringIn, id, 'file'));
  return id;
}

/** Takes a calendar in likewise: an entry is a line. */
export async function startCalendar(scope: Scope, fileName: string, read: CalendarRead): Promise<string> {
  mustBeAllowed(scope, 'calendar');
  const rows = read.entries.map(({ uid, text }) => ['', uid, text]);
  const file = { encoding: read.encoding, separator: 'entries', columns: ['becomes', 'uid', 'entry'], rows };
  return startBringIn(scope, 'calendar', fileName, file, await calendarAsked(scope, read));
}

/** What was asked of the last file of this shape: fields that have gone since are left out, those that it added are there now. */
function remembered(
  fields: readonly BringField[],
  { added: _, ...asked }: Asked,
  guessed: readonly (string | null)[],
): Asked {
  const known = new Set(fields.map(({ key }) => key));
  const stay = asked.columns.map((key) => (key !== null && known.has(key) ? key : null));
  const columns = stay.map((key, i) => {
    const guess = guessed[i] ?? null;
    return isNewField(asked.columns[i] ?? null) && guess !== null && !stay.includes(guess) ? guess : key;
  });
  return { ...asked, columns };
}

/** A text as the database can keep it. */
const storable = (text: string): string => text.replaceAll('\u0000', '');

/** After so long nothing is taken out any more, and nobody goes on with what was left lying. */
const forgetOld = (scope: Scope) =>
  scope.sql(
    `delete from bring_in where workspace_id = $1 and created_at < $2::timestamptz - interval '${BRING_UNDO_DAYS} days'`,
    [scope.instant],
  );

export interface Settling {
  readonly version: number;
  readonly columns?: readonly (string | null)[] | undefined;
  readonly dayOrder?: Asked['dayOrder'] | undefined;
  readonly people?: Asked['people'] | undefined;
  readonly sameBy?: Asked['sameBy'] | undefined;
  readonly turnsNames?: boolean | undefined;
  readonly usualMinutes?: number | undefined;
  readonly calendar?: Partial<CalendarChoice> | undefined;
  readonly zones?: Readonly<Record<string, string>> | undefined;
  readonly mended?: readonly Mended[] | undefined;
  readonly choices?: readonly { readonly number: number; readonly choice: string }[] | undefined;
}

/** Changes how the file is read, mends cells, or chooses what becomes of lines; all of it is read anew where that matters. */
export async function settle(scope: Scope, id: string, input: Settling): Promise<void> {
  const asked = await scope.transaction(async (tx) => {
    const bringIn = await lockedOpen(tx, id, input.version);
    await mustFit(tx, bringIn, input);
    const { columns, dayOrder, people, sameBy, turnsNames, usualMinutes, calendar, zones } = input;
    const next: Asked = {
      turnsNames: turnsNames ?? bringIn.asked.turnsNames === true,
      columns: columns ?? bringIn.asked.columns,
      dayOrder: dayOrder ?? bringIn.asked.dayOrder,
      people: people ? { ...bringIn.asked.people, ...people } : bringIn.asked.people,
      sameBy: sameBy ?? bringIn.asked.sameBy,
      usualMinutes: usualMinutes ?? usualMinutesOf(bringIn),
      ...(bringIn.asked.calendar ? { calendar: withChoices(bringIn.asked.calendar, calendar ?? {}) } : {}),
      ...(bringIn.asked.zones || zones ? { zones: { ...bringIn.asked.zones, ...zones } } : {}),
    };
    await tx.save(BringIn, id, { asked: next, version: bringIn.version + 1 });
    for (const one of input.mended ?? []) await mend(tx, id, one);
    for (const { number, choice } of input.choices ?? [])
      await tx.sql('update bring_in_row set choice = $4 where workspace_id = $1 and bring_in_id = $2 and number = $3', [
        id,
        number,
        choice,
      ]);
    if (input.choices) await joinChoices(tx, bringIn);
    return next;
  });
  const isOnlyChosen = [
    input.columns,
    input.dayOrder,
    input.people,
    input.sameBy,
    input.turnsNames,
    input.usualMinutes,
    input.calendar,
    input.zones,
    input.mended,
  ].every((part) => part === undefined);
  if (!isOnlyChosen) await checkRows(scope, { ...(await scope.one(BringIn, id, 'file')), asked });
}

interface Mended {
  readonly number: number;
  readonly column: number;
  readonly text: string;
  /** Whether every line is mended so too whose cell says the same and may mean the same. */
  readonly isForAll?: boolean | undefined;
}

/** What stands in a cell with what is offered for it: a phrase means other days where the line begins on another. */
const OFFERED = `array[to_jsonb(btrim(cells->>$4::int)),
  (select one->'offers' from jsonb_array_elements(read->'problems') one where (one->>'column')::int = $4 limit 1)]`;

const mend = (scope: Scope, id: string, { number, column, text, isForAll = false }: Mended) =>
  scope.sql(
    `update bring_in_row set cells = (select jsonb_agg(coalesce(case when place = $4 then $5 else cells->>place end, ''))
       from generate_series(0, greatest(jsonb_array_length(cells) - 1, $4)) place)
     where workspace_id = $1 and bring_in_id = $2 and (number = $3 or $6 and ${OFFERED} =
       (select ${OFFERED} from bring_in_row where workspace_id = $1 and bring_in_id = $2 and number = $3))`,
    [id, number, column, storable(text), isForAll],
  );

type CalendarChoice = CalendarAsked['choices'] & Pick<CalendarAsked, 'several' | 'ownerId'>;

/** What is said of a calendar as a whole, with what is said anew. */
function withChoices(asked: CalendarAsked, { several, ownerId, ...choices }: Partial<CalendarChoice>): CalendarAsked {
  const said = Object.fromEntries(Object.entries(choices).filter(([, value]) => value !== undefined));
  return {
    ...asked,
    choices: { ...asked.choices, ...said },
    several: several ?? asked.several,
    ownerId: ownerId === undefined ? asked.ownerId : ownerId,
  };
}

function calendarTold({ asked }: BringIn): BringInAnswer['calendar'] {
  if (!asked.calendar) return null;
  const { choices, several, ownerId, mended, others, zones } = asked.calendar;
  return {
    ...{ ...choices, several, ownerId, mended, others },
    zones: zones.map(({ tzid, count, zone }) => {
      const said = asked.zones?.[tzid];
      return { tzid, count, zone: said ?? zone, isSure: said !== undefined || zone !== null };
    }),
  };
}

async function mustFit(
  scope: Scope,
  { kind, columns: names }: BringIn,
  { columns, sameBy, people, calendar }: Settling,
): Promise<void> {
  const problems: { path: string; message: string }[] = [];
  const known = new Map(fieldsKnown(scope, kind).map((field) => [field.key, field]));
  if (columns) {
    if (columns.length !== names.length)
      problems.push({ path: 'columns', message: `The file has ${names.length} columns.` });
    columns.forEach((key, i) => {
      if (isNewField(key)) {
        const why =
          kind === 'clients'
            ? whyNoNewField(scope, key, i, { columns: names, becomes: columns })
            : 'People have no own fields.';
        if (why !== null) problems.push({ path: `columns.${i}`, message: why });
        return;
      }
      const field = key === null ? null : known.get(key);
      if (field === undefined)
        problems.push({ path: `columns.${i}`, message: 'There is no such field here any more.' });
      else if (field && columns.indexOf(field.key) < i)
        problems.push({
          path: `columns.${i}`,
          message: `“${names[columns.indexOf(field.key)]}” is the ${field.name} already.`,
        });
    });
  }
  if (sameBy && !(SAME_BY[kind] as readonly string[]).includes(sameBy))
    problems.push({ path: 'sameBy', message: 'That is not what lines of this kind are known by.' });
  const here = people || calendar ? await scope.peopleNames() : new Map<string, string>();
  if (calendar?.ownerId && !here.has(calendar.ownerId))
    problems.push({ path: 'calendar.ownerId', message: 'There is no such person here.' });
  for (const [key, id] of Object.entries(people ?? {}))
    if (id !== null && !here.has(id))
      problems.push({ path: `people.${key}`, message: 'There is no such person here.' });
  if (problems.length > 0) throw invalid(problems);
}

async function lockedOpen(scope: Scope, id: string, version: number): Promise<BringIn> {
  const bringIn = await scope.locked(BringIn, id, 'file');
  mustBeAllowed(scope, bringIn.kind);
  if (bringIn.state !== 'open') throw notNow('That file was brought in already.');
  if (bringIn.version !== version)
    throw changedMeanwhile('Someone else goes on with this file too. What they chose is shown now: look once more.');
  return bringIn;
}

/** Everything of a file that its page shows. */
export async function oneBringIn(scope: Scope, id: string): Promise<BringInAnswer> {
  const bringIn = await scope.one(BringIn, id, 'file');
  mustBeAllowed(scope, bringIn.kind);
  const { kind, fileName, encoding, separator, rowCount, state, version, isRemembered, asked, changeId } = bringIn;
  const rows = await scope.sql<{ fates: string }>(
    `select string_agg(case ${effectIn(kind)} when 'new' then 'n' when 'update' then 'u' when 'same' then 's' when 'leave' then 'e' else 'x' end,
       '' order by number) as fates from bring_in_row where workspace_id = $1 and bring_in_id = $2`,
    [id],
  );
  return {
    ...{ id, kind, fileName, encoding, separator, rowCount, state, version, isRemembered, changeId },
    columns: await columnsOf(scope, bringIn),
    names: await namesTurned(scope, bringIn),
    fields: fieldsOf(scope, bringIn).map(({ key, name, value }) => ({ key, name, value })),
    dayOrder: asked.dayOrder,
    dates: await datesTold(scope, bringIn),
    people: kind === 'calendar' ? await calendarNames(scope, bringIn) : await namesMeant(scope, bringIn),
    plans: await plansMeant(scope, bringIn),
    sameBy: asked.sameBy,
    usualMinutes: usualMinutesOf(bringIn),
    calendar: calendarTold(bringIn),
    counts: await countsOf(scope, bringIn),
    fates: rows[0]?.fates ?? '',
    left: await rowsOf(scope, bringIn, 'left', 0),
    alike: await rowsOf(scope, bringIn, 'alike', 0),
    fresh: await rowsOf(scope, bringIn, 'fresh', 0),
  };
}

export async function countsOf(scope: Scope, { id, kind }: Pick<BringIn, 'id' | 'kind'>): Promise<BringInCounts> {
  const rows = await scope.sql<{ fate: RowFate; count: number }>(
    `select ${effectIn(kind)} as fate, count(*)::int as count from bring_in_row where workspace_id = $1 and bring_in_id = $2 group by 1`,
    [id],
  );
  const of = (fate: RowFate) => rows.find((row) => row.fate === fate)?.count ?? 0;
  return { new: of('new'), update: of('update'), same: of('same'), leave: of('leave'), left: of('left') };
}

const WHICH = {
  left: `fate in ('left', 'unread')`,
  alike: `fate = 'alike' and (read->>'joins') is null`,
  fresh: `fate = 'new'`,
} as const;

export async function rowsOf(
  scope: Scope,
  bringIn: BringIn,
  which: keyof typeof WHICH,
  after: number,
): Promise<RowAnswer[]> {
  const rows = await scope.sql<BringInRow & { effect: RowFate }>(
    `select number, cells, fate, choice, read, ${effectIn(bringIn.kind)} as effect from bring_in_row
     where workspace_id = $1 and bring_in_id = $2 and ${WHICH[which]} and number > $3 order by number limit ${BRING_ROWS_A_PAGE}`,
    [bringIn.id, after],
  );
  const { columns } = bringIn;
  return rows.map(({ number, cells, fate, read, effect }) => ({
    ...{
      number,
      fate: effect,
      isAlike: fate === 'alike',
      becomes: chosenFate(bringIn, cells),
      title: read.title,
      about: read.about,
    },
    why: [read.why, ...read.problems.filter(({ column }) => column === null).map(({ message }) => message)]
      .filter(Boolean)
      .join('; '),
    faults: read.problems.flatMap(({ column, message, offers = [] }) =>
      column === null
        ? []
        : [{ column, name: columns[column] ?? '', text: cells[column] ?? '', message, offers: [...offers] }],
    ),
    diffs: [...read.diffs],
  }));
}

const chosenFate = ({ kind }: BringIn, [said]: readonly string[]) =>
  kind === 'calendar' ? (ENTRY_FATES.find((fate) => fate === said) ?? null) : null;

async function columnsOf(scope: Scope, { id, columns, asked }: BringIn): Promise<BringInAnswer['columns']> {
  const samples = await scope.sql<{ cells: string[] }>(
    `select cells from bring_in_row where workspace_id = $1 and bring_in_id = $2 order by number limit ${SAMPLES_TOLD}`,
    [id],
  );
  const filled = await scope.sql<{ place: number; count: number }>(
    `select (cell.place - 1)::int as place, count(*)::int as count from bring_in_row r
     cross join lateral jsonb_array_elements_text(r.cells) with ordinality as cell (text, place)
     where r.workspace_id = $1 and r.bring_in_id = $2 and btrim(cell.text) <> '' group by 1`,
    [id],
  );
  const unread = await scope.sql<{ place: number; count: number }>(
    `select (problem->>'column')::int as place, count(*)::int as count from bring_in_row r
     cross join lateral jsonb_array_elements(r.read->'problems') problem
     where r.workspace_id = $1 and r.bring_in_id = $2 and r.fate = 'left' and problem->>'column' is not null group by 1`,
    [id],
  );
  const [all] = await scope.sql<{ count: number }>(
    'select count(*)::int as count from bring_in_row where workspace_id = $1 and bring_in_id = $2',
    [id],
  );
  const at = (counts: readonly { place: number; count: number }[], i: number) =>
    counts.find(({ place }) => place === i)?.count ?? 0;
  return columns.map((name, i) => ({
    name,
    becomes: asked.columns[i] ?? null,
    samples: samples.map(({ cells }) => (cells[i] ?? '').slice(0, 60)),
    empty: (all?.count ?? 0) - at(filled, i),
    unread: at(unread, i),
  }));
}

/** In which order the dates of the file stand, told from all columns that become one. */
async function datesOf(scope: Scope, bringIn: BringIn) {
  const { id } = bringIn;
  const places = placesOf(scope, bringIn, ({ value }) => value === 'date' || value === 'moment');
  if (places.length === 0) return dayOrderOf([]);
  const rows = await scope.sql<{ text: string }>(
    `select distinct r.cells->>place as text from bring_in_row r cross join unnest($3::int[]) place
     where r.workspace_id = $1 and r.bring_in_id = $2 and r.cells->>place ~ '^\\s*\\d{1,2}[-/.]'`,
    [id, places],
  );
  return dayOrderOf(rows.map(({ text }) => text));
}

/** Names in the file that are written with the last name first, the first of them as an example. */
async function namesTurned(scope: Scope, bringIn: BringIn): Promise<BringInAnswer['names']> {
  const [found] = await scope.sql<{ count: number; example: string | null }>(
    `select count(*)::int as count, (array_agg(btrim(r.cells->>place) order by r.number))[1] as example
     from bring_in_row r cross join unnest($3::int[]) place
     where r.workspace_id = $1 and r.bring_in_id = $2 and r.cells->>place ~ '^[^,]*[^,\\s]\\s*,\\s*[^,\\s][^,]*$'`,
    [bringIn.id, placesOf(scope, bringIn, ({ isName }) => isName)],
  );
  const example = found?.example ?? null;
  return {
    count: found?.count ?? 0,
    isTurned: bringIn.asked.turnsNames === true,
    example: example?.slice(0, 80) ?? null,
    turned: example === null ? null : turnedName(example).slice(0, 80),
  };
}

async function datesTold(scope: Scope, bringIn: BringIn): Promise<BringInAnswer['dates']> {
  const { order, only, example, either } = await datesOf(scope, bringIn);
  const { dayOrder } = bringIn.asked;
  const other = dayOrder === 'day first' ? 'month first' : 'day first';
  return { order, example, either, sure: only[dayOrder], contrary: only[other] };
}

/** What bringing it in would do: it is read once more, written, looked at, and taken back. */
export async function impactOfBringIn(scope: Scope, id: string, version: number): Promise<Impact> {
  const before = await scope.one(BringIn, id, 'file');
  mustBeAllowed(scope, before.kind);
  const { impact } = WAYS[before.kind];
  if (impact === null) throw notNow('What that would do is what its lines say.');
  if (before.state === 'open') await checkRows(scope, before);
  return scope.rehearse(async (tx) => impact(tx, await lockedOpen(tx, id, version)));
}

/** Reads the file once more, and writes it if it is still what was looked at. */
export async function bringItIn(
  scope: Scope,
  id: string,
  { version, counts }: { readonly version: number; readonly counts: BringInCounts },
): Promise<void> {
  const before = await scope.one(BringIn, id, 'file');
  mustBeAllowed(scope, before.kind);
  if (before.state === 'open') await checkRows(scope, before);
  await scope.transaction(async (tx) => {
    const bringIn = await lockedOpen(tx, id, version);
    const now = await countsOf(tx, bringIn);
    if (JSON.stringify(now) !== JSON.stringify(counts))
      throw changedMeanwhile(
        'Since you looked, others have added or changed some of these. Nothing is written; it is shown anew.',
      );
    if (now.new + now.update === 0) throw notNow('There is nothing in this file to bring in.');
    await addNewFields(tx, bringIn);
    const others = await WAYS[bringIn.kind].write(tx, bringIn);
    const own = await tx.record('bringIn', id, 'brought in', { state: { from: 'open', to: 'done' } });
    const changeId = others.length === 0 ? own : await tx.joinChanges([own, ...others]);
    await tx.save(BringIn, id, { state: 'done', doneAt: tx.instant, changeId, version: bringIn.version + 1 });
    await tx.tell(...WAYS[bringIn.kind].topics);
  });
}

export async function discard(scope: Scope, id: string): Promise<boolean> {
  return scope.transaction(async (tx) => {
    const bringIn = await tx.locked(BringIn, id, 'file');
    mustBeAllowed(tx, bringIn.kind);
    if (bringIn.state !== 'open') throw notNow('What was brought in is kept: it can be taken out again.');
    await tx.sql('delete from bring_in where workspace_id = $1 and id = $2', [id]);
    return true;
  });
}

export async function listBringIns(scope: Scope) {
  const kinds = BRING_KINDS.filter((kind) => scope.mayAll(BRING_RIGHTS[kind]));
  const rows = await scope.sql<Pick<BringIn, 'id' | 'kind' | 'fileName' | 'rowCount' | 'state'> & { at: Date }>(
    `select id, kind, file_name as "fileName", row_count as "rowCount", state, coalesce(done_at, created_at) as at
     from bring_in where workspace_id = $1 and kind = any($2::text[]) order by created_at desc limit ${BRING_ROWS_A_PAGE}`,
    [kinds],
  );
  return rows.map(({ at, ...one }) => ({ ...one, at: scope.moment(at) }));
}
