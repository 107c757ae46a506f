import { createHash } from 'node:crypto';
import { In } from 'typeorm';
import { type Impact, linkSchema, type ScheduleInput, scheduleInputSchema } from '../../../contract/index.ts';
import {
  type AssignmentRule,
  type CellContext,
  civilDay,
  dayOfIso,
  ENTRY_FATES,
  type Entry,
  type EntryMeaning,
  type EntryPerson,
  type EntryWork,
  givenTo,
  groupBy,
  joinAnd,
  meaningOf,
  nameKey,
  type Offer,
  plural,
  readDaysOff,
  sayDay,
  sayRule,
  textOfValue,
  writeScheduleLine,
  yearMonthDay,
} from '../../../core/index.ts';
import { eachInTurn } from '../../platform/in-turn.ts';
import { changedMeanwhile } from '../../platform/refusal.ts';
import { fieldChanges, type Scope } from '../../platform/scope.ts';
import {
  cellContext,
  impactOf,
  insertSchedules,
  lockedSchedules,
  newSchedule,
  peopleById,
  plannedYear,
  problemsOfPeople,
  rulesOf,
  Schedule,
  type ScheduleWrite,
  saveRows,
  saveTogether,
  scheduleRows,
  UNSEEN_ONLY,
  versioned,
} from '../../schedules/index.ts';
import { type AddedDaysOff, addDaysOff, writeDaysOff } from '../../settings/index.ts';
import { plainTask } from '../../tasks/index.ts';
import {
  farDay,
  insertTasks,
  lockedTasks,
  type NewTask,
  saveTasks,
  type Task,
  tasksByIds,
} from '../../tasks/stored/index.ts';
import type { Template } from '../../templates/stored/index.ts';
import { effectOf } from '../effect.ts';
import { type BringIn, type BringInRow, CalendarOrigin } from '../entity.ts';
import { tasksOut } from '../finished-or-not.ts';
import { writtenRows } from '../out.ts';
import { pagesOf } from '../pages.ts';
import { type Line, type ReadRow, type Told, UNREAD } from '../read-row.ts';
import { keepWritten, schedulesOut } from '../schedule-lines.ts';
import type { Sum } from '../sum.ts';
import { asParagraphs, blank, insertTemplate, templatesOut } from '../template-lines.ts';
import { minutesOf } from '../usual-minutes.ts';
import type { Look, Looking, Ways } from '../ways.ts';
import { readEntry } from './entry.ts';
import { calendarPeople, calendarZones } from './meant.ts';
import { personKey } from './person-key.ts';

/** What is written of an entry. */
interface MadeEntry {
  readonly uid: string;
  /** Of what the calendar says of it: the same where nothing has changed there. */
  readonly hash: string;
  readonly work: {
    readonly name: string;
    readonly instructions: string;
    readonly links: Template['links'];
    readonly category: string | null;
    readonly priority: NewTask['priority'];
    /** Null where it does not say how long it takes. */
    readonly minutes: number | null;
  };
  readonly of:
    | {
        readonly becomes: 'schedule';
        readonly input: Omit<ScheduleInput, 'templateId'>;
        readonly version: number | null;
      }
    | {
        readonly becomes: 'task';
        readonly on: string;
        readonly dueOn: string;
        readonly startTime: string | null;
        readonly dueTime: string | null;
        readonly assigneeId: string | null;
        readonly offeredTo: Offer | null;
        readonly version: number | null;
      }
    | { readonly becomes: 'template' }
    | { readonly becomes: 'days off'; readonly days: readonly { readonly date: string; readonly name: string }[] };
}

interface WrittenEntry {
  readonly newScheduleId?: string;
  readonly scheduleId?: string;
  readonly newTaskId?: string;
  readonly taskId?: string;
  readonly newTemplateId?: string;
  readonly daysOff?: number;
  /** What was known of it before, to be known again. */
  readonly hashBefore?: string;
}

/** Days off are told for so many years to come. */
const YEARS_AHEAD = 5;
const NO_TEMPLATE = '00000000-0000-4000-8000-000000000000';

