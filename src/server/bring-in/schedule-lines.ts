import { In } from 'typeorm';
import { type Impact, type ScheduleInput, scheduleInputSchema } from '../../contract/index.ts';
import {
  type AssignmentRule,
  type CellContext,
  type CellSchedule,
  FRESH_TIMING,
  groupBy,
  isoOfDay,
  type LineProblem,
  plural,
  type Recurrence,
  readScheduleLine,
  textOfValue,
  writeScheduleLine,
} from '../../core/index.ts';
import type { ChangeEntry } from '../platform/changes/entity.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import { changedMeanwhile } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import {
  cellContext,
  impactOfTogether,
  lockedSchedules,
  type NewSchedule,
  newSchedule,
  peopleById,
  problemsOfPeople,
  rulesOf,
  Schedule,
  type ScheduleWrite,
  saveTogether,
  UNSEEN_ONLY,
  versioned,
} from '../schedules/index.ts';
import { Template } from '../templates/stored/index.ts';
import { effectOf } from './effect.ts';
import type { BringIn, BringInRow } from './entity.ts';
import { inColumns, namesHere, subjectOf, templateOf } from './names-here.ts';
import { writtenRows } from './out.ts';
import { pagesOf } from './pages.ts';
import { type ReadRow, type Told, UNREAD } from './read-row.ts';
import type { Sum } from './sum.ts';
import type { Look, Looking, Ways } from './ways.ts';

/** What a line of a file makes of a schedule: a new one, or another state of one that is there. */
export interface MadeSchedule {
  readonly input: ScheduleInput;
  /** Of the one that is there: in which version it was looked at. */
  readonly version: number | null;
}

/** What was written of such a line. */
export interface WrittenSchedule {
  readonly newScheduleId?: string;
  readonly scheduleId?: string;
}

/** Of one template, client and asset so many schedules are told apart. */
const MOST_ALIKE = 50;

const NEVER: Recurrence = { start: '2000-01-01', rules: [], end: { kind: 'never' }, dayOff: 'none' };

async function look(scope: Scope, { columns, fields }: Looking): Promise<Look> {
  const context = await cellContext(scope);
  const people = await peopleById(scope);
  const seen = new Map<string, number>();
  const known = (
    await scope.sql<{ name: string }>('select name from template where workspace_id = $1 and archived_at is null')
  ).map(({ name }) => name);
  return async (lines) => {
    const here = await namesHere(scope, lines);
    const subjects = new Map(
      lines.map((line) => {
        const { problems, ...subject } = subjectOf(line, here);
        const all = [...problems];
        const template = templateOf(line, here, all, known);
        return [line.number, { ...subject, template, problems: all }] as const;
      }),
    );
    const usual = await defaultsOf(
      scope,
      [...subjects.values()].flatMap(({ template }) => template?.id ?? []),
    );
    const alike = await alikeOf(scope, subjects);
    return eachInTurn(lines, (line): Told => {
      const { number, values } = line;
      const { template, clientId, assetId, problems } = subjects.get(number) ?? NO_SUBJECT;
      const title = textOfValue(values, 'template');
      const about = [textOfValue(values, 'asset') || textOfValue(values, 'client'), textOfValue(values, 'when')]
        .filter(Boolean)
        .join(', ');
      const left = (found: readonly LineProblem[]): Told => ({
        ...{ number, fate: 'left' },
        read: { ...UNREAD, title, about, values, problems: [...line.problems, ...inColumns(found, columns)] },
      });
      if (line.problems.length > 0 || problems.length > 0 || !template) return left(problems);
      const of = alike.get(number) ?? [];
      const readOn = (base: CellSchedule): ReadSchedule => {
        const said = readScheduleLine(values, base, context);
        if ('problems' in said) return said;
        const input = inputOf(said.schedule, { templateId: template.id, clientId, assetId });
        const wrong = problemsOf(scope, input, { people, context });
        return wrong.length > 0 ? { problems: wrong } : { schedule: said.schedule, input };
      };
      const states = of.map((one) => ({ one, state: cellsOf(one) }));
      // Before anything is asked of it: what is here may stay, though it could not be written anew.
      const same = states.find(({ state }) => {
        const said = readScheduleLine(values, state, context);
        return 'schedule' in said && isSameSchedule(said.schedule, state, context);
      });
      if (same)
        return {
          ...{ number, fate: 'same' },
          read: { ...UNREAD, title, about, values, targetId: same.one.id, why: 'it is here already' },
        };
      const [only, other] = states;
      if (only && !other) {
        const said = readOn(only.state);
        if ('problems' in said) return left(said.problems);
        const made: MadeSchedule = { input: said.input, version: only.one.version };
        return {
          ...{ number, fate: 'alike' },
          read: {
            ...{ ...UNREAD, title, about, values, made, targetId: only.one.id },
            why: 'the same template, client and asset',
            diffs: diffsOf(only.state, said.schedule, context, fields),
          },
        };
      }
      const said = readOn({
        ...{ recurrence: { ...NEVER, start: isoOfDay(scope.now.day) }, timing: FRESH_TIMING },
        ...{ pauses: [], exceptions: [], revisions: [], plans: null },
        assignment: usual.get(template.id) ?? { v: 1, kind: 'nobody' },
      });
      if ('problems' in said) return left(said.problems);
      const key = JSON.stringify(said.input);
      const twice = seen.get(key);
      if (twice !== undefined)
        return {
          ...{ number, fate: 'same' },
          read: { ...UNREAD, title, about, values, why: `says no more than line ${twice}` },
        };
      seen.set(key, number);
      const made: MadeSchedule = { input: said.input, version: null };
      return {
        ...{ number, fate: 'new' },
        read: {
          ...{ ...UNREAD, title, about, values, made },
          why:
            of.length === 0 ? '' : `there ${of.length === 1 ? 'is' : 'are'} ${plural(of.length, 'other')} of it here`,
        },
      };
    });
  };
}

