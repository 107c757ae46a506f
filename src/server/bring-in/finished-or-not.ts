import { In } from 'typeorm';
import {
  dayOfIso,
  type FileState,
  instantOf,
  isoOfDay,
  type LineProblem,
  nextLettingGo,
  plural,
  type RowValues,
  readFileState,
  sayDay,
  textOfValue,
} from '../../core/index.ts';
import { Person } from '../platform/identity/person.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Scope } from '../platform/scope.ts';
import { plainTask } from '../tasks/index.ts';
import { farDay, insertTasks, type NewTask } from '../tasks/stored/index.ts';
import { Template } from '../templates/stored/index.ts';
import { effectOf } from './effect.ts';
import type { BringIn, BringInRow } from './entity.ts';
import { inColumns, namesHere, subjectOf, templateOf } from './names-here.ts';
import { writtenRows } from './out.ts';
import { keepWritten, pagesOf } from './pages.ts';
import { type Line, type Told, UNREAD } from './read-row.ts';
import type { Sum } from './sum.ts';
import { usualMinutesOf } from './usual-minutes.ts';
import type { Look, Looking, Ways } from './ways.ts';

/** What a line makes of a task. */
export interface MadeTaskLine {
  readonly title: string;
  readonly dueOn: string;
  readonly dueTime: string | null;
  readonly workOn: string;
  readonly startTime: string | null;
  readonly assigneeId: string | null;
  readonly clientId: string | null;
  readonly assetId: string | null;
  readonly templateId: string | null;
  /** Null where the file does not say it. */
  readonly minutes: number | null;
  readonly priority: NewTask['priority'];
  /** What goes along with it, and what was written of it when it was done. */
  readonly brief: string;
  readonly note: string;
  readonly ended: {
    readonly state: Exclude<FileState, 'open'>;
    /** Of the workspace's clocks; null for what was skipped. */
    readonly at: string | null;
    readonly by: string | null;
  } | null;
}

export interface WrittenTaskLine {
  readonly newTaskId: string;
}

/** Finished work without a time of day was finished at noon. */
const NOON = '12:00';

const lookAt =
  (isHistory: boolean) =>
  async (scope: Scope, looking: Looking): Promise<Look> => {
    const { columns } = looking;
    const seen = new Map<string, number>();
    const keptFrom = isHistory ? keptFromOn(scope) : null;
    const nameOf = new Map((await scope.find(Person)).map(({ id, name }) => [id, name]));
    return async (lines) => {
      const here = await namesHere(scope, lines);
      const read = await eachInTurn(lines, (line) => {
        const title = textOfValue(line.values, 'title');
        const { problems: ofSubject, clientId, assetId } = subjectOf(line, here);
        const problems = [...ofSubject];
        const template = isHistory ? templateOf(line, here) : { one: null };
        // Of finished work it is no matter that its template is none of ours.
        const isStrange = 'problem' in template && template.isUnknown;
        if ('problem' in template && !isStrange) problems.push(template.problem);
        const notes = isStrange ? ['of no template here'] : [];
        const of = { clientId, assetId, templateId: 'one' in template ? (template.one?.id ?? null) : null };
        const made =
          line.problems.length > 0 || problems.length > 0
            ? null
            : (isHistory ? finished : open)(scope, line, of, { keptFrom, strangers: strangersOf(line, looking) });
        const [message, key] = made === null || 'title' in made ? [] : [made.message, made.key];
        if (message !== undefined) problems.push({ key: key ?? null, message });
        return { line, title, problems, notes, made: made !== null && 'title' in made ? made : null };
      });
      const there = await alikeOf(
        scope,
        read.flatMap(({ line: { number }, made }) => (made ? [{ number, made }] : [])),
      );
      return read.map(({ line, title, problems, notes, made }): Told => {
        const { number, values } = line;
        const about = aboutOf(values, isHistory, scope, nameOf);
        const base = { ...UNREAD, title, about, values };
        if (!made)
          return {
            ...{ number, fate: 'left' },
            read: { ...base, problems: [...line.problems, ...inColumns(problems, columns)] },
          };
        const targetId = there.get(number);
        if (targetId !== undefined)
          return { number, fate: 'alike', read: { ...base, made, targetId, why: 'same name, day and client' } };
        const key = JSON.stringify([made, line.values['state']]);
        const twice = seen.get(key);
        if (twice !== undefined)
          return { number, fate: 'same', read: { ...base, why: `says no more than line ${twice}` } };
        seen.set(key, number);
        return { number, fate: 'new', read: { ...base, made, why: notes.join('; ') } };
      });
    };
  };