async function look(scope: Scope, { bringIn }: Looking): Promise<Look> {
  const cells = await cellContext(scope);
  const people = await peopleById(scope);
  const meant = await calendarPeople(scope, bringIn);
  const zones = calendarZones(bringIn);
  const { day: today } = scope.now;
  const { calendar: said } = bringIn.asked;
  if (!said) throw new Error('A calendar is read with what was said of it.');
  const context = {
    ...{ today, zone: scope.workspace.zone, calendar: cells.calendar, choices: said.choices },
    zoneOf: (tzid: string) => zones.get(tzid) ?? null,
  };
  const until = civilDay(yearMonthDay(today).year + YEARS_AHEAD, 12, 31);
  const ofDay = (part: string, name: string) =>
    readDaysOff(`BEGIN:VCALENDAR\n${part}`, today, until).days.map(({ date }) => ({ date, name }));
  const holidays = new Set((await scope.calendar()).holidays.keys());
  return async (lines) => {
    const read = await eachInTurn(lines, (line) => readLine(line));
    const there = await originsOf(
      scope,
      read.flatMap(({ uid }) => uid),
    );
    return eachInTurn(read, ({ line, entry, problem, uid, hash }): Told => {
      const { number } = line;
      const part = entry?.main ?? entry?.changed[0];
      const title = part?.summary ?? uid;
      const base: ReadRow = { ...UNREAD, title };
      const left = (why: string): Told => ({ number, fate: 'left', read: { ...base, why } });
      if (!entry || !part) return left(problem ?? 'It says nothing');
      const unknown = [part.start, part.end, ...part.added].find(
        (time) => time?.zone && time.zone !== 'UTC' && (zones.get(time.zone) ?? null) === null,
      );
      if (unknown?.zone)
        return left(`Its times are in “${unknown.zone}”, which is no zone known here: say which it is`);
      const fate = ENTRY_FATES.find((one) => one === textOfValue(line.values, 'becomes')) ?? null;
      const meaning = meaningOf(entry, fate, context);
      const origin = there.get(uid);
      if (meaning.becomes === 'left out')
        return left(`${capital(meaning.why)}${origin && origin.hash !== OURS ? '; what came of it here stays' : ''}`);
      if (meaning.becomes === 'days off') {
        if (!scope.mayAll('settings')) return left('Only a manager can set days off');
        const days = ofDay(textOfValue(line.values, 'entry'), meaning.name);
        if (days.length === 0) return left('It is over, or lies more than five years ahead');
        const news = days.filter(({ date }) => !holidays.has(dayOfIso(date)));
        const about = `${plural(days.length, 'day')} off, ${sayDay(dayOfIso(days[0]?.date ?? ''), today)}${days.length > 1 ? ' first' : ''}`;
        if (news.length === 0) return { number, fate: 'same', read: { ...base, about, why: 'off already' } };
        const made = {
          uid,
          hash,
          work: workOf(scope, { ...EMPTY, name: title }, []),
          of: { becomes: 'days off', days: news },
        } satisfies MadeEntry;
        return { number, fate: 'new', read: { ...base, about, made } };
      }
      const { ids, unknown: strangers } = whoOf(meaning.work.people, meant);
      const notes = [
        ...meaning.unsaid,
        ...(strangers.length > 0
          ? [`With ${joinAnd(strangers)}, who ${strangers.length === 1 ? 'is' : 'are'} not here`]
          : []),
      ];
      const work = workOf(scope, meaning.work, strangers);
      const who = ids.length === 0 && said.ownerId !== null ? [said.ownerId] : ids;
      const made = madeOf({ meaning, uid, hash, work, who, several: said.several });
      const wrong = problemOf(scope, made, { people, cells });
      if (wrong !== null) return left(wrong);
      const about = sayEntry(made, cells);
      const more = { ...base, about, why: notes.join('; ') };
      if (!origin) return { number, fate: 'new', read: { ...more, made } };
      if (origin.hash === OURS)
        return { number, fate: 'same', read: { ...more, why: 'it was taken out of here, and is here still' } };
      if (origin.hash === hash)
        return { number, fate: 'same', read: { ...more, why: 'it is here already, and unchanged since' } };
      if (made.of.becomes !== origin.is)
        return { number, fate: 'same', read: { ...more, why: `it is here already, as a ${origin.is}` } };
      if (made.of.becomes === 'template')
        return {
          number,
          fate: 'same',
          read: { ...more, why: 'it is here already: a template is changed on its own page' },
        };
      if (origin.isOver) return { number, fate: 'same', read: { ...more, why: 'it is here already, and over' } };
      return {
        ...{ number, fate: 'alike' },
        read: {
          ...more,
          diffs: diffsOf(origin, made, cells),
          targetId: origin.id,
          made: 'version' in made.of ? { ...made, of: { ...made.of, version: origin.version } } : made,
          why: ['the same entry, changed since it was brought in', more.why].filter(Boolean).join('; '),
        },
      };
    });
  };
}