type ReadSchedule =
  | { readonly problems: readonly LineProblem[] }
  | { readonly schedule: CellSchedule; readonly input: ScheduleInput };

const NO_SUBJECT = { template: null, clientId: null, assetId: null, problems: [] as LineProblem[] };

const inputOf = (
  { recurrence, timing, assignment, pauses, exceptions, revisions }: CellSchedule,
  of: Pick<ScheduleInput, 'templateId' | 'clientId' | 'assetId'>,
): ScheduleInput => ({
  ...of,
  ...{ assignment, recurrence, timing, overlap: { kind: 'add' } },
  ...{ pauses: [...pauses], exceptions: [...exceptions], revisions: [...revisions] },
});

/** What is wrong with a schedule as a whole: beyond what there can be, of people who can't have it, or too much to reckon. */
function problemsOf(
  scope: Scope,
  input: ScheduleInput,
  { people, context }: { people: Awaited<ReturnType<typeof peopleById>>; context: CellContext },
): LineProblem[] {
  const parsed = scheduleInputSchema.safeParse(input);
  if (!parsed.success) return parsed.error.issues.slice(0, 1).map(({ message }) => ({ key: 'when', message }));
  return [
    ...problemsOfPeople(scope, input, people, null).map(({ message }) => ({ key: 'who', message })),
    ...rulesOf(input, context.calendar, context.today).map(({ message }) => ({ key: 'when', message })),
  ].slice(0, 1);
}

async function defaultsOf(scope: Scope, ids: readonly string[]): Promise<ReadonlyMap<string, AssignmentRule>> {
  const templates = await scope.find(Template, { id: In([...new Set(ids)]) });
  return new Map(templates.map(({ id, assignment }) => [id, assignment]));
}

/** Schedules of the same template, client and asset, by line. */
async function alikeOf(
  scope: Scope,
  subjects: ReadonlyMap<number, { template: { id: string } | null; clientId: string | null; assetId: string | null }>,
): Promise<ReadonlyMap<number, Schedule[]>> {
  const asked = [...subjects].flatMap(([number, { template, clientId, assetId }]) =>
    template ? [{ number, template: template.id, client: clientId, asset: assetId }] : [],
  );
  const rows = await scope.sql<{ number: number; id: string }>(
    `select line.number, s.id from jsonb_to_recordset($2::jsonb) as line (number integer, template uuid, client uuid, asset uuid)
     cross join lateral (
       select s.id from schedule s where s.workspace_id = $1 and s.template_id = line.template and s.deleted_at is null
         and s.client_id is not distinct from line.client and s.asset_id is not distinct from line.asset
       order by s.id limit ${MOST_ALIKE}) s`,
    [JSON.stringify(asked)],
  );
  const found = await scope.find(Schedule, { id: In([...new Set(rows.map(({ id }) => id))]) });
  const byId = new Map(found.map((schedule) => [schedule.id, schedule]));
  return new Map(
    [...groupBy(rows, ({ number }) => number)].map(([number, of]) => [
      number,
      of.flatMap(({ id }) => byId.get(id) ?? []),
    ]),
  );
}

/** A schedule that is here, as the cells of a worksheet. */
const cellsOf = ({
  recurrence,
  timing,
  assignment,
  pauses,
  exceptions,
  revisions,
  overlap,
}: Schedule): CellSchedule => ({
  ...{ recurrence, timing, assignment, pauses, exceptions, revisions, overlap },
  plans: null,
});

function isSameSchedule(one: CellSchedule, other: CellSchedule, context: CellContext): boolean {
  const [a, b] = [writeScheduleLine(one, context), writeScheduleLine(other, context)];
  return Object.keys(a).every((key) => a[key] === b[key]);
}

function diffsOf(
  from: CellSchedule,
  to: CellSchedule,
  context: CellContext,
  fields: Looking['fields'],
): ReadRow['diffs'] {
  const [before, after] = [writeScheduleLine(from, context), writeScheduleLine(to, context)];
  return Object.keys(after).flatMap((key) =>
    before[key] === after[key]
      ? []
      : [{ name: fields.get(key)?.name ?? key, from: before[key] ?? '', to: after[key] ?? '' }],
  );
}

