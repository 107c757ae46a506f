import { NONE_OF_THEM, SUMMARY_LINES, type Summary, type TaskFilter, type TaskLine } from '../../contract/index.ts';
import {
  askedOn,
  dayOfIso,
  isoOfDay,
  joinAnd,
  minutesFor,
  peopleHere,
  plural,
  type SummaryBandName,
  type SummaryWish,
  sayDay,
  sayDuration,
  saySummary,
} from '../../core/index.ts';
import { colleagues } from '../people/index.ts';
import type { Scope } from '../platform/scope.ts';
import { callLoad } from '../ringing/index.ts';
import { firstDue } from '../task-list/index.ts';

type Band = Summary['bands'][number];

/** The day as it concerns somebody: of all work for whoever plans it, else of their own. Bands that are empty are left out, as is what they want to hear nothing of. */
export async function summaryOf(scope: Scope, { leavesOut = [] }: Pick<SummaryWish, 'leavesOut'>): Promise<Summary> {
  const { day } = scope.now;
  const bands = await scope.atOnce(...(scope.mayAll('plan') ? questionsOfAll(scope) : questionsOfOwn(scope)));
  const told = bands.flatMap((one) => (one === null || one.count === 0 || leavesOut.includes(one.band) ? [] : [one]));
  const counts = new Map<SummaryBandName, number>(told.map(({ band: name, count }) => [name, count]));
  return {
    subject: saySummary(day, counts, scope.workspace.ways, leavesOut.length === 0),
    on: scope.today,
    at: scope.moment(scope.instant),
    bands: told,
  };
}

type Question = () => Promise<Band | null>;

const who = ({ assignee, offeredTo }: TaskLine): string => assignee?.name ?? offeredTo ?? 'nobody yet';
const lateBy = ({ daysLate }: TaskLine): string => plural(daysLate, 'day');

function questionsOfAll(scope: Scope): Question[] {
  const { day } = scope.now;
  const nobody: TaskFilter = { are: 'open', person: NONE_OF_THEM, offered: 'no', late: 'no', due: 'month' };
  return [
    () => band(scope, 'late', { are: 'late' }, (line) => [lateBy(line), who(line)]),
    () => band(scope, 'toCheck', { are: 'toCheck' }, (line) => [who(line), finished(scope, line)]),
    () => band(scope, 'nobody', nobody, ({ dueOn }) => [sayDay(dayOfIso(dueOn), day, scope.workspace.ways)]),
    () => band(scope, 'heldUp', { are: 'heldUp' }, ({ hold }) => [hold?.reason ?? '']),
    () => dueToday(scope, {}, undefined),
    () => ownCalls(scope),
    () => away(scope),
  ];
}

function questionsOfOwn(scope: Scope): Question[] {
  const me = scope.person?.id;
  // Whoever is nobody here has nothing of their own.
  if (me === undefined) return [];
  const tomorrow = isoOfDay(scope.now.day + 1);
  return [
    () => band(scope, 'late', { person: me, are: 'late' }, (line) => [lateBy(line)]),
    () => band(scope, 'heldUp', { person: me, are: 'heldUp' }, ({ hold }) => [hold?.reason ?? '']),
    () => dueToday(scope, { person: me }, me),
    () => ownCalls(scope),
    () =>
      band(scope, 'coming', { person: me, are: 'unfinished', from: tomorrow, to: tomorrow }, (line) => [timesOf(line)]),
  ];
}

const timesOf = ({ startTime, dueTime }: TaskLine): string => startTime ?? (dueTime === null ? '' : `by ${dueTime}`);
function finished(scope: Scope, { doneAt }: TaskLine): string {
  if (doneAt === null) return '';
  const [on = '', at = ''] = doneAt.split('T');
  return `finished ${on === scope.today ? at.slice(0, 5) : sayDay(dayOfIso(on), scope.now.day, scope.workspace.ways)}`;
}

const VERBS: Readonly<Partial<Record<SummaryBandName, string>>> = { toCheck: 'Check', nobody: 'Assign' };

/** Tasks that fit: how many, how long they take, and the first of them with what there is to say of each. */
async function band(
  scope: Scope,
  name: SummaryBandName,
  filter: TaskFilter,
  about: (line: TaskLine) => readonly string[],
): Promise<Band> {
  const { all } = await firstDue(scope, { all: filter }, SUMMARY_LINES);
  const { count, minutes, lines } = all;
  return {
    ...{ band: name, count, about: count === 0 ? '' : sayDuration(minutes) },
    path: `/tasks?${query(filter)}`,
    lines: lines.map((line) => ({
      text: line.title,
      about: [forWhat(line), ...about(line)].filter(Boolean).join(', '),
      verb: VERBS[name] ?? 'Open',
      path: `/tasks/task/${line.id}?due=any`,
    })),
  };
}

/** For what it is, where its title does not say so. */
function forWhat({ title, asset, client }: TaskLine): string {
  const name = asset?.name ?? client?.name ?? '';
  return title.includes(name) ? '' : name;
}

/** A filter as the page of all tasks has it in its address; without days it would show those of a span. */
function query(filter: TaskFilter): string {
  const given = Object.entries(filter).flatMap(([key, value]) => (value === undefined ? [] : [[key, String(value)]]));
  return new URLSearchParams([...given, ...('due' in filter || 'from' in filter ? [] : [['due', 'any']])]).toString();
}

/** What is due today and not finished; how long all of it takes, and how long there is. */
async function dueToday(scope: Scope, own: TaskFilter, personId: string | undefined): Promise<Band> {
  const filter: TaskFilter = { ...own, are: 'unfinished', due: 'today', late: 'no' };
  const [found, here, calendar] = await scope.atOnce(
    () => band(scope, 'due', filter, (line) => [timesOf(line)]),
    async () => peopleHere(await colleagues(scope, personId)),
    () => scope.calendar(),
  );
  const { day } = scope.now;
  const asked = askedOn(day, calendar);
  const capacity = [...here.workers.values()].reduce((sum, one) => sum + minutesFor(one, day, asked), 0);
  return { ...found, about: `${found.about}${capacity > 0 ? `, ${sayDuration(capacity)} at hand` : ''}` };
}

/** One's own calls of today that are not made. */
async function ownCalls(scope: Scope): Promise<Band | null> {
  const personId = scope.person?.id;
  if (personId === undefined) return null;
  const { day } = scope.now;
  const rows = await callLoad(scope, { from: day, to: day, personId });
  const minutes = rows.reduce((sum, { open, foreseen }) => sum + open + foreseen, 0);
  const count = rows.reduce((sum, { calls, made }) => sum + calls - made, 0);
  return { band: 'calls', count, about: sayDuration(minutes), path: '/calls', lines: [] };
}

/** Who would work today and is away. */
async function away(scope: Scope): Promise<Band> {
  const [{ workers }, names, calendar] = await scope.atOnce(
    async () => peopleHere(await colleagues(scope)),
    () => scope.peopleNames(),
    () => scope.calendar(),
  );
  const { day } = scope.now;
  const asked = askedOn(day, calendar);
  const gone = [...workers.values()].filter(
    (worker) => minutesFor({ ...worker, leave: [] }, day, asked) > minutesFor(worker, day, asked),
  );
  const called = gone.map(({ id }) => names.get(id) ?? '').sort((a, b) => a.localeCompare(b));
  const more = called.length - SUMMARY_LINES;
  const told = more > 0 ? [...called.slice(0, SUMMARY_LINES), `${more} more`] : called;
  return { band: 'away', count: gone.length, about: joinAnd(told), path: '/team', lines: [] };
}
