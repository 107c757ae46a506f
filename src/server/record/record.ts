import { setImmediate } from 'node:timers/promises';
import type { Response } from 'express';
import {
  FIELD_WORDS,
  LOG_KIND_WORDS,
  type LogFilter,
  MOST_RECORD_PICTURES,
  MOST_RECORDED,
  RECORD_OF,
} from '../../contract/index.ts';
import { plural } from '../../core/index.ts';
import type { FileStore } from '../files/stored/index.ts';
import { historyOf } from '../history/index.ts';
import { entriesOf } from '../logbook/index.ts';
import { sendPaper } from '../platform/pdf.ts';
import { invalid, notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { pastLetGo } from '../retention/index.ts';
import { namesOfFilter } from '../task-list/index.ts';
import { oneTask, whyHere } from '../tasks/index.ts';
import { wordsOfInstructions } from '../templates/stored/index.ts';
import { RecordPaper } from './record-pdf.ts';
import { plainName, sayMoment, sayOn } from './record-words.ts';
import { recordedTasks } from './recorded.ts';

/** Changes of one task that are told. */
const MOST_CHANGES = 1_000;
/** Entries that are told at a time. */
const AT_ONCE = 100;

/** What of that time is not kept any longer: whoever checks is told. */
async function saidOfLetGo(scope: Scope, { from }: LogFilter): Promise<string[]> {
  const [last] = await pastLetGo(scope);
  if (last === undefined || from >= last.before) return [];
  return [
    `What was due before ${sayOn(last.before)} is not kept any longer, but for the last of each schedule: it was let go on ${sayOn(last.on)}.`,
  ];
}

/** Sends what the logbook has of one thing over a time, by the days on which it was due. */
export async function sendRecord(scope: Scope, files: FileStore, filter: LogFilter, response: Response): Promise<void> {
  const name = Object.values(await namesOfFilter(scope, filter)).find((one) => one !== null)?.name;
  if (name === undefined) throw notFound('record');
  const ids = await idsOf(scope, filter);
  const figures = await figuresOf(scope, ids);
  const paper = new RecordPaper(
    {
      workspace: scope.workspace.name,
      title: `Record of ${name}`,
      lines: [
        `What was due from ${sayOn(filter.from)} to ${sayOn(filter.to)}.`,
        ...(await saidOfFilter(scope, filter)),
        ...(await saidOfLetGo(scope, filter)),
        figures,
      ],
      made: madeBy(scope),
    },
    files,
  );
  let room = MOST_RECORD_PICTURES;
  for (let at = 0; at < ids.length; at += AT_ONCE) {
    for (const task of await recordedTasks(scope, ids.slice(at, at + AT_ONCE), room)) {
      room -= task.pictures.length;
      await paper.task(task);
      // Others who wait for this process get their turn.
      await setImmediate();
    }
    if (response.closed) return;
  }
  if (ids.length === 0) paper.part('Nothing was due in this time', ['There is no entry of it in the logbook.']);
  sendPaper(response, paper.finished(), `${plainName(`Record of ${name}, ${filter.from} to ${filter.to}`)}.pdf`);
}

/** What narrows a record beside its time and what it is of: nobody takes a part of it for all. */
async function saidOfFilter(scope: Scope, { from: _, to: __, kind, ...rest }: LogFilter): Promise<string[]> {
  const people = await scope.peopleNames();
  const others = Object.entries(rest)
    .filter(([name]) => !RECORD_OF.includes(name as 'client'))
    .flatMap(([name, value]) =>
      value === undefined ? [] : [`${FIELD_WORDS[name] ?? name} “${people.get(String(value)) ?? value}”`],
    );
  const said = [...(kind === 'all' ? [] : [LOG_KIND_WORDS[kind]]), ...others];
  return said.length === 0 ? [] : [`Of it only a part: ${said.join(', ')}.`];
}

async function idsOf(scope: Scope, filter: LogFilter): Promise<string[]> {
  const asked = await entriesOf(scope, filter);
  const rows = await scope.sql<{ id: string }>(
    `select t.id from task t where ${asked.where} order by t.due_on, coalesce(t.due_time, '~'), t.title, t.id limit ${MOST_RECORDED + 1}`,
    asked.params,
  );
  if (rows.length > MOST_RECORDED)
    throw invalid([
      {
        path: 'from',
        message: `There are more than ${MOST_RECORDED.toLocaleString('en-GB')} entries in this time: choose a shorter one.`,
      },
    ]);
  return rows.map(({ id }) => id);
}

async function figuresOf(scope: Scope, ids: readonly string[]): Promise<string> {
  const rows = await scope.sql<{ state: string; count: number }>(
    `select state, count(*)::int as count from task where workspace_id = $1 and id = any($2::uuid[]) group by 1`,
    [ids],
  );
  const of = (state: string) => rows.find((row) => row.state === state)?.count ?? 0;
  const words = [
    `${of('done')} done`,
    `${of('toCheck')} to check`,
    `${of('skipped')} skipped`,
    `${of('lapsed')} lapsed`,
  ];
  return `${plural(ids.length, 'entry', 'entries')}: ${words.filter((one) => !one.startsWith('0 ')).join(', ') || 'none'}.`;
}

/** Sends the whole chain of one task: why it is here, how it is done, what was given for it, and what was done with it. */
export async function sendTaskRecord(scope: Scope, files: FileStore, id: string, response: Response): Promise<void> {
  const task = await oneTask(scope, id);
  const [recorded] = await recordedTasks(scope, [id]);
  if (!recorded) throw notFound('task');
  const { schedule, template } = task;
  const paper = new RecordPaper(
    {
      workspace: scope.workspace.name,
      title: `Record of ${task.title}`,
      lines: [
        template
          ? `By the template “${template.name}”${schedule ? `, on the schedule “${schedule.phrase}”` : ''}.`
          : '',
      ].filter(Boolean),
      made: madeBy(scope),
    },
    files,
  );
  paper.part('Why it is here', await whyHere(scope, id), true);
  paper.part(
    'How it is done',
    [wordsOfInstructions(task.instructions), task.brief].filter((words) => words.trim() !== ''),
  );
  paper.heading('What was done');
  await paper.task(recorded, { isAlone: true });
  const entries = await historyOf(scope, 'task', id, MOST_CHANGES + 1);
  paper.part(
    'What became of it, the latest first',
    entries.slice(0, MOST_CHANGES).map(({ at, by, said }) => `${sayMoment(at)}, ${by ?? 'by itself'}: ${said}`),
  );
  if (entries.length > MOST_CHANGES) paper.part('and more', [`Only the latest ${MOST_CHANGES} changes stand here.`]);
  sendPaper(response, paper.finished(), `${plainName(`Record of ${task.title}, ${task.dueOn}`)}.pdf`);
}

function madeBy(scope: Scope): string {
  return `made ${sayMoment(scope.moment(scope.instant))} by ${scope.person?.name ?? 'the server'}`;
}
