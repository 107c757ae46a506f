import { createHash } from 'node:crypto';
import { IDS_A_PAGE, LINES_A_PAGE, type ScheduleFilter, type ScheduleLine } from '../../contract/index.ts';
import { dayOfIso, isDated, plainWords, shownDays } from '../../core/index.ts';
import { eachInTurn, sortedInTurn } from '../platform/in-turn.ts';
import { oncePer } from '../platform/latest.ts';
import { namedOrNull } from '../platform/named.ts';
import type { Scope } from '../platform/scope.ts';
import { lateSchedules, pastTasksOf } from '../tasks/stored/index.ts';
import { DATES_AFTER, DATES_BEFORE, type KeptLine, keptLines } from './kept-lines.ts';
import { tasksSeen, waitsOf } from './service.ts';

/** A page of the schedules that fit. The order is held in memory, so that any place of it can be begun from. */
export async function listSchedules(
  scope: Scope,
  { start = 0, ...filter }: ScheduleFilter & { start?: number | undefined },
) {
  const { all, fitting } = await fittingLines(scope, filter);
  const page = fitting.slice(start, start + LINES_A_PAGE);
  return {
    start,
    lines: await scheduleLines(scope, page),
    counts: { fitting: fitting.length, all: all.size, problems: problemsOf(all) },
  };
}

/** A page of the ids and versions of all that fit, in their order. */
export async function fittingSchedules(
  scope: Scope,
  { start = 0, ...filter }: ScheduleFilter & { start?: number | undefined },
) {
  const { all, fitting } = await fittingLines(scope, filter);
  const page = fitting.slice(start, start + IDS_A_PAGE);
  return {
    ids: page.map(({ row }) => row.id),
    versions: page.map(({ row }) => row.version),
    more: start + IDS_A_PAGE < fitting.length ? start + IDS_A_PAGE : null,
    mark: createHash('sha256')
      .update(fitting.map(({ row }) => `${row.id} ${row.version}`).join())
      .digest('base64url'),
    isAll: fitting.length === all.size,
  };
}

/** What those that fit come to. */
export async function figuresOfSchedules(scope: Scope, filter: ScheduleFilter) {
  const { fitting } = await fittingLines(scope, filter);
  const differing = (idsOf: (line: KeptLine) => Iterable<string>) =>
    new Set(fitting.flatMap((line) => [...idsOf(line)])).size;
  return {
    schedules: fitting.length,
    clients: differing(({ row }) => (row.clientId === null ? [] : [row.clientId])),
    people: differing(({ holders }) => holders),
    timesAYear: fitting.reduce((sum, { state, timesAYear }) => sum + (state === 'running' ? timesAYear : 0), 0),
  };
}

/** The first by name that have every word. */
export async function schedulesFound(scope: Scope, words: readonly string[], most: number): Promise<KeptLine[]> {
  const found: KeptLine[] = [];
  for (const line of await ordered.name(await keptLines(scope))) {
    if (found.length === most) break;
    if (words.every((word) => line.words.includes(word))) found.push(line);
  }
  return found;
}

async function scheduleLines(scope: Scope, page: readonly KeptLine[]): Promise<ScheduleLine[]> {
  const calendar = await scope.calendar();
  const past = await pastTasksOf(
    scope,
    page.map(({ row }) => row.id),
  );
  return page.map((line) => {
    const { row, planned } = line;
    const series = past.get(row.id) ?? [];
    return {
      id: row.id,
      version: row.version,
      template: { id: row.templateId, name: row.templateName },
      client: namedOrNull(row.clientId, row.clientName),
      asset: namedOrNull(row.assetId, row.assetName),
      assignment: row.assignment,
      who: line.who,
      phrase: line.phrase,
      nextPhrase: line.nextPhrase,
      state: line.state,
      problem: line.problem,
      next: line.next,
      timesAYear: line.timesAYear,
      ...tasksSeen(series),
      waits: planned && waitsOf(scope, row, series, planned, calendar),
    };
  });
}

interface Fitting {
  readonly all: ReadonlyMap<string, KeptLine>;
  readonly fitting: readonly KeptLine[];
}

async function fittingLines(scope: Scope, filter: ScheduleFilter): Promise<Fitting> {
  const asked = plainWords(filter.find ?? '');
  const [all, late] = await Promise.all([keptLines(scope), filter.state === 'late' ? lateSchedules(scope) : null]);
  const fits = (line: KeptLine) =>
    (filter.category === undefined || line.row.category === filter.category) &&
    (filter.person === undefined || line.holders.has(filter.person)) &&
    (filter.templateId === undefined || line.row.templateId === filter.templateId) &&
    inState(line, filter.state, late) &&
    asked.every((word) => line.words.includes(word));
  const fitting = (await ordered[filter.order ?? 'next'](all)).filter(fits);
  return { all, fitting: await fallingWithin(scope, fitting, filter) };
}

function inState(line: KeptLine, state: ScheduleFilter['state'], late: ReadonlySet<string> | null): boolean {
  switch (state) {
    case undefined:
      return true;
    case 'late':
      return late?.has(line.row.id) ?? false;
    case 'nobody':
      return line.row.assignment.kind === 'nobody';
    case 'running':
    case 'paused':
    case 'ended':
    case 'problem':
      return line.state === state;
  }
}

/** Those with a date in the days that were asked for. */
async function fallingWithin(scope: Scope, lines: KeptLine[], { from, to }: ScheduleFilter): Promise<KeptLine[]> {
  if (from === undefined || to === undefined) return lines;
  const { day: today } = scope.now;
  const [first, last] = [dayOfIso(from), dayOfIso(to)];
  if (first >= today - DATES_BEFORE && last <= today + DATES_AFTER)
    return lines.filter(({ dates }) => dates.some((on) => on >= first && on <= last));
  const calendar = await scope.calendar();
  const falls = await eachInTurn(
    lines,
    ({ planned, problem }) =>
      planned !== null && problem === null && shownDays(planned, calendar, first, last).some(isDated),
  );
  return lines.filter((_, i) => falls[i]);
}

const ORDER_KEYS: Readonly<Record<NonNullable<ScheduleFilter['order']>, (line: KeptLine) => string>> = {
  name: () => '',
  who: ({ row, who }) => (row.assignment.kind === 'nobody' ? '' : who.toLowerCase()),
  next: ({ next }) => next ?? '9999',
};
type Lines = ReadonlyMap<string, KeptLine>;
const ordered = {
  name: oncePer((lines: Lines) => inOrder(lines, ORDER_KEYS.name)),
  who: oncePer((lines: Lines) => inOrder(lines, ORDER_KEYS.who)),
  next: oncePer((lines: Lines) => inOrder(lines, ORDER_KEYS.next)),
};

async function inOrder(lines: Lines, keyOf: (line: KeptLine) => string): Promise<readonly KeptLine[]> {
  // One text each, so that the comparing is short: there may be ten thousand.
  const keyed = await eachInTurn([...lines.values()], (line) => ({
    line,
    key: `${keyOf(line)}\n${line.name}\n${line.row.id}`,
  }));
  return (await sortedInTurn(keyed, (a, b) => (a.key < b.key ? -1 : 1))).map(({ line }) => line);
}

/** How many have a problem. */
const problemsOf = oncePer((lines: Lines) => [...lines.values()].filter(({ problem }) => problem !== null).length);
