import type { ReactNode } from 'react';
import {
  BESIDE_COLUMNS,
  type BesideColumn,
  type ListedTask,
  PLAIN_COLUMNS,
  TASK_COLUMNS,
  type TaskColumn,
  type TaskOrder,
} from '../../../contract/index.ts';
import { type CivilDay, dayOfIso, isOverdue, sayDuration } from '../../../core/index.ts';
import { DateBlock } from '../../kit/date-block.tsx';
import { Pennant } from '../../kit/pennant.tsx';
import { PennantString } from '../../kit/pennant-string.tsx';
import { Tag } from '../../kit/tag.tsx';
import { sayNear } from '../../kit/ways.ts';
import { sayMoment } from '../tasks/task-words.ts';
import { sayStillMissing, sayTimeOf, sayWho } from './list-words.ts';

interface Around {
  readonly today: CivilDay;
  /** The title as it is opened, and for whom it is. */
  readonly title: ReactNode;
}

interface Column {
  readonly head: string;
  /** In pixels; null for what is left. */
  readonly width: number | null;
  /** Figures stand to the right. */
  readonly isRight?: true;
  /** What a press on its head orders by, once and once more. */
  readonly orders?: readonly [TaskOrder, TaskOrder];
  readonly cell: (task: ListedTask, around: Around) => ReactNode;
}

/** What is told in words, in full where the pointer rests. */
const words = (head: string, width: number, say: (task: ListedTask, today: CivilDay) => string): Column => ({
  head,
  width,
  cell: (task, { today }) => {
    const said = say(task, today);
    return <span title={said}>{said}</span>;
  },
});

const sayMaybe = (moment: string | null, today: CivilDay) => (moment === null ? '' : sayMoment(moment, today));

/** All that a list of tasks may have in a column. */
export const COLUMNS: Readonly<Record<TaskColumn, Column>> = {
  due: {
    head: 'due',
    width: 136,
    orders: ['due', 'latest'],
    cell: (task) => (
      <span className="flex items-center gap-1.5">
        <Pennant state={task.state} late={task.late} heldUp={task.heldUp} size={20} />
        <DateBlock day={dayOfIso(task.dueOn)} {...(isOverdue(task) ? { look: 'late' as const } : {})} />
      </span>
    ),
  },
  time: {
    head: 'time',
    width: 112,
    cell: (task, { today }) => (
      <span className={isOverdue(task) ? 'text-late' : 'text-ink-2'}>{sayTimeOf(task, today)}</span>
    ),
  },
  task: { head: 'task and for whom', width: null, orders: ['title', 'title'], cell: (_, { title }) => title },
  who: {
    head: 'who',
    width: 132,
    cell: (task) => (
      <span className={task.assignee === null ? 'text-ink-2' : undefined} title={sayWho(task)}>
        {sayWho(task)}
      </span>
    ),
  },
  steps: {
    head: 'steps',
    width: 56,
    isRight: true,
    cell: ({ stepsDone, stepsTotal }) => (
      <span className="text-ink-2">{stepsTotal > 0 && `${stepsDone}/${stepsTotal}`}</span>
    ),
  },
  missing: words('still missing', 160, sayStillMissing),
  priority: {
    ...words('priority', 66, ({ priority }) => (priority === 'normal' ? '' : priority)),
    orders: ['urgent', 'urgent'],
  },
  estimate: {
    head: 'estimate',
    width: 84,
    isRight: true,
    orders: ['longest', 'shortest'],
    cell: ({ estimateMinutes }) => sayDuration(estimateMinutes),
  },
  lastEight: {
    head: 'last eight',
    width: 160,
    isRight: true,
    cell: ({ lastEight = [] }) => lastEight.length > 0 && <PennantString tasks={lastEight} />,
  },
  workType: words('type of work', 112, ({ workType }) => workType ?? ''),
  template: words('template', 150, ({ template }) => template ?? ''),
  site: words('site', 120, ({ site }) => site ?? ''),
  phrase: words('rule', 190, ({ phrase }) => phrase ?? ''),
  appears: words('appears', 100, ({ appears }, today) =>
    appears === undefined ? '' : sayNear(dayOfIso(appears), today),
  ),
  made: words('made', 104, ({ made = '' }) => made),
  category: { head: 'category', width: 116, cell: ({ category }) => <Tag category={category} /> },
  client: words('client', 140, ({ client }) => client?.name ?? ''),
  asset: words('asset', 130, ({ asset }) => asset?.name ?? ''),
  signsOff: words('signs it off', 132, ({ signsOff }) => signsOff ?? ''),
  started: words('started', 118, ({ startedAt }, today) => sayMaybe(startedAt, today)),
  finished: {
    ...words('finished', 118, ({ doneAt }, today) => sayMaybe(doneAt, today)),
    orders: ['finished', 'finished'],
  },
  nudged: words('last nudged', 118, ({ nudgedAt }, today) => sayMaybe(nudgedAt, today)),
};

export const isPlain = (columns: readonly TaskColumn[]): boolean => columns.join() === PLAIN_COLUMNS.join();

/** Columns as an address has them, with commas between: each once, the task itself always; what is none of them is left out. */
export function columnsNamed(named: string | null): readonly TaskColumn[] {
  const found = new Set(named?.split(',').flatMap((one) => TASK_COLUMNS.find((column) => column === one) ?? []));
  if (found.size === 0) return PLAIN_COLUMNS;
  return found.has('task') ? [...found] : ['task', ...found];
}

/** What of the columns is to be asked for besides; nothing where they tell no more than every line does. */
export const besideOf = (columns: readonly TaskColumn[]): { readonly beside?: string } => {
  const asked = BESIDE_COLUMNS.filter((column: BesideColumn) => columns.includes(column));
  return asked.length === 0 ? {} : { beside: asked.join() };
};

/** As much as what is left has to have, for the title and for whom it is. */
const LEAST_TITLE = 300;
const CHOICE_WIDTH = 44;

/** The least that a table of these columns takes, in pixels, with the choice before them. */
export function widthOf(columns: readonly TaskColumn[]): number {
  return columns.reduce((sum, column) => sum + (COLUMNS[column].width ?? LEAST_TITLE), CHOICE_WIDTH);
}

export const widthsOf = (columns: readonly TaskColumn[]) => [CHOICE_WIDTH, ...columns.map((one) => COLUMNS[one].width)];
