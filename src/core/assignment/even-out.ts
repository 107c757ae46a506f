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
  let now = tasks;
  for (let rounds = 0; rounds < MOST_ROUNDS; rounds++) {
    const next = evenedOnce(people, now);
    if (next === null) break;
    now = next;
  }
  return tasks.flatMap(({ id, personId }, i) => {
    const to = now[i]?.personId ?? personId;
    return to === personId ? [] : [{ taskId: id, from: personId, to }];
  });
}

/** The tasks with whoever has them then; null where no more even week is found. */
function evenedOnce(people: readonly EvenPerson[], tasks: readonly EvenTask[]): EvenTask[] | null {
  const week = weekOf(people, tasks);
  const settled = [week.holders, spreadAnew(week)].map((holders) => settle(week, holders));
  const [first, second] = settled as [Int32Array, Int32Array];
  const best = isBetter(unevenness(week, second), unevenness(week, first)) ? second : first;
  if (!isBetter(unevenness(week, best), unevenness(week, week.holders))) return null;
  const holders = withoutIdleMoves(week, best);
  return tasks.map((task, i) => ({ ...task, personId: people[holders[i] as number]?.id ?? task.personId }));
}

export function unevennessOf(people: readonly EvenPerson[], tasks: readonly EvenTask[]): Unevenness {
  const week = weekOf(people, tasks);
  return unevenness(week, week.holders);
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
  readonly minutes: Float64Array;
  /** Who has each task. */
  readonly holders: Int32Array;
  /** Who may have each, in order; whoever has it may keep it. */
  readonly choices: readonly (readonly number[])[];
  /** The same as a table, a row of people for each task. */
  readonly may: Uint8Array;
}

function weekOf(people: readonly EvenPerson[], tasks: readonly EvenTask[]): Week {
  const at = new Map(people.map(({ id }, i) => [id, i]));
  const placeOf = (id: string): number => {
    const place = at.get(id);
    if (place === undefined) throw new RangeError(`${id} has work, and is not among the people of this week.`);
    return place;
  };
  const choices = tasks.map(({ personId, mayGoTo }) =>
    [...new Set([placeOf(personId), ...mayGoTo.flatMap((id) => at.get(id) ?? [])])].sort((a, b) => a - b),
  );
  const may = new Uint8Array(tasks.length * people.length);
  choices.forEach((open, i) => {
    for (const who of open) may[i * people.length + who] = 1;
  });
  return {
    capacity: Float64Array.from(people, ({ capacity }) => capacity),
    minutes: Float64Array.from(tasks, ({ minutes }) => minutes),
    holders: Int32Array.from(tasks, ({ personId }) => placeOf(personId)),
    choices,
    may,
  };
}

function loadsOf({ capacity, minutes }: Week, holders: Int32Array): Float64Array {
  const loads = new Float64Array(capacity.length);
  holders.forEach((who, i) => {
    loads[who] = (loads[who] as number) + (minutes[i] as number);
  });
  return loads;
}

/** Of a load: least in sum where all are equally full. Somebody without any hours counts as one who has a minute. */
const costOf = (load: number, capacity: number): number => (load * load) / Math.max(1, capacity);