/** "Outer mole, Fri 4 Dec, Nadia Orme" */
function aboutOf(
  values: RowValues,
  isHistory: boolean,
  { workspace: { ways }, now }: Scope,
  nameOf: ReadonlyMap<string, string>,
): string {
  const said = (key: string) => textOfValue(values, key);
  const [date = '', time] = (isHistory ? said('doneAt') || said('dueOn') : said('dueOn')).split('T');
  const clock = isHistory ? (time ?? '') : said('dueTime');
  const who = isHistory ? said('doneBy') || said('who') : said('who');
  return [
    ...[said('client'), said('asset')],
    date === '' ? '' : [sayDay(dayOfIso(date), now.day, ways), clock].filter(Boolean).join(' at '),
    nameOf.get(who) ?? '',
    isHistory && readFileState(said('state')) === 'skipped' ? 'skipped' : '',
  ]
    .filter(Boolean)
    .join(', ');
}

/** From which day on finished work stays when the next is let go; null where all of it is kept for good. */
function keptFromOn({ workspace: { keepYears: years, keepSince }, now, today }: Scope): string | null {
  if (years === null) return null;
  return isoOfDay(nextLettingGo({ years, since: dayOfIso(keepSince ?? today) }, null, now.day).before);
}

interface OfWhat {
  readonly clientId: string | null;
  readonly assetId: string | null;
  readonly templateId: string | null;
}
type Made = MadeTaskLine | LineProblem;

interface Beside {
  /** Before this day finished work is let go; null where all is kept. */
  readonly keptFrom: string | null;
  /** Whom the line names who are nobody here, in words: what it says of them is not lost. */
  readonly strangers: readonly string[];
}

/** Names in a line of people who are not here. */
function strangersOf({ cells, values }: Line, { columns, fields }: Looking): string[] {
  return columns.flatMap((key, i) => {
    const field = key === null ? undefined : fields.get(key);
    const name = (cells[i] ?? '').trim();
    return field?.value === 'person' && name !== '' && values[field.key] === undefined
      ? [`${field.name}: ${name}`]
      : [];
  });
}

/** A task that is still to be done. */
function open(scope: Scope, { values }: Line, of: OfWhat, { strangers }: Beside): Made {
  const said = (key: string) => textOfValue(values, key);
  const state = said('state') === '' ? 'open' : readFileState(said('state'));
  if (state === null)
    return { key: 'state', message: `“${said('state')}”: whether it is still to be done can’t be told` };
  if (state !== 'open') return { key: 'state', message: `It is ${state}: bring it in with the finished work` };
  const dueOn = said('dueOn');
  const workOn = said('workOn') || dueOn;
  if (dueOn < workOn) return { key: 'dueOn', message: 'It is due before the day on which it is to be worked on' };
  const [startTime, dueTime] = [said('startTime') || null, said('dueTime') || null];
  if (startTime !== null && dueTime !== null && workOn === dueOn && dueTime < startTime)
    return { key: 'dueTime', message: 'It is due before it starts' };
  const far = farDay(scope, { workOn, dueOn });
  if (far) return { key: far.path, message: far.message };
  return {
    ...{ ...of, title: said('title'), dueOn, dueTime, workOn, startTime, assigneeId: said('who') || null },
    ...{ minutes: minutesOf(values), priority: (said('priority') || 'normal') as NewTask['priority'] },
    ...{ brief: [said('brief'), ...strangers].filter(Boolean).join('\n'), note: '', ended: null },
  };
}

/** A task as it was finished. */
function finished(scope: Scope, { values }: Line, of: OfWhat, { keptFrom, strangers }: Beside): Made {
  const said = (key: string) => textOfValue(values, key);
  const state = said('state') === '' ? 'done' : readFileState(said('state'));
  if (state === null)
    return { key: 'state', message: `“${said('state')}”: whether it was done or skipped can’t be told` };
  if (state === 'open') return { key: 'state', message: 'It is not finished: bring it in with the tasks' };
  const isSkipped = state === 'skipped';
  const [at, due] = [said('doneAt'), said('dueOn')];
  if (at === '' && !isSkipped) return { key: 'doneAt', message: 'Say when it was done' };
  const on = at.slice(0, 10) || due;
  if (on === '') return { key: 'dueOn', message: 'Say when it was due' };
  if (on > scope.today) return { key: 'doneAt', message: 'That day is still to come' };
  const dueOn = due || on;
  if (keptFrom !== null && dueOn < keptFrom && on < keptFrom)
    return {
      key: at === '' ? 'dueOn' : 'doneAt',
      message: `It would be let go at once: finished work is kept for ${plural(scope.workspace.keepYears ?? 0, 'year')} here`,
    };
  return {
    ...{ ...of, title: said('title'), dueOn, dueTime: null, workOn: dueOn, startTime: null },
    ...{
      assigneeId: said('who') || said('doneBy') || null,
      minutes: minutesOf(values),
      priority: 'normal',
      brief: '',
      note: [said('note'), ...strangers].filter(Boolean).join('\n'),
    },
    ended: isSkipped
      ? { state: 'skipped', at: null, by: said('doneBy') || null }
      : { state: 'done', at: at.length > 10 ? at : `${at}T${NOON}`, by: said('doneBy') || said('who') || null },
  };
}

const minutesOf = (values: Line['values']): number | null => {
  const { minutes } = values;
  return typeof minutes === 'number' ? minutes : null;
};

