import { WorstOver } from './worst-over.ts';

/** Work of one week that somebody has. */
export interface EvenTask {
  readonly id: string;
  readonly personId: string;
  /** The estimate, from 1. */
  readonly minutes: number;
  /** Who may have it: of the role, there on its day, with the tickets it asks for. Nobody where it must stay: begun, or given by hand. */
  readonly mayGoTo: readonly string[];
}

/** What one of the people can do in the week, in minutes; 0 for somebody who is away all of it. */
export interface EvenPerson {
  readonly id: string;
  readonly capacity: number;
}

/** A task that goes from one to another. */
export interface EvenMove {
  readonly taskId: string;
  readonly from: string;
  readonly to: string;
}

/** How uneven a week is: minutes over capacity of whoever is over most, then the spread, which is least where all are equally full. */
export interface Unevenness {
  readonly over: number;
  readonly spread: number;
}

/** What evens a week out by less than a minute of anybody's is not worth a move. */
const WORTH_A_MOVE = 1;
/** A sweep before all others. */
const LONG_AGO = -2;
/** Each sweep makes the week more even; so many end one that would go on in steps too small to matter. */
const MOST_SWEEPS = 200;
/** Whoever gave a task away may not be one who could have been given it, so that the week that follows has other places to begin from. */
const MOST_ROUNDS = 20;

/**
 * Moves that even out a week between people of one role: first whoever is most over capacity comes down, then the spread; of
 * moves that make no difference there are none. Never worse than what is there; once they are done there is nothing more to
 * propose. Weeks are evened out one by one, as no task leaves its day.
 * @throws RangeError for work of somebody who is not among the people
 */
export function evenOut(people: readonly EvenPerson[], tasks: readonly EvenTask[]): EvenMove[] {
  const open = openTo(people, tasks);
  let holders = holdersOf(people, tasks);
  for (let rounds = 0; rounds < MOST_ROUNDS; rounds++) {
    // What a round came to is settled in the next one too: there are fewer places then, and no other ones.
    const next = evenedOnce(weekOf(people, tasks, open, holders), rounds > 0);
    if (next === null) break;
    holders = next;
  }
  return tasks.flatMap(({ id, personId }, i) => {
    const to = people[holders[i] as number]?.id ?? personId;
    return to === personId ? [] : [{ taskId: id, from: personId, to }];
  });
}

/** Who has the tasks then; null where no more even week is found. */
function evenedOnce(week: Week, isSettled: boolean): Int32Array | null {
  const first = isSettled ? week.holders : settle(week, week.holders);
  const second = settle(week, spreadAnew(week));
  const best = isBetter(unevenness(week, second), unevenness(week, first)) ? second : first;
  if (!isBetter(unevenness(week, best), unevenness(week, week.holders))) return null;
  return withoutIdleMoves(week, best);
}

export function unevennessOf(people: readonly EvenPerson[], tasks: readonly EvenTask[]): Unevenness {
  return unevenness(figuresOf(people, tasks), holdersOf(people, tasks));
}

/** Whether a week is more even than another. */
export function isBetter(one: Unevenness, other: Unevenness): boolean {
  return isLess(one.over - other.over, one.spread - other.spread);
}

const isLess = (over: number, spread: number): boolean =>
  Math.abs(over) >= WORTH_A_MOVE ? over < 0 : spread <= -WORTH_A_MOVE;

/** A week by places in its lists: people and tasks are numbers, so that thousands of exchanges can be tried. */
interface Week {
  readonly capacity: Float64Array;
  /** The same, a minute at the least: what loads are held against. */
  readonly room: Float64Array;
  readonly minutes: Float64Array;
  /** Who has each task. */
  readonly holders: Int32Array;
  /** Who may have each, in order; whoever has it may keep it. */
  readonly choices: readonly (readonly number[])[];
  /** The same as a table, a row of people for each task. */
  readonly may: Uint8Array;
}

type Figures = Pick<Week, 'capacity' | 'room' | 'minutes'>;

function figuresOf(people: readonly EvenPerson[], tasks: readonly EvenTask[]): Figures {
  return {
    capacity: Float64Array.from(people, ({ capacity }) => capacity),
    room: Float64Array.from(people, ({ capacity }) => Math.max(1, capacity)),
    minutes: Float64Array.from(tasks, ({ minutes }) => minutes),
  };
}

function holdersOf(people: readonly EvenPerson[], tasks: readonly EvenTask[]): Int32Array {
  const at = new Map(people.map(({ id }, i) => [id, i]));
  return Int32Array.from(tasks, ({ personId }) => {
    const place = at.get(personId);
    if (place === undefined) throw new RangeError(`${personId} has work, and is not among the people of this week.`);
    return place;
  });
}

/** Who may be given each task, as a table, a row of people for each: told once, whoever has them by then. */
function openTo(people: readonly EvenPerson[], tasks: readonly EvenTask[]): Uint8Array {
  const at = new Map(people.map(({ id }, i) => [id, i]));
  const table = new Uint8Array(tasks.length * people.length);
  tasks.forEach(({ mayGoTo }, i) => {
    for (const id of mayGoTo) {
      const place = at.get(id);
      if (place !== undefined) table[i * people.length + place] = 1;
    }
  });
  return table;
}