function unevenness(week: Week, holders: Int32Array): Unevenness {
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

/** Moves and exchanges one after the other, until none makes the week more even. A working copy is changed in place. */
function settle(week: Week, from: Int32Array): Int32Array {
  const { minutes, choices } = week;
  const holders = Int32Array.from(from);
  const loads = loadsOf(week, holders);
  const movable = choices.flatMap((open, i) => (open.length > 1 ? [i] : []));
  const shift = (a: number, b: number, more: number) => {
    loads[a] = (loads[a] as number) - more;
    loads[b] = (loads[b] as number) + more;
  };
  const mayHave = (i: number, who: number) => week.may[i * loads.length + who] === 1;
  const worst = new WorstOver(week, loads);
  relieve(week, holders, loads, worst);
  for (let sweeps = 0, isChanged = true; isChanged && sweeps < MOST_SWEEPS; sweeps++) {
    isChanged = false;
    for (const i of movable) {
      for (const who of choices[i] as readonly number[]) {
        const a = holders[i] as number;
        if (who === a || !isMoreEven(week, loads, worst, a, who, minutes[i] as number)) continue;
        shift(a, who, minutes[i] as number);
        holders[i] = who;
        worst.update();
        isChanged = true;
      }
    }
    for (let n = 0; n < movable.length; n++)
      for (let m = n + 1; m < movable.length; m++) {
        const [i, j] = [movable[n] as number, movable[m] as number];
        const [a, b] = [holders[i] as number, holders[j] as number];
        const more = (minutes[i] as number) - (minutes[j] as number);
        if (a === b || more === 0 || !mayHave(i, b) || !mayHave(j, a)) continue;
        if (!isMoreEven(week, loads, worst, a, b, more)) continue;
        shift(a, b, more);
        holders[i] = b;
        holders[j] = a;
        worst.update();
        isChanged = true;
      }
    if (!isChanged) isChanged = pushOn(week, holders, loads);
  }
  return holders;
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

/** Who is most over capacity, but for two. */
class WorstOver {
  private readonly worst: number[] = [];

  constructor(
    private readonly week: Week,
    private readonly loads: Float64Array,
  ) {
    this.update();
  }

  /** After a change of loads: the three that are most over. */
  update(): void {
    this.worst.length = 0;
    for (let who = 0; who < this.loads.length; who++) {
      const at = this.worst.findIndex((other) => this.overOf(who) > this.overOf(other));
      if (at === -1 && this.worst.length < 3) this.worst.push(who);
      else if (at !== -1) {
        this.worst.splice(at, 0, who);
        this.worst.length = Math.min(3, this.worst.length);
      }
    }
  }

  /** Whoever is most over; null where nobody is. */
  get most(): number | null {
    const who = this.worst[0];
    return who === undefined || this.overOf(who) <= 0 ? null : who;
  }

  but(a: number, b: number): number {
    for (const who of this.worst) if (who !== a && who !== b) return Math.max(0, this.overOf(who));
    return 0;
  }

  isOver(who: number): boolean {
    return this.overOf(who) > 0;
  }

  private overOf(who: number): number {
    return (this.loads[who] as number) - (this.week.capacity[who] as number);
  }
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

function spreadBy({ capacity }: Week, loads: Float64Array, a: number, b: number, minutes: number): number {
  const [loadA, loadB] = [loads[a] as number, loads[b] as number];
  const [canA, canB] = [capacity[a] as number, capacity[b] as number];
  return costOf(loadA - minutes, canA) + costOf(loadB + minutes, canB) - costOf(loadA, canA) - costOf(loadB, canB);
}

function isMoreEven(week: Week, loads: Float64Array, worst: WorstOver, a: number, b: number, minutes: number): boolean {
  const spread = spreadBy(week, loads, a, b, minutes);
  // Of most exchanges the spread says enough: who is over most is looked for only where it may matter.
  if (spread > -WORTH_A_MOVE && !worst.isOver(a) && !worst.isOver(b)) return false;
  return isLess(overBy(week, loads, worst, a, b, minutes), spread);
}

/** The same, where what moved for nothing stays where it was. */
function withoutIdleMoves(week: Week, moved: Int32Array): Int32Array {
  const holders = Int32Array.from(moved);
  for (let sweeps = 0; sweeps < MOST_SWEEPS; sweeps++) {
    const before = unevenness(week, holders);
    for (let i = 0; i < holders.length; i++) {
      const [now, home] = [holders[i] as number, week.holders[i] as number];
      if (now === home) continue;
      holders[i] = home;
      if (isBetter(before, unevenness(week, holders))) holders[i] = now;
    }
    const settled = settle(week, holders);
    if (settled.every((who, i) => who === holders[i])) return holders;
    holders.set(settled);
  }
  return holders;
}