/** Tasks of the same name, day and client that are here, by line. */
async function alikeOf(
  scope: Scope,
  lines: readonly { readonly number: number; readonly made: MadeTaskLine }[],
): Promise<ReadonlyMap<number, string>> {
  const rows = await scope.sql<{ number: number; id: string }>(
    `select line.number, t.id from jsonb_to_recordset($2::jsonb) as line (number integer, title text, due date, client uuid)
     cross join lateral (
       select t.id from task t where t.workspace_id = $1 and t.due_on = line.due and lower(t.title) = lower(line.title)
         and t.client_id is not distinct from line.client order by t.id limit 1) t`,
    [
      JSON.stringify(
        lines.map(({ number, made: { title, dueOn, clientId } }) => ({ number, title, due: dueOn, client: clientId })),
      ),
    ],
  );
  return new Map(rows.map(({ number, id }) => [number, id]));
}

async function write(scope: Scope, bringIn: BringIn): Promise<readonly string[]> {
  const changeIds: string[] = [];
  for await (const rows of pagesOf(scope, bringIn, 'number, fate, choice, read'))
    changeIds.push(...(await writeTasksOf(scope, bringIn, rows)));
  return changeIds;
}

/** Writes the tasks of a page of lines; gives the changes that tell of them. */
export async function writeTasksOf(scope: Scope, bringIn: BringIn, rows: readonly BringInRow[]): Promise<string[]> {
  const going = rows.filter((row) => effectOf(bringIn.kind, row) === 'new');
  const lines = going.map(({ read }) => read.made as MadeTaskLine);
  const templates = new Map(
    (await scope.find(Template, { id: In(lines.flatMap(({ templateId }) => templateId ?? [])) })).map((one) => [
      one.id,
      one,
    ]),
  );
  const tasks = lines.map((line) => taskOf(scope, line, bringIn, templates));
  await insertTasks(scope, tasks);
  await keepWritten(
    scope,
    bringIn,
    going.map(({ number }, i) => ({ number, before: { newTaskId: tasks[i]?.id ?? '' } satisfies WrittenTaskLine })),
  );
  return scope.recordEach(
    tasks.map(({ id }) => ({ subject: 'task', subjectId: id, action: 'brought in', fields: {} })),
  );
}

function taskOf(scope: Scope, line: MadeTaskLine, bringIn: BringIn, templates: ReadonlyMap<string, Template>): NewTask {
  const template = templates.get(line.templateId ?? '');
  const { ended } = line;
  const task = plainTask(scope, {
    ...{ title: line.title, on: line.workOn, dueOn: line.dueOn, startTime: line.startTime, dueTime: line.dueTime },
    ...{ assigneeId: line.assigneeId, clientId: line.clientId, assetId: line.assetId },
    estimateMinutes: line.minutes ?? template?.estimateMinutes ?? usualMinutesOf(bringIn),
  });
  const said = {
    ...{ ...task, priority: line.priority, brief: line.brief, note: line.note },
    ...{
      templateId: template?.id ?? null,
      templateVersion: template?.version ?? null,
      workType: template?.workType ?? null,
    },
  };
  if (ended === null) return said;
  const { at } = ended;
  // What was done before its day appeared by then.
  const seenOn = at === null ? line.dueOn : isoOfDay(Math.min(dayOfIso(at.slice(0, 10)), dayOfIso(line.dueOn)));
  return {
    ...{ ...said, state: ended.state, startsOn: seenOn, appearsOn: seenOn, doneBy: ended.by },
    doneAt: at === null ? null : new Date(instantOf(at.slice(0, 10), at.slice(11), scope.workspace.zone)),
  };
}

async function takeOut(scope: Scope, bringIn: BringIn, sum: Sum): Promise<void> {
  for await (const rows of writtenRows(scope, bringIn)) await tasksOut(scope, rows, sum);
}

/** Those that nobody has done anything with since. */
export async function tasksOut(
  scope: Scope,
  rows: readonly Pick<BringInRow, 'read' | 'before'>[],
  sum: Sum,
): Promise<void> {
  const written = rows.map(({ before, read }) => ({ ...(before as WrittenTaskLine), title: read.title }));
  const gone = await scope.sql<{ id: string }>(
    `delete from task t where workspace_id = $1 and id = any($2::uuid[]) and version = 1
       and not exists (select from file f where f.workspace_id = $1 and f.task_id = t.id)
       and not exists (select from task_comment c where c.workspace_id = $1 and c.task_id = t.id) returning id`,
    [written.map(({ newTaskId }) => newTaskId)],
  );
  const out = new Set(gone.map(({ id }) => id));
  sum.out += out.size;
  for (const { newTaskId, title } of written) if (!out.has(newTaskId)) sum.stay.add(title);
}

const both = { write, takeOut, impact: null, topics: ['tasks'] } as const;
export const taskWays: Ways<false> = { look: lookAt(false), ...both };
export const historyWays: Ways<false> = { look: lookAt(true), ...both };