const capital = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;
const EMPTY: EntryWork = { name: '', text: '', url: '', categories: [], priority: 'normal', minutes: null, people: [] };

function readLine(line: Line) {
  const uid = textOfValue(line.values, 'uid');
  const text = textOfValue(line.values, 'entry');
  const hash = createHash('sha256')
    .update(text.replace(/^(DTSTAMP|LAST-MODIFIED|CREATED)[^\r\n]*\r?\n/gim, ''))
    .digest('hex');
  let entry: Entry | null = null;
  let problem: string | null = null;
  try {
    entry = readEntry(uid, text);
  } catch (error) {
    problem = error instanceof Error ? error.message : 'It can’t be read';
  }
  return { line: { ...line, values: line.values }, entry, problem, uid, hash };
}

/** People of an entry who are here, each once, and the names of the others. */
function whoOf(people: readonly EntryPerson[], meant: ReadonlyMap<string, string | null>) {
  const ids = new Set<string>();
  const unknown = new Set<string>();
  for (const person of people) {
    const id = meant.get(personKey(person)) ?? null;
    if (id !== null) ids.add(id);
    else unknown.add(person.name || person.mail);
  }
  return { ids: [...ids], unknown: [...unknown].filter(Boolean) };
}

function workOf(scope: Scope, work: EntryWork, strangers: readonly string[]): MadeEntry['work'] {
  const link = linkSchema.safeParse({ title: '', url: work.url });
  const category = scope.workspace.categories.find(({ name }) =>
    work.categories.some((one) => one.toLowerCase() === name.toLowerCase()),
  );
  const others = work.categories.filter((one) => one.toLowerCase() !== category?.name.toLowerCase());
  const text = [
    work.text,
    strangers.length > 0 ? `With ${joinAnd(strangers)}` : '',
    others.length > 0 ? `Filed under: ${others.join(', ')}` : '',
    work.url !== '' && !link.success ? work.url : '',
  ]
    .filter(Boolean)
    .join('\n\n');
  return {
    name: work.name,
    instructions: text === '' ? '' : asParagraphs(text),
    links: link.success ? [link.data] : [],
    category: category?.name ?? null,
    ...{ priority: work.priority, minutes: work.minutes },
  };
}

function madeOf({
  meaning,
  uid,
  hash,
  work,
  who,
  several,
}: {
  readonly meaning: Exclude<EntryMeaning, { becomes: 'left out' | 'days off' }>;
  readonly uid: string;
  readonly hash: string;
  readonly work: MadeEntry['work'];
  readonly who: readonly string[];
  readonly several: 'each of' | 'any of';
}): MadeEntry {
  const base = { uid, hash, work };
  const [only = null] = who;
  if (meaning.becomes === 'template') return { ...base, of: { becomes: 'template' } };
  if (meaning.becomes === 'task') {
    const { on, dueOn, startTime, dueTime } = meaning;
    return {
      ...base,
      of: {
        ...{ becomes: 'task', on, dueOn, startTime, dueTime, version: null },
        assigneeId: who.length === 1 ? only : null,
        offeredTo: who.length > 1 ? { of: 'people', ids: [...who] } : null,
      },
    };
  }
  const group = { of: 'people', ids: [...who] } as const;
  const assignment: AssignmentRule =
    who.length < 2
      ? givenTo(only)
      : several === 'each of'
        ? { v: 1, kind: 'eachOf', group, daysOffToo: true }
        : { v: 1, kind: 'anyOf', group };
  const { recurrence, timing, exceptions, revisions } = meaning;
  return {
    ...base,
    of: {
      becomes: 'schedule',
      version: null,
      input: {
        ...{ clientId: null, assetId: null, assignment, recurrence, timing, overlap: { kind: 'add' } },
        ...{ pauses: [], exceptions: [...exceptions], revisions: [...revisions] },
      },
    },
  };
}