/** A week as somebody has its tasks: whoever has one may keep it. */
function weekOf(
  people: readonly EvenPerson[],
  tasks: readonly EvenTask[],
  open: Uint8Array,
  holders: Int32Array,
): Week {
  const may = Uint8Array.from(open);
  const choices = tasks.map((_, i) => {
    const row = i * people.length;
    may[row + (holders[i] as number)] = 1;
    const places: number[] = [];
    for (let who = 0; who < people.length; who++) if (may[row + who] === 1) places.push(who);
    return places;
  });
  return { ...figuresOf(people, tasks), holders, choices, may };
}

function loadsOf({ capacity, minutes }: Pick<Week, 'capacity' | 'minutes'>, holders: Int32Array): Float64Array {
  const loads = new Float64Array(capacity.length);
  holders.forEach((who, i) => {
    loads[who] = (loads[who] as number) + (minutes[i] as number);
  });
  return loads;
}

/** Of a load: least in sum where all are equally full. Somebody without any hours counts as one who has a minute. */
const costOf = (load: number, capacity: number): number => (load * load) / Math.max(1, capacity);

function unevenness(week: Figures, holders: Int32Array): Unevenness {
  let [over, spread] = [0, 0];
  loadsOf(week, holders).forEach((load, who) => {
    const capacity = week.capacity[who] as number;
    over = Math.max(over, load - capacity);
    spread += costOf(load, capacity);
  });
  return { over, spread };
}

/** Another place to begin from: the longest first, each to whoever is least full with it. */
function spreadAnew(week: Week): Int32Array {
  const { minutes, capacity, choices } = week;
  const holders = Int32Array.from(week.holders);
  const loads = new Float64Array(capacity.length);
  const order = choices.map((_, i) => i).sort((a, b) => (minutes[b] as number) - (minutes[a] as number) || a - b);
  const fullness = (who: number, more: number) =>
    ((loads[who] as number) + more) / Math.max(1, capacity[who] as number);
  // What can't move is there whatever becomes of the rest.
  for (const isFixed of [true, false])
    for (const i of order) {
      const open = choices[i] as readonly number[];
      if ((open.length === 1) !== isFixed) continue;
      const more = minutes[i] as number;
      const who = open.reduce((one, other) => (fullness(other, more) < fullness(one, more) ? other : one));
      holders[i] = who;
      loads[who] = (loads[who] as number) + more;
    }
  return holders;
}

/**
 * Moves and exchanges one after the other, until none makes the week more even. A working copy is changed in place.
 * @param near a settled week: then only what differs from it is looked at first
 */
function settle(week: Week, from: Int32Array, near?: Int32Array): Int32Array {
  const { minutes, choices } = week;
  const holders = Int32Array.from(from);
  const loads = loadsOf(week, holders);
  const movable = choices.flatMap((open, i) => (open.length > 1 ? [i] : []));
  let sweeps = 0;
  /** The sweep in which somebody's load changed last. */
  const changedIn = new Int32Array(loads.length).fill(near ? LONG_AGO : 0);
  near?.forEach((who, i) => {
    if (who === holders[i]) return;
    changedIn[who] = 0;
    changedIn[holders[i] as number] = 0;
  });
  const shift = (a: number, b: number, more: number) => {
    loads[a] = (loads[a] as number) - more;
    loads[b] = (loads[b] as number) + more;
    changedIn[a] = sweeps;
    changedIn[b] = sweeps;
    if (worst.update()) changedIn.fill(sweeps);
  };
  const mayHave = (i: number, who: number) => week.may[i * loads.length + who] === 1;
  const worst = new WorstOver(week.capacity, loads);
  if (near && !new WorstOver(week.capacity, loadsOf(week, near)).isSame(worst)) changedIn.fill(0);
  relieve(week, holders, loads, worst);
  for (let isChanged = true; isChanged && sweeps < MOST_SWEEPS; sweeps++) {
    isChanged = false;
    for (const i of movable) {
      for (const who of choices[i] as readonly number[]) {
        const a = holders[i] as number;
        if (who === a || !isMoreEven(week, loads, worst, a, who, minutes[i] as number)) continue;
        shift(a, who, minutes[i] as number);
        holders[i] = who;
        isChanged = true;
      }
    }
    // Of two whose loads are what they were when their tasks were last held against each other, nothing is to be expected.
    const isHot = (who: number) => (changedIn[who] as number) >= sweeps - 1;
    const all = movable.map((_, n) => n);
    const hot = all.filter((n) => isHot(holders[movable[n] as number] as number));
    for (let n = 0; n < movable.length; n++) {
      const i = movable[n] as number;
      const length = minutes[i] as number;
      let a = holders[i] as number;
      const others = isHot(a) ? all : hot;
      // Most of all pairs are left at once: by their lengths, and by what they would do to the two.
      for (let at = others === all ? n + 1 : firstAfter(hot, n); at < others.length; at++) {
        const m = others[at] as number;
        const j = movable[m] as number;
        const b = holders[j] as number;
        const more = length - (minutes[j] as number);
        if (a === b || more === 0 || !isMoreEven(week, loads, worst, a, b, more)) continue;
        if (!mayHave(i, b) || !mayHave(j, a)) continue;
        shift(a, b, more);
        holders[i] = b;
        holders[j] = a;
        a = b;
        isChanged = true;
      }
    }
    if (!isChanged && pushOn(week, holders, loads)) {
      isChanged = true;
      changedIn.fill(sweeps);
      worst.update();
    }
  }
  return holders;
}

