import type { LinkedTask } from '../../../contract/index.ts';
import {
  type CheckLine,
  DEMAND_WORDS,
  type Demand,
  joinAnd,
  type Missing,
  ownOf,
  stillMissing,
} from '../../../core/index.ts';
import type { Kept } from './kept-writing.ts';

/** One thing that is asked, under the number it stands under: an answer, a file, a note, or a tick. */
export interface AskedItem {
  readonly number: number;
  readonly name: string;
  /** How it is done; empty where the name says it all. */
  readonly note: string;
  readonly demand: Demand | null;
  readonly line: CheckLine | null;
}

/** The field of a note, and of the tick of a line, in what is kept on the device. */
export const NOTE_FIELD = 'note';
export const tickField = (key: string): string => `tick ${key}`;

/** All that a task asks, in the order in which it is shown. */
export function askedItems({ steps, demands, title }: Pick<LinkedTask, 'steps' | 'demands' | 'title'>): AskedItem[] {
  type Unnumbered = Omit<AskedItem, 'number'>;
  const items: Unnumbered[] = [
    ...steps.flatMap((line): Unnumbered[] =>
      line.demands.length === 0
        ? [{ name: line.text, note: line.note, demand: null, line }]
        : line.demands.map((demand, i) => ({
            name: demand.label || line.text,
            note: i === 0 ? [demand.label === '' ? '' : line.text, line.note].filter(Boolean).join('. ') : '',
            ...{ demand, line },
          })),
    ),
    ...demands.map((demand) => ({
      name: demand.label || (demands.length === 1 ? title : DEMAND_WORDS[demand.kind]),
      ...{ note: '', demand, line: null },
    })),
  ];
  return items.map((item, i) => ({ ...item, number: i + 1 }));
}

/** What is missing with what stands here and is not sent yet, in the order of the numbers. */
export function missingItems(
  task: LinkedTask,
  items: readonly AskedItem[],
  here: Readonly<Record<string, Kept>>,
): AskedItem[] {
  const answers = { ...task.answers };
  for (const [field, { value, remark }] of Object.entries(here)) {
    if (value === null) delete answers[field];
    else answers[field] = { value: typeof value === 'object' ? [...value] : value, remark, at: '', by: null };
  }
  const ticked = task.steps.filter(({ key, isTicked }) => (ownOf(here, tickField(key))?.value ?? isTicked) === true);
  const files: Record<string, number> = {};
  for (const { demand } of task.files) if (demand !== null) files[demand] = (files[demand] ?? 0) + 1;
  const missing = stillMissing({
    ...{ demands: task.demands, checkLines: task.steps, answers, files },
    ticked: new Set(ticked.map(({ key }) => key)),
    note: ownOf(here, NOTE_FIELD)?.text ?? task.note,
  });
  const isIt = (item: AskedItem) => (one: Missing) =>
    item.demand === null ? one.demand === null && one.line === item.line?.key : one.demand === item.demand.key;
  return items.filter((item) => missing.some(isIt(item)));
}

/** "the file for 1 and the answers to 2 and 3" */
export function sayMissingItems(missing: readonly AskedItem[]): string {
  const of = (kind: (item: AskedItem) => boolean) => missing.filter(kind).map(({ number }) => String(number));
  const isFile = ({ demand }: AskedItem) => demand?.kind === 'file';
  const isTick = ({ demand }: AskedItem) => demand === null;
  const said = (words: [string, string], numbers: readonly string[]) =>
    numbers.length === 0 ? [] : [`${numbers.length === 1 ? words[0] : words[1]} ${joinAnd(numbers)}`];
  return joinAnd([
    ...said(['the file for', 'the files for'], of(isFile)),
    ...said(
      ['the answer to', 'the answers to'],
      of((item) => !isFile(item) && !isTick(item)),
    ),
    ...said(['the tick at', 'the ticks at'], of(isTick)),
  ]);
}