/** Why it can't be written, by the limits that there are on the pages for it; null where it can. */
function problemOf(
  scope: Scope,
  { of, work }: MadeEntry,
  { people, cells }: { readonly people: Awaited<ReturnType<typeof peopleById>>; readonly cells: CellContext },
): string | null {
  if (of.becomes === 'task') return farDay(scope, { on: of.on, dueOn: of.dueOn })?.message ?? null;
  if (work.name.replace(/[{}]/g, '').trim() === '') return 'Its name is made of braces alone';
  if (of.becomes !== 'schedule') return null;
  const input = { ...of.input, templateId: NO_TEMPLATE };
  const parsed = scheduleInputSchema.safeParse(input);
  if (!parsed.success) return parsed.error.issues[0]?.message ?? 'It is more than a schedule can hold';
  return (
    problemsOfPeople(scope, input, people, null)[0]?.message ??
    rulesOf(input, cells.calendar, cells.today)[0]?.message ??
    null
  );
}

/** "schedule, every second Tuesday at 09:00, Maud Ferrier" */
function sayEntry({ of, work }: MadeEntry, context: CellContext): string {
  switch (of.becomes) {
    case 'schedule': {
      const { recurrence, timing, exceptions, revisions, assignment } = of.input;
      // Dates that are taken out are counted, not listed.
      const { when } = writeScheduleLine(
        {
          recurrence: { ...recurrence, except: [] },
          timing,
          exceptions,
          revisions,
          assignment,
          pauses: [],
          plans: null,
        },
        context,
      );
      const out = (recurrence.except ?? []).length + exceptions.length;
      const exception = out === 0 ? '' : plural(out, 'exception');
      const who = assignment.kind === 'nobody' ? '' : sayRule(assignment, context);
      const time =
        timing.startTime === null ? '' : ` at ${timing.startTime}${timing.zone === null ? '' : ` (${timing.zone})`}`;
      return [`schedule${time}: ${when}`, exception, who].filter(Boolean).join(', ');
    }
    case 'task': {
      const who = of.assigneeId === null ? '' : sayRule(givenTo(of.assigneeId), context);
      return [
        `task: ${sayDay(dayOfIso(of.on), context.today)}${of.startTime === null ? '' : ` at ${of.startTime}`}`,
        who,
      ]
        .filter(Boolean)
        .join(', ');
    }
    case 'template':
      return `template${work.minutes === null ? '' : `, ${work.minutes} min`}`;
    case 'days off':
      return plural(of.days.length, 'day off', 'days off');
  }
}

interface Origin {
  readonly uid: string;
  readonly hash: string;
  readonly is: 'schedule' | 'task' | 'template';
  readonly id: string;
  readonly version: number;
  /** Whether it is a task that is finished, or was skipped: nothing is done with it any more. */
  readonly isOver: boolean;
  readonly schedule: Schedule | null;
  readonly task: Pick<Task, 'title' | 'workOn' | 'dueOn' | 'startTime' | 'dueTime'> | null;
}

/** What would change of what is here, in words. */
function diffsOf({ schedule, task }: Origin, { of, work }: MadeEntry, context: CellContext): ReadRow['diffs'] {
  const texts = (): readonly (readonly [name: string, from: string, to: string])[] => {
    if (schedule && of.becomes === 'schedule') {
      const [from, to] = [schedule, of.input].map((one) => wordsOf(one, context));
      return Object.keys(to ?? {}).map((name) => [name, from?.[name] ?? '', to?.[name] ?? ''] as const);
    }
    if (!task || of.becomes !== 'task') return [];
    const span = (one: { startTime: string | null; dueTime: string | null }) =>
      [one.startTime, one.dueTime].filter(Boolean).join(' to ');
    return [
      ['title', task.title, work.name],
      ['day', task.workOn, of.on],
      ['due', task.dueOn, of.dueOn],
      ['time', span(task), span(of)],
    ];
  };
  return texts().flatMap(([name, from, to]) => (from === to ? [] : [{ name, from, to: to || 'none' }]));
}

/** A schedule as its entry would say it, by words of its parts. */
function wordsOf(
  { recurrence, timing, exceptions, assignment }: Omit<ScheduleInput, 'templateId'> | Schedule,
  context: CellContext,
): Record<string, string> {
  // Words of its own that it has, and what holds from a later day on, say nothing of its rule today.
  const cells = { recurrence, timing, exceptions, revisions: [], assignment, pauses: [], plans: null };
  const { when = '', who = '' } = writeScheduleLine({ ...cells, recurrence: { ...recurrence, except: [] } }, context);
  const out = (recurrence.except ?? []).length + exceptions.length;
  return {
    ...{ when, who, from: recurrence.start },
    time: [timing.startTime, timing.dueTime].filter(Boolean).join(' to '),
    exceptions: out === 0 ? '' : String(out),
    reminders: timing.reminders.length === 0 ? '' : String(timing.reminders.length),
  };
}