/** The place of the first number in a rising list that is larger than one. */
function firstAfter(list: readonly number[], than: number): number {
  let [low, high] = [0, list.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((list[middle] as number) > than) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Whoever is most over gives away what helps most, so often as that helps: few moves, where few are enough. */
function relieve(week: Week, holders: Int32Array, loads: Float64Array, worst: WorstOver): void {
  const { minutes, choices } = week;
  for (let moves = 0; moves < holders.length; moves++) {
    const who = worst.most;
    if (who === null) return;
    let best: { readonly i: number; readonly to: number; readonly gained: Unevenness } | null = null;
    for (let i = 0; i < holders.length; i++) {
      if (holders[i] !== who) continue;
      for (const to of choices[i] as readonly number[]) {
        if (to === who) continue;
        const more = minutes[i] as number;
        const gained = {
          over: overBy(week, loads, worst, who, to, more),
          spread: spreadBy(week, loads, who, to, more),
        };
        if (isLess(gained.over, gained.spread) && (best === null || isBetter(gained, best.gained)))
          best = { i, to, gained };
      }
    }
    if (best === null) return;
    holders[best.i] = best.to;
    loads[who] = (loads[who] as number) - (minutes[best.i] as number);
    loads[best.to] = (loads[best.to] as number) + (minutes[best.i] as number);
    worst.update();
  }
}

/** Chains are looked for in weeks of so many tasks that may move, times people, at the most; larger ones have room enough without. */
const MOST_FOR_CHAINS = 600;
const LONGEST_CHAIN = 3;

/**
 * A task that pushes another on, which pushes on a third: what no move and no exchange gets to. The first chain that makes the
 * week more even is taken.
 */
function pushOn(week: Week, holders: Int32Array, loads: Float64Array): boolean {
  const { choices } = week;
  if (choices.filter((open) => open.length > 1).length * loads.length > MOST_FOR_CHAINS) return false;
  const before = unevenness(week, holders);
  const from = (who: number, left: number): boolean => {
    for (let i = 0; i < holders.length; i++) {
      if (holders[i] !== who) continue;
      for (const to of choices[i] as readonly number[]) {
        if (to === who) continue;
        holders[i] = to;
        if (isBetter(unevenness(week, holders), before) || (left > 1 && from(to, left - 1))) return true;
        holders[i] = who;
      }
    }
    return false;
  };
  for (let who = 0; who < loads.length; who++)
    if (from(who, LONGEST_CHAIN)) {
      loads.set(loadsOf(week, holders));
      return true;
    }
  return false;
}

/** What so many minutes that go from one to another change: minutes over of whoever is over most, and the spread. */
function overBy(
  { capacity }: Week,
  loads: Float64Array,
  worst: WorstOver,
  a: number,
  b: number,
  minutes: number,
): number {
  const [overA, overB] = [
    (loads[a] as number) - (capacity[a] as number),
    (loads[b] as number) - (capacity[b] as number),
  ];
  const others = worst.but(a, b);
  return Math.max(others, overA - minutes, overB + minutes) - Math.max(others, overA, overB);
}

function spreadBy({ room }: Week, loads: Float64Array, a: number, b: number, minutes: number): number {
  // The difference of `costOf` before and after, without the squares of what stays.
  return (
    minutes *
    ((minutes - 2 * (loads[a] as number)) / (room[a] as number) +
      (minutes + 2 * (loads[b] as number)) / (room[b] as number))
  );
}

function isMoreEven(week: Week, loads: Float64Array, worst: WorstOver, a: number, b: number, minutes: number): boolean {
  const spread = spreadBy(week, loads, a, b, minutes);
  // Of most exchanges the spread says enough: the most over comes down only where whoever that is gives something away.
  if (spread > -WORTH_A_MOVE && worst.top !== a && worst.top !== b) return false;
  return isLess(overBy(week, loads, worst, a, b, minutes), spread);
}

/** The same, where what moved for nothing stays where it was. */
function withoutIdleMoves(week: Week, moved: Int32Array): Int32Array {
  const holders = Int32Array.from(moved);
  let near = moved;
  for (let sweeps = 0; sweeps < MOST_SWEEPS; sweeps++) {
    const before = unevenness(week, holders);
    for (let i = 0; i < holders.length; i++) {
      const [now, home] = [holders[i] as number, week.holders[i] as number];
      if (now === home) continue;
      holders[i] = home;
      if (isBetter(before, unevenness(week, holders))) holders[i] = now;
    }
    const settled = settle(week, holders, near);
    if (settled.every((who, i) => who === holders[i])) return holders;
    holders.set(settled);
    near = settled;
  }
  return holders;
}
