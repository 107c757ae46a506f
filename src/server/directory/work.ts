import { In } from 'typeorm';
import type { ClientWork, WorkMark } from '../../contract/index.ts';
import {
  type CivilDay,
  civilDay,
  daysInMonth,
  isDated,
  isEnded,
  isoOfDay,
  plural,
  sayAnswer,
  shownDays,
  TooMuchReckoningError,
  type WorkingCalendar,
  yearMonthDay,
} from '../../core/index.ts';
import { Client } from '../clients/index.ts';
import { columnsOf } from '../platform/db/columns.ts';
import type { Scope } from '../platform/scope.ts';
import { type KeptLine, keptLines } from '../schedules/index.ts';
import { findTasks, LOOK_FIELDS, type LookRow, lookOfRow, TaskRecord } from '../tasks/stored/index.ts';
import { byClient } from './list.ts';

/** Months before this one, and after it, that are told. */
const MONTHS_BEFORE = 5;
const MONTHS_AFTER = 6;
/** Tasks of one client's year that are looked at: more would be no lines to look at any more. */
const MOST_TASKS = 4_000;
const SHOWN = 20;

interface Row extends LookRow {
  readonly id: string;
  readonly title: string;
  readonly workOn: string;
  readonly scheduleId: string | null;
  readonly nominalDate: string | null;
  readonly stepKey: string;
  readonly setIndex: number | null;
  readonly estimateMinutes: number;
  readonly note: string;
  readonly templateName: string | null;
  readonly who: string | null;
}

/** A year of what is done for a client: what was, what is made, and what the schedules give beyond it. */
export async function workOf(scope: Scope, clientId: string): Promise<ClientWork> {
  await scope.one(Client, clientId, 'client');
  const [from, to] = spanAround(scope.now.day);
  const rows = await scope.sql<Row>(
    `select t.id, t.title, t.work_on as "workOn", t.schedule_id as "scheduleId", t.nominal_date as "nominalDate",
       t.step_key as "stepKey", t.set_index as "setIndex", t.estimate_minutes as "estimateMinutes", t.note, ${columnsOf(TaskRecord, 't', LOOK_FIELDS)},
       (select name from template of where of.workspace_id = t.workspace_id and of.id = t.template_id) as "templateName",
       (select name from person of where of.workspace_id = t.workspace_id and of.id = t.assignee_id) as who
     from task t where t.workspace_id = $1 and t.client_id = $2 and t.due_on between $3::date and $4::date
     order by t.due_on, t.id limit ${MOST_TASKS}`,
    [clientId, isoOfDay(from), isoOfDay(to)],
  );
  const made = rows.map((row) => ({ row, ...lookOfRow(scope, row) }));
  const calendar = await scope.calendar();
  const names = await scope.peopleNames();
  // Of the client's usual person the name is known here.
  const whoOf = ({ who, row: { assignment, usualPersonId } }: KeptLine) =>
    assignment.kind === 'usualPerson'
      ? (names.get(usualPersonId ?? assignment.otherwiseId ?? '') ?? 'nobody yet')
      : who;
  const schedules = byClient(await keptLines(scope)).get(clientId) ?? [];
  const foreseen = schedules.flatMap((line) => foreseenOf(line, made, calendar, scope.now.day, to));
  const coming = [
    ...made.filter(({ row }) => !isEnded(row.state)).map(({ row, state, late }) => entryOf(row, state, late)),
    ...foreseen.map(({ line, on }) => ({
      ...{ taskId: null, title: line.row.templateName, on: isoOfDay(on), state: 'coming' as const, late: false },
      ...{ who: whoOf(line), minutes: line.row.estimateMinutes, note: '', proof: '' },
    })),
  ].sort((a, b) => a.on.localeCompare(b.on));
  const done = made.filter(({ row }) => isEnded(row.state)).reverse();
  const shown = done.slice(0, SHOWN);
  const proofs = await proofsOf(
    scope,
    shown.map(({ row }) => row.id),
  );
  return {
    from: isoOfDay(from),
    to: isoOfDay(to),
    lines: linesOf(made, foreseen),
    coming: coming.slice(0, SHOWN),
    comingCount: coming.length,
    done: shown.map(({ row, state, late }) => ({ ...entryOf(row, state, late), proof: proofs.get(row.id) ?? '' })),
    doneCount: done.length,
  };
}

interface Made extends Pick<WorkMark, 'state' | 'late'> {
  readonly row: Row;
}
interface Foreseen {
  readonly line: KeptLine;
  readonly on: CivilDay;
}