/** Of an entry that was taken out of here: what it is of is here, whatever it says. */
const OURS = 'ours';
const OUR_UID = /^(?:schedule-)?([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}).*@jolly-rota\.local$/;

async function takenOutHere(scope: Scope, uids: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const ids = new Map(
    uids
      .flatMap((uid) => [[uid, OUR_UID.exec(uid)?.[1]] as const])
      .filter((one): one is [string, string] => one[1] !== undefined),
  );
  const rows = await scope.sql<{ id: string }>(
    `select id from schedule where workspace_id = $1 and id = any($2::uuid[]) and deleted_at is null
     union select id from task where workspace_id = $1 and id = any($2::uuid[])`,
    [[...ids.values()]],
  );
  const here = new Set(rows.map(({ id }) => id));
  return new Map([...ids].filter(([, id]) => here.has(id)));
}

/** What is here of entries that were brought in before, by UID; what is gone since counts as never brought in. */
async function originsOf(scope: Scope, uids: readonly string[]): Promise<ReadonlyMap<string, Origin>> {
  const rows = await scope.sql<Omit<Origin, 'schedule' | 'task'>>(
    `select o.uid, o.hash, x.is, x.id, x.version, x.over as "isOver" from calendar_origin o cross join lateral (
       select 'schedule' as is, s.id, s.version, false as over from schedule s where s.workspace_id = $1 and s.id = o.schedule_id and s.deleted_at is null
       union all select 'task', t.id, t.version, t.state not in ('open', 'underWay') from task t where t.workspace_id = $1 and t.id = o.task_id
       union all select 'template', p.id, p.version, false from template p where p.workspace_id = $1 and p.id = o.template_id and p.archived_at is null) x
     where o.workspace_id = $1 and o.uid = any($2::text[])`,
    [uids],
  );
  const idsOf = (is: Origin['is']) => rows.filter((row) => row.is === is).map(({ id }) => id);
  const schedules = new Map((await scope.find(Schedule, { id: In(idsOf('schedule')) })).map((one) => [one.id, one]));
  const tasks = new Map((await tasksByIds(scope, idsOf('task'))).map((one) => [one.id, one]));
  const known = new Map<string, Origin>(
    rows.map((row) => [row.uid, { ...row, schedule: schedules.get(row.id) ?? null, task: tasks.get(row.id) ?? null }]),
  );
  const ours = { hash: OURS, is: 'schedule', version: 0, isOver: false, schedule: null, task: null } as const;
  for (const [uid, id] of await takenOutHere(scope, uids)) if (!known.has(uid)) known.set(uid, { uid, id, ...ours });
  return known;
}

/** Entries of a file that are written, with what becomes of each. */
async function* going(scope: Scope, bringIn: BringIn): AsyncGenerator<{ fresh: Going[]; changed: Going[] }> {
  for await (const rows of pagesOf(scope, bringIn, 'number, fate, choice, read')) {
    const of = (effect: 'new' | 'update') =>
      rows.flatMap(({ number, read, ...row }) =>
        effectOf(bringIn.kind, row) === effect ? [{ number, read, made: read.made as MadeEntry }] : [],
      );
    yield { fresh: of('new'), changed: of('update') };
  }
}
interface Going {
  readonly number: number;
  readonly read: ReadRow;
  readonly made: MadeEntry;
}

/** Days off of all entries, each once. */
async function daysOffOf(scope: Scope, bringIn: BringIn): Promise<{ date: string; name: string }[]> {
  const days = new Map<string, string>();
  for await (const { fresh } of going(scope, bringIn))
    for (const { made } of fresh)
      if (made.of.becomes === 'days off')
        for (const { date, name } of made.of.days) if (!days.has(date)) days.set(date, name);
  return [...days].map(([date, name]) => ({ date, name }));
}

/** Templates by what they say, so that entries that say the same share one, and those that the file brought. */
interface Shared {
  readonly byWords: Map<string, string>;
  readonly made: Set<string>;
}

const noneShared = (): Shared => ({ byWords: new Map(), made: new Set() });

/** Templates in use before the file came, by their plain names. */
type TemplatesHere = ReadonlyMap<string, readonly { readonly id: string }[]>;

