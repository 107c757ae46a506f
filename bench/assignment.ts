import { type AssignmentContext, assign, People } from '../src/core/assignment/assignment.ts';
import { NOTHING_ASKED, type Worker } from '../src/core/assignment/availability.ts';
import { type EvenPerson, type EvenTask, evenOut, unevennessOf } from '../src/core/assignment/even-out.ts';
import type { WeekLoad } from '../src/core/assignment/least-to-do.ts';
import { dayOfIso, isoOfDay, plainWeek } from '../src/core/index.ts';

/**
 * npm run bench assignment: who does 100,000 dates, in turn and by the least to do, and weeks that are evened out; each beside
 * the straightforward way in the same run: dates dealt out one after the other, and weeks spread anew with the longest first.
 */

const DATES = 100_000;
const TODAY = dayOfIso('2026-11-24');

/** The same figures at every run (a linear congruential generator, Numerical Recipes). */
function drawn(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

function timed<T>(work: () => T): readonly [ms: number, value: T] {
  const began = performance.now();
  const value = work();
  return [performance.now() - began, value];
}

/** The median of three, after one to warm up. */
function median(work: () => unknown): number {
  work();
  return [1, 2, 3].map(() => timed(work)[0]).sort((a, b) => a - b)[1] as number;
}

const say = (what: string, ms: number, reference: number, aim: string) =>
  console.log(
    `  ${what.padEnd(58)} ${ms.toFixed(0).padStart(6)} ms  ${(ms / reference).toFixed(1).padStart(5)}x  aim ${aim}`,
  );

const crew: Worker[] = Array.from({ length: 50 }, (_, i) => ({
  ...{ id: `p${i}`, weeks: [plainWeek(450, [1, 2, 3, 4, 5])], weeksFrom: TODAY },
  ...{ shifts: [], shiftChanges: new Map(), worksFrom: null, worksUntil: null, tickets: [], deputyId: null },
  leave: i % 5 === 0 ? [{ from: TODAY + i, to: TODAY + i + 6 }] : [],
}));
const ids = crew.map(({ id }) => id);
/** What each has in a week of theirs; told anew where it changes. */
const loads = new Map<string, WeekLoad>();
const clear = () => {
  for (const id of ids) loads.set(id, { minutes: 0, capacity: 2250, lastHad: null });
};
clear();
const datesBetween = (after: number, upTo: number) => upTo - after;
const loadOf = (id: string) => loads.get(id) as WeekLoad;
// Written out: a context put together from others would take longer than what is measured.
const context = (n: number): AssignmentContext => ({
  nominal: TODAY + (n % 365),
  on: TODAY + (n % 365),
  estimateMinutes: 30,
  asked: NOTHING_ASKED,
  people,
  usualPersonId: null,
  datesBetween,
  loadOf,
});
const people = new People(new Map(crew.map((one) => [one.id, one])), () => ids);

console.log(`who does ${DATES.toLocaleString('en-GB')} dates, of ${crew.length} people`);
const dealt = median(() => {
  const who: (string | undefined)[] = [];
  for (let n = 0; n < DATES; n++) who.push(ids[n % ids.length]);
  return who;
});
console.log(`  ${'dealt out one after the other'.padEnd(58)} ${dealt.toFixed(1).padStart(6)} ms`);
const turns = {
  length: { per: 'week', on: 1 },
  rosters: [{ from: isoOfDay(TODAY - 1), people: ids }],
  swaps: [],
} as const;
const inTurn = { v: 1, kind: 'inTurn', cover: 'next', turns } as const;
say(
  'in turn by the week, covered by the next',
  median(() => {
    for (let n = 0; n < DATES; n++) assign(inTurn, context(n));
  }),
  dealt,
  '200 ms',
);
const least = { v: 1, kind: 'leastToDo', group: { of: 'people', ids } } as const;
say(
  'whoever has the least to do, each counted',
  median(() => {
    clear();
    for (let n = 0; n < DATES; n++) {
      const found = assign(least, context(n));
      if (found.kind !== 'one') continue;
      const { minutes } = loads.get(found.personId) as WeekLoad;
      loads.set(found.personId, { minutes: minutes + 30, capacity: 2250, lastHad: n });
    }
  }),
  dealt,
  '200 ms',
);

function weeksOf(people: number, weeks: number, tasks: number): { people: EvenPerson[]; tasks: EvenTask[] }[] {
  const next = drawn(7);
  const names = Array.from({ length: people }, (_, i) => `p${i}`);
  return Array.from({ length: weeks }, (_, week) => ({
    people: names.map((id) => ({ id, capacity: next() < 0.1 ? 0 : 2250 })),
    tasks: Array.from({ length: Math.round(tasks / weeks) }, (_, i) => ({
      id: `${week} ${i}`,
      personId: names[Math.floor(next() ** 1.6 * people)] as string,
      minutes: 15 + Math.floor(next() * 16) * 15,
      mayGoTo: next() < 0.2 ? [] : names.filter(() => next() < 0.5),
    })),
  }));
}

/** The straightforward way: the longest first, each to whoever of those who may is least full. */
function spreadAnew({ people, tasks }: ReturnType<typeof weeksOf>[number]): Map<string, string> {
  const minutes = new Map(people.map(({ id }) => [id, 0]));
  const capacity = new Map(people.map((one) => [one.id, Math.max(1, one.capacity)]));
  const holders = new Map<string, string>();
  for (const task of [...tasks].sort((a, b) => b.minutes - a.minutes)) {
    const full = (id: string) => ((minutes.get(id) ?? 0) + task.minutes) / (capacity.get(id) ?? 1);
    const who = [task.personId, ...task.mayGoTo].reduce((one, other) => (full(other) < full(one) ? other : one));
    minutes.set(who, (minutes.get(who) ?? 0) + task.minutes);
    holders.set(task.id, who);
  }
  return holders;
}

console.log('weeks evened out');
for (const [people, weeks, tasks, aim] of [
  [14, 12, 1_400, '300 ms'],
  [200, 12, 20_000, '5,000 ms'],
] as const) {
  const all = weeksOf(people, weeks, tasks);
  const spread = median(() => all.map(spreadAnew));
  const [ms, moves] = timed(() => all.map((week) => evenOut(week.people, week.tasks)));
  say(`${people} people × ${weeks} weeks, ${tasks.toLocaleString('en-GB')} tasks`, ms, spread, aim);
  const over = (which: 'before' | 'after') =>
    Math.max(
      ...all.map((week, i) => {
        const to = new Map((moves[i] ?? []).map((move) => [move.taskId, move.to]));
        const now =
          which === 'before'
            ? week.tasks
            : week.tasks.map((one) => ({ ...one, personId: to.get(one.id) ?? one.personId }));
        return unevennessOf(week.people, now).over;
      }),
    );
  console.log(
    `    ${moves.flat().length} moves; most over capacity ${over('before')} min before, ${over('after')} after`,
  );
}
