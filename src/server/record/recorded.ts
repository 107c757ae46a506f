import { type LogEntry, MOST_RECORD_PICTURES, type StoredFile } from '../../contract/index.ts';
import { isOutside, ownOf, plural, sayAnswer, sayLimits, sayOutside } from '../../core/index.ts';
import { bytesOf, filesOfTasks, smallOf } from '../files/stored/index.ts';
import { loggedById } from '../logbook/index.ts';
import type { Scope } from '../platform/scope.ts';
import type { Task, TaskRow } from '../tasks/stored/index.ts';
import { sayMoment, sayOn } from './record-words.ts';

/** One thing that was asked for, and what was given. */
interface RecordedAnswer {
  readonly asked: string;
  readonly given: string;
  /** "0.32 Ω over the limit"; empty within the limits. */
  readonly outside: string;
  readonly remark: string;
}

interface RecordedStep {
  readonly text: string;
  readonly isTicked: boolean;
  /** "10:03, Nadia Orme" */
  readonly ticked: string;
  readonly answers: readonly RecordedAnswer[];
}

export interface RecordedPicture {
  readonly stored: string;
  readonly words: string;
}

/** A task as a record tells it. */
export interface Recorded {
  readonly id: string;
  readonly title: string;
  readonly due: string;
  /** Whom and what it was for; empty for the workspace itself. */
  readonly about: string;
  /** How it went, a sentence each. */
  readonly facts: readonly string[];
  /** Whether it went otherwise than planned. */
  readonly isOff: boolean;
  readonly steps: readonly RecordedStep[];
  readonly answers: readonly RecordedAnswer[];
  readonly note: string;
  readonly pictures: readonly RecordedPicture[];
  /** Files that are not shown here: papers, and pictures for which there is no room. */
  readonly files: readonly string[];
}

/** So many of one task. */
const PICTURES_EACH = 12;

const STATES = {
  toCheck: 'Finished, still to be checked',
  done: 'Done',
  skipped: 'Skipped',
  lapsed: 'Lapsed',
} as const;

/** Some tasks as a record tells them, in the order of their ids; those that are gone are left out. @param room for so many pictures */
export async function recordedTasks(
  scope: Scope,
  ids: readonly string[],
  room: number = MOST_RECORD_PICTURES,
): Promise<Recorded[]> {
  const [logged, checked, files, people] = await scope.atOnce(
    () => loggedById(scope, ids),
    () => checkedOf(scope, ids),
    () => filesOfTasks(scope, ids),
    () => scope.peopleNames(),
  );
  const nameOf = (id: string | null) => (id === null ? 'somebody' : (people.get(id) ?? 'somebody'));
  const pictures = pictureIds(ids, files, room);
  const bytes = await bytesOf(scope, [...pictures]);
  return ids.flatMap((id) => {
    const one = logged.get(id);
    const task = checked.get(id);
    if (!one || !task) return [];
    const { entry, row } = one;
    const all = files.get(id) ?? [];
    const { sentBack } = task;
    return [
      {
        id,
        title: row.title,
        due: `${sayOn(row.dueOn)}${row.dueTime ? `, ${row.dueTime}` : ''}`,
        about: [row.clientName, row.assetName].filter(Boolean).join(', '),
        facts: [
          outcomeOf(entry, scope.moment(task.signedAt)),
          ...sentBack.map(
            ({ at, by, reason }) => `Sent back ${sayMoment(scope.moment(new Date(at)))} by ${nameOf(by)}: “${reason}”`,
          ),
        ],
        isOff: entry.late || entry.state === 'skipped' || entry.state === 'lapsed' || sentBack.length > 0,
        steps: row.checkLines.map((line) => {
          const tick = ownOf(row.ticks, line.key);
          return {
            text: line.text,
            isTicked: tick !== undefined,
            ticked: tick ? `${sayMoment(scope.moment(new Date(tick.at)), row.dueOn)}, ${nameOf(tick.by)}` : '',
            answers: answersOf(row, line.demands),
          };
        }),
        answers: answersOf(row, row.demands),
        note: row.note,
        pictures: all.flatMap((file) => {
          const stored = pictures.has(file.id) ? bytes.get(file.id) : undefined;
          return stored === undefined ? [] : [{ stored: smallOf(stored), words: sayFile(file) }];
        }),
        // Named where it is not shown: a paper, or a picture for which there is no room.
        files: all.filter(({ id: of }) => !pictures.has(of)).map(sayFile),
      },
    ];
  });
}

/** "Done Tue 24 Nov 2026 10:02 by Nadia Orme, 2 days late, signed off by Ines Calloway" */
function outcomeOf({ state, doneAt, by, late, daysLate, signedBy }: LogEntry, signedAt: string | null): string {
  const isDone = doneAt !== null;
  return [
    `${STATES[state] ?? 'Not over yet'}${isDone ? ` ${sayMoment(doneAt)}` : ''}${by && isDone ? ` by ${by}` : ''}`,
    by && !isDone ? `${by} had it` : '',
    late ? (daysLate === 0 ? 'after its time' : `${plural(daysLate, 'day')} late`) : '',
    signedAt ? `signed off by ${signedBy ?? 'somebody'} ${sayMoment(signedAt)}` : '',
  ]
    .filter(Boolean)
    .join(', ');
}

type Checked = Pick<Task, 'id' | 'sentBack' | 'signedAt'>;

/** How some tasks were checked, by their ids. */
async function checkedOf(scope: Scope, ids: readonly string[]): Promise<ReadonlyMap<string, Checked>> {
  const rows = await scope.sql<Checked>(
    `select id, sent_back as "sentBack", signed_at as "signedAt" from task where workspace_id = $1 and id = any($2::uuid[])`,
    [ids],
  );
  return new Map(rows.map((row) => [row.id, row]));
}

const sayFile = ({ name, at, by }: StoredFile): string => `${name}, ${sayMoment(at)}${by ? `, ${by}` : ''}`;

/** Which pictures are shown: the first of each task, as far as there is room. */
function pictureIds(
  ids: readonly string[],
  files: ReadonlyMap<string, readonly StoredFile[]>,
  room: number,
): ReadonlySet<string> {
  const each = ids.flatMap((id) => (files.get(id) ?? []).filter(({ isPicture }) => isPicture).slice(0, PICTURES_EACH));
  return new Set(each.slice(0, room).map(({ id }) => id));
}

function answersOf({ answers }: TaskRow, demands: TaskRow['demands']): RecordedAnswer[] {
  return demands.flatMap((demand): RecordedAnswer[] => {
    // Files and notes stand below.
    if (demand.kind === 'file' || demand.kind === 'note') return [];
    const answer = ownOf(answers, demand.key);
    const limits = demand.kind === 'number' ? sayLimits(demand) : '';
    const asked = `${demand.label || 'Answer'}${limits ? ` (${limits})` : ''}`;
    if (!answer) return [{ asked, given: 'not answered', outside: '', remark: '' }];
    const isOut = isOutside(demand, answer) && demand.kind === 'number' && typeof answer.value === 'number';
    return [
      {
        asked,
        given: sayAnswer(demand, answer.value),
        outside: isOut ? sayOutside(demand, answer.value as number) : '',
        remark: answer.remark,
      },
    ];
  });
}