const templatesHere = async (scope: Scope): Promise<TemplatesHere> =>
  groupBy(
    await scope.sql<{ id: string; name: string }>(
      'select id, name from template where workspace_id = $1 and archived_at is null',
    ),
    ({ name }) => nameKey(name),
  );

/** Template, and what the schedule says of its own where it is one that was there already. */
async function templateFor(
  scope: Scope,
  bringIn: BringIn,
  work: MadeEntry['work'],
  shared: Shared,
  changeIds: string[],
  here: TemplatesHere,
): Promise<{ readonly id: string; readonly isNew: boolean }> {
  const key = JSON.stringify([nameKey(work.name), work.instructions, work.minutes, work.priority]);
  const known = shared.byWords.get(key);
  if (known !== undefined) return { id: known, isNew: false };
  const [only, other] = here.get(nameKey(work.name)) ?? [];
  if (only && !other) {
    shared.byWords.set(key, only.id);
    return { id: only.id, isNew: false };
  }
  const { id, changeId } = await insertTemplate(scope, {
    ...blank(work.name, work.minutes ?? minutesOf(bringIn)),
    titlePattern: work.name.replace(/[{}]/g, '').trim(),
    ...{ instructions: work.instructions, links: work.links, category: work.category, priority: work.priority },
  });
  changeIds.push(changeId);
  shared.byWords.set(key, id);
  shared.made.add(id);
  return { id, isNew: true };
}

/** A schedule of a template that was there says in its own words what the entry says. */
function inOwnWords(input: ScheduleInput, work: MadeEntry['work'], isOwn: boolean): ScheduleInput {
  if (isOwn) return input;
  const own = {
    '': {
      ...(work.instructions === '' ? {} : { instructions: work.instructions }),
      ...(work.minutes === null ? {} : { estimateMinutes: work.minutes }),
    },
  };
  if (Object.keys(own['']).length === 0) return input;
  const { recurrence, timing, revisions } = input;
  const first = { from: recurrence.start, recurrence, timing, own };
  return { ...input, revisions: [first, ...revisions.map((one) => ({ ...one, own }))] };
}

async function write(tx: Scope, bringIn: BringIn): Promise<readonly string[]> {
  const changeIds: string[] = [];
  const days = await daysOffOf(tx, bringIn);
  const added = days.length === 0 ? null : await addDaysOff(tx, days);
  if (added?.changeId) changeIds.push(added.changeId);
  const scope = added?.after ?? tx;
  const shared = noneShared();
  const here = await templatesHere(scope);
  for await (const { fresh, changed } of going(scope, bringIn)) {
    const written = new Map<number, WrittenEntry>();
    const put = (number: number, more: WrittenEntry) => written.set(number, { ...written.get(number), ...more });
    const { schedules, tasks } = await prepared(scope, bringIn, fresh, { here, shared, changeIds, put });
    const { entries } = await saveTogether(
      scope,
      { writes: await writesOf(scope, changed), added: schedules.map(({ input }) => newSchedule(input)) },
      UNSEEN_ONLY,
    );
    const rewritten = changed.filter(({ made }) => made.of.becomes === 'schedule');
    changeIds.push(...(await scope.recordEach(entries)));
    rewritten.forEach(({ number, read }) => void put(number, { scheduleId: read.targetId ?? '' }));
    schedules.forEach(
      ({ number }, i) => void put(number, { newScheduleId: entries[rewritten.length + i]?.subjectId ?? '' }),
    );
    await insertTasks(
      scope,
      tasks.map(({ task }) => task),
    );
    tasks.forEach(({ number, task }) => void put(number, { newTaskId: task.id }));
    changeIds.push(
      ...(await scope.recordEach(
        tasks.map(({ task }) => ({ subject: 'task', subjectId: task.id, action: 'brought in', fields: {} })),
      )),
    );
    changeIds.push(...(await changeTasksOf(scope, changed, put)));
    for (const { number, made } of fresh)
      if (made.of.becomes === 'days off') put(number, { daysOff: made.of.days.length });
    await keepOrigins(scope, [...fresh, ...changed], written);
    await keepWritten(
      scope,
      bringIn,
      [...written].map(([number, before]) => ({ number, before })),
    );
  }
  return changeIds;
}

