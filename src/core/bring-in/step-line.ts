import type { Offset } from '../planning/timing.ts';
import { readOffset, sayOffset } from '../worksheet/cells.ts';
import { type RowValues, textOfValue } from './row.ts';
import type { LineProblem } from './schedule-line.ts';

/** A step of a template as a line of a file says it: a check line, or a task of its own where it says how long it takes. */
export interface StepLine {
  readonly text: string;
  readonly note: string;
  /** Minutes of a task of its own, with its day told from that of the set; null for a check line. */
  readonly own: { readonly estimateMinutes: number; readonly offset: Offset } | null;
}

const WAY = / (before|earlier|after|later)$/i;

/** Reads the step of a line; null where it says none. */
export function readStepLine(
  values: RowValues,
): { readonly step: StepLine | null } | { readonly problem: LineProblem } {
  const text = textOfValue(values, 'step');
  const [note, day] = [textOfValue(values, 'stepNote'), textOfValue(values, 'stepDay')];
  const minutes = values['stepMinutes'];
  if (text === '') {
    if (note === '' && day === '' && minutes === undefined) return { step: null };
    return { problem: { key: 'step', message: 'It says something of a step, and not which' } };
  }
  if (minutes === undefined) {
    if (day === '') return { step: { text, note, own: null } };
    return {
      problem: { key: 'stepMinutes', message: 'A step with a day of its own is a task: say how long it takes' },
    };
  }
  const offset = readStepDay(day);
  if (offset === null)
    return {
      problem: { key: 'stepDay', message: `“${day}”: write it like “2 working days before” or “3 days after”` },
    };
  return { step: { text, note, own: { estimateMinutes: Number(minutes), offset } } };
}

/** "2 working days before", "3 days after", "on the day"; null where it can't be read, or says no direction. */
function readStepDay(text: string): Offset | null {
  const away = readOffset(text);
  if (away === null || away.amount === 0) return away;
  const way = WAY.exec(text)?.[1]?.toLowerCase();
  if (way === undefined) return null;
  return way === 'before' || way === 'earlier' ? { ...away, amount: -away.amount } : away;
}

/** The same as cells, by the keys of their fields. */
export function writeStepLine({ text, note, own }: StepLine): Record<string, string> {
  return {
    step: text,
    stepNote: note,
    ...(own === null
      ? {}
      : {
          stepMinutes: String(own.estimateMinutes),
          stepDay: sayOffset(own.offset, own.offset.amount < 0 ? 'before' : 'after'),
        }),
  };
}