function spanAround(today: CivilDay): readonly [CivilDay, CivilDay] {
  const { year, month } = yearMonthDay(today);
  const at = (months: number) => {
    const index = year * 12 + month - 1 + months;
    return [Math.floor(index / 12), (index % 12) + 1] as const;
  };
  const [firstYear, firstMonth] = at(-MONTHS_BEFORE);
  const [lastYear, lastMonth] = at(MONTHS_AFTER);
  return [civilDay(firstYear, firstMonth, 1), civilDay(lastYear, lastMonth, daysInMonth(lastYear, lastMonth))];
}

/** Dates of a schedule that no task stands for yet. */
function foreseenOf(
  line: KeptLine,
  made: readonly Made[],
  calendar: WorkingCalendar,
  today: CivilDay,
  to: CivilDay,
): Foreseen[] {
  if (line.planned === null || line.problem !== null) return [];
  const there = new Set(made.filter(({ row }) => row.scheduleId === line.row.id).map(({ row }) => row.nominalDate));
  try {
    return shownDays(line.planned, calendar, today, to)
      .filter(isDated)
      .filter(({ nominal, on }) => on >= today && !there.has(isoOfDay(nominal)))
      .map(({ on }) => ({ line, on }));
  } catch (error) {
    // Its own page says that it takes too much to reckon.
    if (error instanceof TooMuchReckoningError) return [];
    throw error;
  }
}

const BY_HAND = 'by hand';

interface Line {
  readonly name: string;
  /** What it stands in order by: the template it is of, and its own place in the set. */
  readonly order: readonly [template: string, index: number];
  readonly marks: WorkMark[];
}

/** A line for each template and for each own task of its set, below it; what has no template stands at the end. */
function linesOf(made: readonly Made[], foreseen: readonly Foreseen[]): ClientWork['lines'] {
  const lines = new Map<string, Line>();
  const put = (template: string | null, step: string, index: number, name: string, mark: WorkMark) => {
    const key = JSON.stringify([template, step]);
    const line = lines.get(key) ?? { name, order: [template ?? '', index], marks: [] };
    lines.set(key, line);
    line.marks.push(mark);
  };
  for (const { row, state, late } of made) {
    const { templateName, stepKey, setIndex, title } = row;
    const name = templateName === null ? BY_HAND : stepKey === '' ? templateName : title;
    put(templateName, templateName === null ? '' : stepKey, setIndex ?? 0, name, {
      on: row.workOn,
      taskId: row.id,
      state,
      late,
    });
  }
  for (const { line, on } of foreseen)
    put(line.row.templateName, '', 0, line.row.templateName, {
      ...{ on: isoOfDay(on), taskId: null, state: 'coming', late: false },
    });
  return [...lines]
    .sort(
      (
        [
          ,
          {
            order: [a, stepA],
          },
        ],
        [
          ,
          {
            order: [b, stepB],
          },
        ],
      ) => Number(a === '') - Number(b === '') || a.localeCompare(b) || stepA - stepB,
    )
    .map(([key, { name, marks }]) => ({ key, name, marks: marks.sort((a, b) => a.on.localeCompare(b.on)) }));
}

function entryOf(row: Row, state: WorkMark['state'], late: boolean): ClientWork['done'][number] {
  return {
    ...{ taskId: row.id, title: row.title, on: row.workOn, state, late },
    ...{ who: row.who, minutes: row.estimateMinutes, note: row.note, proof: '' },
  };
}

/** What was written down and photographed with tasks, in words, by their ids. */
async function proofsOf(scope: Scope, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const tasks = await findTasks(scope, { id: In([...ids]) });
  const files = await scope.sql<{ id: string; pictures: number; papers: number }>(
    `select task_id as id, count(*) filter (where is_picture)::int as pictures, count(*) filter (where not is_picture)::int as papers
     from file where workspace_id = $1 and task_id = any($2::uuid[]) and removed_at is null group by task_id`,
    [ids],
  );
  const filed = new Map(files.map((one) => [one.id, one]));
  return new Map(
    tasks.map(({ id, demands, checkLines, answers }) => {
      const asked = [...demands, ...checkLines.flatMap((line) => line.demands)];
      const said = asked.flatMap((demand) => {
        const answer = answers[demand.key];
        return answer === undefined ? [] : [sayAnswer(demand, answer.value)];
      });
      const { pictures = 0, papers = 0 } = filed.get(id) ?? {};
      return [
        id,
        [
          ...said,
          ...(pictures > 0 ? [plural(pictures, 'picture')] : []),
          ...(papers > 0 ? [plural(papers, 'paper')] : []),
        ].join(', '),
      ];
    }),
  );
}
