import { z } from 'zod';
import { PRIORITIES, type Priority, type TaskOrder } from '../../contract/index.ts';
import { invalid } from '../platform/refusal.ts';
import { isKeyOf, type TaskQuestion } from './fitting.ts';

/** By what tasks stand in order: an expression, and its type in the database. */
type Key = readonly [expression: string, type: string];

/** Some of the tasks, and how they stand among each other; their ids last, so that each has a place of its own. */
interface Part {
  /** Which of the tasks; left out for all. */
  readonly of?: string;
  readonly keys: readonly Key[];
  readonly isDown?: true;
}

const ID: Key = ['t.id', 'uuid'];
const BY_DUE: readonly Key[] = [['t.due_on', 'date'], ["coalesce(t.due_time, '~')", 'text'], ID];
const ofPriority = (priority: Priority): Part => ({ of: `t.priority = '${priority}'`, keys: BY_DUE });

/**
 * Each order as parts that follow one another. By due day, priority and finish an index gives the first ones of each part at
 * once; by title and estimate what fits is sorted.
 */
const ORDERS: Readonly<Record<TaskOrder, readonly [Part, ...Part[]]>> = {
  due: [{ keys: BY_DUE }],
  latest: [{ keys: BY_DUE, isDown: true }],
  title: [{ keys: [['lower(t.title)', 'text'], ID] }],
  longest: [{ keys: [['t.estimate_minutes', 'int'], ID], isDown: true }],
  shortest: [{ keys: [['t.estimate_minutes', 'int'], ID] }],
  urgent: PRIORITIES.toReversed().map(ofPriority) as [Part, ...Part[]],
  finished: [
    { of: 't.done_at is not null', keys: [['t.done_at', 'timestamptz'], ID], isDown: true },
    { of: 't.done_at is null', keys: BY_DUE },
  ],
};

/** Where a task stands in an order: in which part, and by what in it. */
export type Place = readonly [part: number, ...keys: (string | number)[]];

interface Wanted {
  /** Of `task t`, by what they are called. */
  readonly columns: Readonly<Record<string, string>>;
  /** Each with its place, from which the list goes on. */
  readonly isPlaced?: true;
  readonly most: number;
  /** The place after which they are wanted, as a page told it. */
  readonly after?: string | undefined;
  /** A further condition, which is not the question's own. */
  readonly and?: string;
}

/**
 * The first tasks of an order that fit, or the first after a place, as SQL.
 * @throws Refusal where a place is not one that a page has told
 */
export function inOrder(
  asked: TaskQuestion,
  order: TaskOrder,
  { columns, isPlaced, most, after, and }: Wanted,
): string {
  const parts = ORDERS[order];
  const from = after === undefined ? null : readPlace(order, after);
  const which = [asked.where, and].filter(Boolean).join(' and ');
  const selected = parts.flatMap(({ of, keys, isDown }, index) => {
    if (from !== null && index < from[0]) return [];
    const names = keys.map(([expression]) => expression).join(', ');
    const beyond = from !== null && index === from[0] ? isBeyond(asked, keys, isDown ? '<' : '>', from) : null;
    const where = [which, of, beyond].filter(Boolean).join(' and ');
    const by = keys.map(([expression]) => `${expression}${isDown ? ' desc' : ''}`).join(', ');
    const all = { ...columns, ...(isPlaced ? { place: `jsonb_build_array(${index}, ${names})` } : {}) };
    const select = `select ${Object.entries(all)
      .map(([name, of]) => `${of} as "${name}"`)
      .join(', ')}`;
    return [{ select, all, where, by, index }];
  });
  const [only] = selected;
  if (only && selected.length === 1)
    return `${only.select} from task t where ${only.where} order by ${only.by} limit ${most}`;
  const each = selected.map(
    ({ select, where, by, index }) =>
      `(${select}, ${index} as part, row_number() over (order by ${by}) as nth from task t where ${where} order by ${by} limit ${most})`,
  );
  const names = Object.keys(only?.all ?? {}).map((name) => `"${name}"`);
  return `select ${names.join(', ')} from (${each.join(' union all ')}) parts order by part, nth limit ${most}`;
}

function isBeyond(asked: TaskQuestion, keys: readonly Key[], sign: '<' | '>', [, ...values]: Place): string {
  const placed = keys.map(([, type], i) => `${asked.with(values[i])}::${type}`);
  return `(${keys.map(([expression]) => expression).join(', ')}) ${sign} (${placed.join(', ')})`;
}

/** No text of the database holds the sign of no sign. */
const placeSchema = z.tuple(
  [z.number().int().min(0)],
  z.union([
    z
      .string()
      .max(300)
      .refine((text) => !text.includes('\0')),
    z.number(),
  ]),
);

/** @throws Refusal where it is not what a page said */
function readPlace(order: TaskOrder, after: string): Place {
  const place = placeSchema.safeParse(readJson(after)).data;
  const keys = place && ORDERS[order][place[0]]?.keys;
  const [, ...values] = place ?? [0];
  if (!place || keys?.length !== values.length || !keys.every(([, type], i) => isOfType(type, values[i])))
    throw invalid([{ path: 'after', message: 'The list can’t go on from there: load it again.' }]);
  return place;
}

function readJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    if (error instanceof SyntaxError) return undefined;
    throw error;
  }
}

function isOfType(type: string, value: string | number | undefined): boolean {
  switch (type) {
    case 'date':
      return typeof value === 'string' && isKeyOf('day', value);
    case 'timestamptz':
      return (
        typeof value === 'string' && /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d/.test(value) && !Number.isNaN(Date.parse(value))
      );
    case 'uuid':
      return typeof value === 'string' && value !== '' && isKeyOf('client', value);
    case 'int':
      return typeof value === 'number' && Number.isInteger(value) && Math.abs(value) < 2 ** 31;
    default:
      return typeof value === 'string';
  }
}