/** Writes the schedules of a file, with the tasks that they owe today. */
async function write(scope: Scope, bringIn: BringIn): Promise<readonly string[]> {
  const changeIds: string[] = [];
  for await (const rows of pagesOf(scope, bringIn, 'number, fate, choice, read')) {
    const saved = await writeSchedulesOf(scope, bringIn, rows);
    changeIds.push(...(await scope.recordEach(saved)));
  }
  return changeIds;
}

/** The schedules of a page of lines, with the lines that they are of. */
async function togetherOf(scope: Scope, { kind }: Pick<BringIn, 'kind'>, rows: readonly BringInRow[]) {
  const madeOf = (read: ReadRow) => read.made as MadeSchedule;
  const changed = rows.filter((row) => effectOf(kind, row) === 'update');
  const fresh = rows.filter((row) => effectOf(kind, row) === 'new');
  const locked = await lockedSchedules(
    scope,
    changed.map(({ read }) => read.targetId ?? ''),
  );
  const writes = changed.map(({ read }): ScheduleWrite => {
    const before = locked.get(read.targetId ?? '');
    const { input, version } = madeOf(read);
    if (!before || before.version !== version)
      throw changedMeanwhile(
        'Somebody has changed some of these schedules meanwhile. Nothing is written; look once more.',
      );
    const { assignment, recurrence, timing, revisions } = input;
    return { before, set: versioned({ assignment, recurrence, timing, revisions }) };
  });
  return { changed, fresh, writes, added: fresh.map(({ read }) => newSchedule(madeOf(read).input)) };
}

/** Writes the schedules of a page of lines; gives what is to be recorded of them. */
export async function writeSchedulesOf(
  scope: Scope,
  bringIn: BringIn,
  rows: readonly BringInRow[],
): Promise<ChangeEntry[]> {
  const { changed, fresh, ...together } = await togetherOf(scope, bringIn, rows);
  const { entries } = await saveTogether(scope, together, UNSEEN_ONLY);
  // Those that are changed stand before those that are new, each in its order.
  const written = [...changed, ...fresh].map(({ number }, i): { number: number; before: WrittenSchedule } => {
    const id = entries[i]?.subjectId ?? '';
    return { number, before: i < changed.length ? { scheduleId: id } : { newScheduleId: id } };
  });
  await keepWritten(scope, bringIn, written);
  return entries;
}

/** Keeps what was written of lines, so that it can be taken out again. */
export const keepWritten = (
  scope: Scope,
  { id }: Pick<BringIn, 'id'>,
  written: readonly { readonly number: number; readonly before: object }[],
) =>
  scope.sql(
    `update bring_in_row r set before = now.before from jsonb_to_recordset($3::jsonb) as now (number integer, before jsonb)
     where r.workspace_id = $1 and r.bring_in_id = $2 and r.number = now.number`,
    [id, JSON.stringify(written)],
  );

/** Undone, new ones are deleted by then: those that nothing speaks of go for good. */
async function takeOut(scope: Scope, bringIn: BringIn, sum: Sum): Promise<void> {
  for await (const rows of writtenRows(scope, bringIn)) await schedulesOut(scope, rows, sum);
}

export async function schedulesOut(
  scope: Scope,
  rows: readonly Pick<BringInRow, 'read' | 'before'>[],
  sum: Sum,
): Promise<void> {
  const written = rows.map(({ before, read }) => ({ ...(before as WrittenSchedule), title: read.title }));
  const ids = written.flatMap(({ newScheduleId }) => newScheduleId ?? []);
  const gone = await scope.sql<{ id: string }>(
    `delete from schedule s where workspace_id = $1 and id = any($2::uuid[]) and deleted_at is not null
       and not exists (select from task t where t.workspace_id = $1 and t.schedule_id = s.id)
       and not exists (select from turn_swap w where w.workspace_id = $1 and w.schedule_id = s.id) returning id`,
    [ids],
  );
  const out = new Set(gone.map(({ id }) => id));
  sum.out += out.size;
  sum.back += written.filter(({ scheduleId }) => scheduleId !== undefined).length;
  for (const { newScheduleId, title } of written)
    if (newScheduleId !== undefined && !out.has(newScheduleId)) sum.stay.add(title);
}

/** What writing them would do: the lines of all pages together. */
async function impact(scope: Scope, bringIn: BringIn): Promise<Impact> {
  const together: { writes: ScheduleWrite[]; added: NewSchedule[] } = { writes: [], added: [] };
  for await (const rows of pagesOf(scope, bringIn, 'number, fate, choice, read')) {
    const { writes, added } = await togetherOf(scope, bringIn, rows);
    together.writes.push(...writes);
    together.added.push(...added);
  }
  return impactOfTogether(scope, together, UNSEEN_ONLY);
}

export const scheduleWays: Ways = { look, write, takeOut, impact };
