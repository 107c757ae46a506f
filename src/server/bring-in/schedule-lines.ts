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
import { inColumns, type NamesHere, namesHere, nearest, subjectOf, templateOf } from './names-here.ts';
import { writtenRows } from './out.ts';
import { keepWritten, pagesOf } from './pages.ts';
import { type Line, type ReadRow, type Told, UNREAD } from './read-row.ts';
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

/** What lines are held against. */
interface Around extends Looking {
  readonly scope: Scope;
  readonly context: CellContext;
  readonly people: Awaited<ReturnType<typeof peopleById>>;
  readonly nearestTemplate: (name: string) => string | null;
  /** Schedules that a line of the file is about already, and new ones by what they say: by the number of the line. */
  readonly taken: Map<string, number>;
  readonly fresh: Map<string, number>;
}

/** A line with what it names. */
interface Subject {
  readonly line: Line;
  readonly template: { readonly id: string } | null;
  readonly clientId: string | null;
  readonly assetId: string | null;
  readonly problems: readonly LineProblem[];
}

async function look(scope: Scope, looking: Looking): Promise<Look> {
  const names = await scope.sql<{ name: string }>(
    'select name from template where workspace_id = $1 and archived_at is null',
  );
  const around: Around = {
    ...{ ...looking, scope, context: await cellContext(scope), people: await peopleById(scope) },
    ...{ nearestTemplate: nearest(names.map(({ name }) => name)), taken: new Map(), fresh: new Map() },
  };
  return async (lines) => {
    const here = await namesHere(scope, lines);
    const subjects = await eachInTurn(lines, (line) => subjectOfLine(line, here, around));
    const usual = await defaultsOf(
      scope,
      subjects.flatMap(({ template }) => template?.id ?? []),
    );
    const alike = await alikeOf(scope, subjects);
    const of = ({ line }: Subject) => alike.get(line.number) ?? [];
    // Those that say what is here already come first: no other line is about the same one then.
    const same = await eachInTurn(subjects, (subject) => sameAs(subject, of(subject), around));
    return eachInTurn(
      subjects.map((subject, i) => [subject, same[i]] as const),
      ([subject, there]) => there ?? lookAt(subject, of(subject), usual, around),
    );
  };
}

function subjectOfLine(line: Line, here: NamesHere, { nearestTemplate }: Around): Subject {
  const { problems, ...subject } = subjectOf(line, here);
  const template = templateOf(line, here);
  if (!('problem' in template)) return { line, ...subject, template: template.one, problems };
  const { problem, isUnknown } = template;
  const near = isUnknown ? nearestTemplate(textOfValue(line.values, 'template')) : null;
  const offers = near === null ? [] : [near];
  return { line, ...subject, template: null, problems: [...problems, { ...problem, offers }] };
}

/** A line as it is told, but for what becomes of it. */
function told({ number, values }: Line): Pick<Told, 'number'> & { readonly read: ReadRow } {
  const about = [textOfValue(values, 'asset') || textOfValue(values, 'client'), textOfValue(values, 'when')];
  return {
    number,
    read: { ...UNREAD, values, title: textOfValue(values, 'template'), about: about.filter(Boolean).join(', ') },
  };
}

/** A line that says what is here already. Nothing else is asked of it: what is here may stay, though it could not be written anew. */
function sameAs({ line, problems }: Subject, there: readonly Schedule[], { context, taken }: Around): Told | null {
  if (line.problems.length > 0 || problems.length > 0) return null;
  const same = there.find((one) => {
    const state = cellsOf(one);
    const said = readScheduleLine(line.values, state, context);
    return 'schedule' in said && isSameSchedule(said.schedule, state, context);
  });
  if (!same) return null;
  taken.set(same.id, line.number);
  const { number, read } = told(line);
  return { number, fate: 'same', read: { ...read, targetId: same.id, why: 'it is here already' } };
}

function lookAt(
  { line, template, clientId, assetId, problems }: Subject,
  there: readonly Schedule[],
  usual: ReadonlyMap<string, AssignmentRule>,
  around: Around,
): Told {
  const { scope, context, people, fields, columns, taken, fresh } = around;
  const { number, read } = told(line);
  const left = (found: readonly LineProblem[]): Told => ({
    ...{ number, fate: 'left' },
    read: { ...read, problems: [...line.problems, ...inColumns(found, columns)] },
  });
  if (line.problems.length > 0 || problems.length > 0 || !template) return left(problems);
  const readOn = (base: CellSchedule): ReadSchedule => {
    const said = readScheduleLine(line.values, base, context);
    if ('problems' in said) return said;
    const input = inputOf(said.schedule, { templateId: template.id, clientId, assetId });
    const wrong = problemsOf(scope, input, { people, context });
    return wrong.length > 0 ? { problems: wrong } : { schedule: said.schedule, input };
  };
  const [only, other] = there;
  // One that another line of the file is about is not this one.
  if (only && !other && !taken.has(only.id)) {
    const state = cellsOf(only);
    const said = readOn(state);
    if ('problems' in said) return left(said.problems);
    taken.set(only.id, number);
    const made: MadeSchedule = { input: said.input, version: only.version };
    const diffs = diffsOf(state, said.schedule, context, fields);
    return {
      ...{ number, fate: 'alike' },
      read: { ...read, made, diffs, targetId: only.id, why: 'the same template, client and asset' },
    };
  }
  const said = readOn({
    ...{ recurrence: { ...NEVER, start: isoOfDay(scope.now.day) }, timing: FRESH_TIMING },
    ...{ pauses: [], exceptions: [], revisions: [], plans: null },
    assignment: usual.get(template.id) ?? { v: 1, kind: 'nobody' },
  });
  if ('problems' in said) return left(said.problems);
  const key = JSON.stringify(said.input);
  const twice = fresh.get(key);
  if (twice !== undefined) return { number, fate: 'same', read: { ...read, why: `says no more than line ${twice}` } };
  fresh.set(key, number);
  const made: MadeSchedule = { input: said.input, version: null };
  const others = there.length;
  const why = others === 0 ? '' : `there ${others === 1 ? 'is' : 'are'} ${plural(others, 'other')} of it here`;
  return { number, fate: 'new', read: { ...read, made, why } };
}

type ReadSchedule =
  | { readonly problems: readonly LineProblem[] }
  | { readonly schedule: CellSchedule; readonly input: ScheduleInput };

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
async function alikeOf(scope: Scope, subjects: readonly Subject[]): Promise<ReadonlyMap<number, Schedule[]>> {
  const asked = subjects.flatMap(({ line: { number }, template, clientId, assetId }) =>
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

export const scheduleWays: Ways<true> = { look, write, takeOut, impact, topics: ['schedules', 'tasks', 'templates'] };
