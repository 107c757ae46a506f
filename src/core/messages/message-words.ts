import { dayOfIso, type IsoDate } from '../civil-date/iso-date.ts';
import type { CivilNow } from '../insight/task-state.ts';
import { plural, sayDay } from '../wording/date-words.ts';
import type { TaskTurn, Turn } from './hearing.ts';
import type { MessageKind, MessageSide } from './kinds.ts';

/** What a line of a message says: what it is about, and what became of it. */
export interface MessageWords {
  readonly title: string;
  readonly text: string;
}

export interface Telling {
  readonly today: CivilNow['day'];
  readonly ways?: Parameters<typeof sayDay>[2];
  /** How somebody is called; nobody of that id where null. */
  readonly nameOf: (personId: string) => string | null;
}

/** What is told of a task: how it is called, and what the last that sent it back said. */
export interface ToldTask {
  readonly title: string;
  readonly turn: TaskTurn;
  readonly sentBackReason: string | null;
}

/** What became of one task, in words. */
export function sayTurn(turn: Turn, { title, turn: told, sentBackReason }: ToldTask, telling: Telling): MessageWords {
  const { before, after, byId } = told;
  const facts = after ?? before;
  const name = (personId: string | null | undefined) => (personId == null ? null : telling.nameOf(personId));
  const by = name(byId) ?? (turn === 'finished' || turn === 'to check' ? (after?.doneByContact ?? null) : null);
  const byWords = by === null ? '' : ` by ${by}`;
  const changedBy = by === null ? '' : `, changed by ${by}`;
  const day = (on: IsoDate | null | undefined) => (on == null ? '' : sayDay(dayOfIso(on), telling.today, telling.ways));
  const texts: Readonly<Record<Turn, () => string>> = {
    given: () => `yours now, due ${day(facts?.dueOn)}${by === null ? '' : `, from ${by}`}`,
    offered: () => `anyone of you may take it, due ${day(facts?.dueOn)}`,
    taken: () => `${goesTo(name(after?.assigneeId))}${changedBy}`,
    'taken out': () => `taken out${byWords}`,
    claimed: () => `${name(after?.assigneeId) ?? 'somebody'} took it, due ${day(facts?.dueOn)}`,
    'given back': () => `nobody has it now, due ${day(facts?.dueOn)}`,
    'handed on': () =>
      `${[name(before?.assigneeId), name(after?.assigneeId)].filter(Boolean).join(' → ')}, due ${day(facts?.dueOn)}`,
    moved: () => `due ${day(after?.dueOn)} instead of ${day(before?.dueOn)}${changedBy}`,
    'held up': () => `${after?.heldReason ?? ''}, until ${day(after?.heldUntil)}`,
    'goes on': () => 'can go on',
    'to check': () => `finished${byWords}`,
    signed: () => `signed${byWords}`,
    'sent back': () => [`sent back${byWords}`, sentBackReason].filter(Boolean).join(': '),
    finished: () => `finished${byWords}`,
    skipped: () => `skipped${byWords}`,
  };
  return { title, text: texts[turn]() };
}

const goesTo = (name: string | null) => (name === null ? 'no longer yours' : `${name} has it now`);

/** What several tasks have become at once, told in one line. @param first the earliest day on which one of them is due */
const MANY: Readonly<Record<Turn, (tasks: string, first: string) => string>> = {
  given: (tasks, first) => `${tasks} are yours from ${first}`,
  offered: (tasks, first) => `${tasks} are there for anyone of you, from ${first}`,
  taken: (tasks) => `${tasks} are no longer yours`,
  'taken out': (tasks) => `${tasks} of yours were taken out`,
  claimed: (tasks) => `${tasks} were claimed`,
  'given back': (tasks, first) => `${tasks} have nobody, from ${first}`,
  'handed on': (tasks, first) => `${tasks} changed hands, from ${first}`,
  moved: (tasks, first) => `${tasks} are due on other days, from ${first}`,
  'held up': (tasks) => `${tasks} are held up`,
  'goes on': (tasks) => `${tasks} can go on`,
  'to check': (tasks) => `${tasks} are to check`,
  signed: (tasks) => `${tasks} were signed`,
  'sent back': (tasks) => `${tasks} were sent back`,
  finished: (tasks) => `${tasks} were finished`,
  skipped: (tasks) => `${tasks} were skipped`,
};

/** The same that became of several tasks in one go. @throws Error where there are none */
export function sayTurns(turn: Turn, tasks: readonly ToldTask[], telling: Telling): MessageWords {
  const [first, ...rest] = [...tasks].sort((a, b) => dueOf(a).localeCompare(dueOf(b)));
  if (first === undefined) throw new Error('Nothing became of no task.');
  if (rest.length === 0) return sayTurn(turn, first, telling);
  const day = sayDay(dayOfIso(dueOf(first)), telling.today, telling.ways);
  return {
    title: MANY[turn](plural(tasks.length, 'task'), day),
    text: sayFirstOf(tasks.map(({ title }) => title)),
  };
}

const dueOf = ({ turn }: ToldTask): IsoDate => (turn.after ?? turn.before)?.dueOn ?? '';

/** "Boom gate, winter setting", "Pontoon A inspection, Hose reels and 3 more", the same title once. @param count of all, where the titles are the first alone */
export function sayFirstOf(titles: readonly string[], count = new Set(titles).size): string {
  const shown = [...new Set(titles)].slice(0, 2);
  const more = count - shown.length;
  return more > 0 ? `${shown.join(', ')} and ${more.toLocaleString('en-GB')} more` : shown.join(' and ');
}

/** What somebody hears of a task by the time, and not by what was done. */
export type TimedKind = Extract<MessageKind, 'late' | 'reminder' | 'soon' | 'client'>;

export interface TimedTask {
  readonly title: string;
  readonly dueOn: IsoDate;
  readonly personId: string | null;
}

const MANY_TIMED: Readonly<Record<TimedKind, (tasks: string) => string>> = {
  late: (tasks) => `${tasks} are late`,
  reminder: (tasks) => `${tasks} to think of`,
  soon: (tasks) => `${tasks} are due soon`,
  client: (tasks) => `${tasks} that clients were asked for are late`,
};

/** What is told of tasks by the time: of one when it is due, and who has it where that is somebody else; of several how many. */
export function sayTimed(
  kind: TimedKind,
  side: MessageSide,
  tasks: readonly TimedTask[],
  { today, ways, nameOf }: Telling,
): MessageWords {
  const [only, ...rest] = tasks;
  if (only === undefined || rest.length > 0)
    return { title: MANY_TIMED[kind](plural(tasks.length, 'task')), text: sayFirstOf(tasks.map(({ title }) => title)) };
  const due = `${kind === 'late' || kind === 'client' ? 'late: ' : ''}due ${sayDay(dayOfIso(only.dueOn), today, ways)}`;
  if (side === 'mine') return { title: only.title, text: due };
  if (kind === 'client') return { title: only.title, text: `${due}, the client has it` };
  const who = only.personId === null ? 'nobody has it' : nameOf(only.personId);
  return { title: only.title, text: [due, who].filter(Boolean).join(', ') };
}