/** New schedules with their templates, and new tasks, of a page. */
async function prepared(
  scope: Scope,
  bringIn: BringIn,
  fresh: readonly Going[],
  {
    here,
    shared,
    changeIds,
    put,
  }: {
    here: TemplatesHere;
    shared: Shared;
    changeIds: string[];
    put: (number: number, more: WrittenEntry) => void;
  },
) {
  const schedules: { number: number; input: ScheduleInput }[] = [];
  const tasks: { number: number; task: NewTask }[] = [];
  for (const { number, made } of fresh) {
    const { of, work } = made;
    if (of.becomes === 'task') tasks.push({ number, task: taskOf(scope, bringIn, made) });
    if (of.becomes !== 'schedule' && of.becomes !== 'template') continue;
    const template = await templateFor(scope, bringIn, work, shared, changeIds, here);
    if (template.isNew) put(number, { newTemplateId: template.id });
    const isOwn = shared.made.has(template.id);
    if (of.becomes === 'schedule')
      schedules.push({ number, input: inOwnWords({ ...of.input, templateId: template.id }, work, isOwn) });
  }
  return { schedules, tasks };
}

function taskOf(scope: Scope, bringIn: BringIn, { of, work }: MadeEntry): NewTask {
  if (of.becomes !== 'task') throw new Error('A task is made of an entry that becomes one.');
  const { on, dueOn, startTime, dueTime, assigneeId } = of;
  return {
    ...plainTask(scope, {
      ...{ title: work.name, on, dueOn, startTime, dueTime, assigneeId, clientId: null, assetId: null },
      estimateMinutes: work.minutes ?? minutesOf(bringIn),
    }),
    ...{ instructions: work.instructions, links: work.links, priority: work.priority, offeredTo: of.offeredTo },
  };
}

const MEANWHILE = () =>
  changedMeanwhile('Somebody has changed some of what these are about meanwhile. Nothing is written; look once more.');

async function writesOf(scope: Scope, changed: readonly Going[]): Promise<ScheduleWrite[]> {
  const ofSchedules = changed.filter(({ made }) => made.of.becomes === 'schedule');
  const locked = await lockedSchedules(
    scope,
    ofSchedules.map(({ read }) => read.targetId ?? ''),
  );
  return ofSchedules.flatMap(({ read, made: { of } }) => {
    const before = locked.get(read.targetId ?? '');
    if (of.becomes !== 'schedule') return [];
    if (!before || before.version !== of.version) throw MEANWHILE();
    const { recurrence, timing, exceptions, revisions, assignment } = of.input;
    // Words of its own that it has stay.
    const [first] = before.revisions;
    const own = first?.from === before.recurrence.start ? first.own : undefined;
    const all = own
      ? [{ from: recurrence.start, recurrence, timing, own }, ...revisions.map((one) => ({ ...one, own }))]
      : revisions;
    return [{ before, set: versioned({ recurrence, timing, exceptions, revisions: all, assignment }) }];
  });
}

/** Brings tasks up to date that an entry made before. */
async function changeTasksOf(
  scope: Scope,
  changed: readonly Going[],
  put: (number: number, more: WrittenEntry) => void,
): Promise<string[]> {
  const ofTasks = changed.filter(({ made }) => made.of.becomes === 'task');
  const ids = ofTasks.map(({ read }) => read.targetId ?? '');
  const tasks = new Map((await lockedTasks(scope, ids)).map((one) => [one.id, one]));
  const all = ofTasks.flatMap(({ number, read, made: { of, work } }) => {
    const task = tasks.get(read.targetId ?? '');
    if (of.becomes !== 'task') return [];
    if (!task || task.version !== of.version) throw MEANWHILE();
    put(number, { taskId: task.id });
    const { on: workOn, dueOn, startTime, dueTime } = of;
    return [{ task, changes: { title: work.name, workOn, startsOn: workOn, dueOn, startTime, dueTime } }];
  });
  await saveTasks(scope, all);
  return scope.recordEach(
    all.map(({ task, changes }) => ({
      subject: 'task',
      subjectId: task.id,
      action: 'edited',
      fields: fieldChanges(task, changes),
    })),
  );
}

/** By which entry what came, so that the same calendar finds it again. */
async function keepOrigins(scope: Scope, all: readonly Going[], written: Map<number, WrittenEntry>): Promise<void> {
  const known = await scope.find(CalendarOrigin, { uid: In(all.map(({ made }) => made.uid)) });
  const hashes = new Map(known.map(({ uid, hash }) => [uid, hash]));
  const rows = all.flatMap(({ number, made: { uid, hash } }) => {
    const { newScheduleId, scheduleId, newTaskId, taskId, newTemplateId, ...more } = written.get(number) ?? {};
    const before = hashes.get(uid);
    if (before !== undefined) written.set(number, { ...written.get(number), hashBefore: before });
    if ('daysOff' in more) return [];
    const schedule = newScheduleId ?? scheduleId ?? null;
    const task = newTaskId ?? taskId ?? null;
    return [
      {
        uid,
        hash,
        schedule_id: schedule,
        task_id: task,
        template_id: schedule === null && task === null ? (newTemplateId ?? null) : null,
      },
    ];
  });
  await scope.sql(
    `insert into calendar_origin (workspace_id, uid, hash, schedule_id, task_id, template_id)
     select $1, uid, hash, schedule_id, task_id, template_id
     from jsonb_to_recordset($2::jsonb) as row (uid text, hash text, schedule_id uuid, task_id uuid, template_id uuid)
     where coalesce(schedule_id, task_id, template_id) is not null
     on conflict (workspace_id, uid) do update set hash = excluded.hash, schedule_id = excluded.schedule_id,
       task_id = excluded.task_id, template_id = excluded.template_id`,
    [JSON.stringify(rows)],
  );
}

/** What all of it would do: days off to the schedules that they reach, and the schedules that are new or change. */
async function impact(tx: Scope, bringIn: BringIn): Promise<Impact> {
  const days = await daysOffOf(tx, bringIn);
  const added: AddedDaysOff = await writeDaysOff(tx, days);
  const scope = added.after;
  const writes: ScheduleWrite[] = [];
  const inputs: ScheduleInput[] = [];
  let tasks = 0;
  const shared = noneShared();
  const here = await templatesHere(scope);
  for await (const { fresh, changed } of going(scope, bringIn)) {
    writes.push(...(await writesOf(scope, changed)));
    const made = await prepared(scope, bringIn, fresh, { here, shared, changeIds: [], put: () => undefined });
    inputs.push(...made.schedules.map(({ input }) => input));
    tasks += made.tasks.length;
  }
  const touched = [...new Set([...added.reached.map(({ id }) => id), ...writes.map(({ before }) => before.id)])];
  const year = await plannedYear(added.before, await scheduleRows(added.before, { ids: touched }));
  if (writes.length > 0) await saveRows(scope, writes);
  const ids = [...touched, ...(await insertSchedules(scope, inputs.map(newSchedule)))];
  const told = await impactOf(scope, await scheduleRows(scope, { ids }), year, UNSEEN_ONLY);
  return { ...told, figures: { ...told.figures, added: told.figures.added + tasks } };
}

async function takeOut(scope: Scope, bringIn: BringIn, sum: Sum): Promise<void> {
  for await (const rows of writtenRows(scope, bringIn)) {
    const of = (row: BringInRow) => row.before as WrittenEntry;
    // Days off were put back by then.
    sum.out += rows.filter((row) => of(row).daysOff !== undefined).length;
    await schedulesOut(
      scope,
      rows.filter((row) => of(row).newScheduleId ?? of(row).scheduleId),
      sum,
    );
    await tasksOut(
      scope,
      rows.filter((row) => of(row).newTaskId !== undefined),
      sum,
    );
    sum.back += rows.filter((row) => of(row).taskId !== undefined).length;
    // A template goes with its schedule; by itself it counts as what its entry became.
    const isAlone = ({ newScheduleId, newTemplateId }: WrittenEntry) =>
      newTemplateId !== undefined && newScheduleId === undefined;
    await templatesOut(
      scope,
      rows.filter((row) => isAlone(of(row))).map((row) => ({ ...of(row), title: row.read.title })),
      sum,
    );
    await templatesOut(
      scope,
      rows.filter((row) => !isAlone(of(row))).map((row) => ({ ...of(row), title: row.read.title })),
      { ...sum, out: 0 },
    );
    await scope.sql(
      `update calendar_origin o set hash = was.hash from jsonb_to_recordset($2::jsonb) as was (uid text, hash text)
       where o.workspace_id = $1 and o.uid = was.uid`,
      [
        JSON.stringify(
          rows.flatMap((row) => {
            const { hashBefore } = of(row);
            return hashBefore === undefined ? [] : [{ uid: (row.read.made as MadeEntry).uid, hash: hashBefore }];
          }),
        ),
      ],
    );
  }
}

export const calendarWays: Ways = { look, write, takeOut, impact };
