import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { groupKey } from '../assignment/assignment.ts';
import { workingCalendar } from '../calendar/working-calendar.ts';
import { instantOf } from '../civil-date/instant.ts';
import { dayOfIso, isoOfDay, isoTimeOf } from '../civil-date/iso-date.ts';
import { TASK_STATES } from '../insight/task-state.ts';
import { ACCESS_LEVELS } from '../people/access.ts';
import { offsetDay } from '../planning/timing.ts';
import {
  namesIn,
  sayBroughtIn,
  sayCallList,
  sayComment,
  sayNoticesDue,
  sayOpened,
  sayPool,
  sayShiftGaps,
} from './happening-words.ts';
import { heardOfLeave, heardOfSwap, heardOfTurn, type TaskFacts, TURNS } from './hearing.ts';
import { canHear, hearWish, MESSAGE_KINDS, MESSAGE_SIDES, sayHearing } from './kinds.ts';
import { sayFirstOf, sayTurn, sayTurns, type Telling } from './message-words.ts';
import { isQuietTime, leavesAt, type QuietWish } from './quiet.ts';
import { remindersBetween } from './reminders.ts';

const TODAY = dayOfIso('2026-11-24');
const facts = (some: Partial<TaskFacts> = {}): TaskFacts => ({
  ...{
    assigneeId: 'nadia',
    dueOn: '2026-11-25',
    state: 'open',
    heldReason: null,
    heldUntil: null,
    sentBack: 0,
    doneByContact: null,
    offeredTo: null,
  },
  ...some,
});
const heard = (before: TaskFacts | null, after: TaskFacts | null, byId: string | null = 'ines') =>
  heardOfTurn({ before, after, byId }).map(({ kind, side, turn, to }) =>
    [kind, side, turn, to === 'answering' ? to : 'anyOf' in to ? groupKey(to.anyOf) : to.personId].join(' '),
  );

const DOCK = { of: 'role', role: 'Dock' } as const;
const person = fc.constantFrom(null, 'nadia', 'bram', 'ines');
const anyFacts: fc.Arbitrary<TaskFacts> = fc.record({
  assigneeId: person,
  dueOn: fc.integer({ min: TODAY - 3, max: TODAY + 3 }).map(isoOfDay),
  state: fc.constantFrom(...TASK_STATES),
  heldReason: fc.constantFrom(null, 'no part', 'no crane'),
  heldUntil: fc.constantFrom(null, '2026-11-26'),
  sentBack: fc.integer({ min: 0, max: 2 }),
  doneByContact: fc.constantFrom(null, 'Thora Foyle'),
  offeredTo: fc.constantFrom<TaskFacts['offeredTo']>(null, { of: 'client' }, DOCK, {
    of: 'role',
    role: 'Dock',
    onShift: true,
  }),
});

describe('who hears of a change of a task', () => {
  it('is whoever has it now, whoever had it, and those who answer for it', () => {
    expect(heard(null, facts())).toEqual(['new mine given nadia']);
    expect(heard(facts(), facts({ assigneeId: 'bram' }))).toEqual([
      'hands mine given bram',
      'hands mine taken nadia',
      'hands gave handed on answering',
    ]);
    expect(heard(facts({ assigneeId: null }), facts())).toEqual([
      'new mine given nadia',
      'hands gave handed on answering',
    ]);
    expect(heard(facts({ assigneeId: null }), facts(), 'nadia')).toEqual(['hands gave claimed answering']);
    expect(heard(facts(), facts({ assigneeId: null }), 'nadia')).toEqual(['hands gave given back answering']);
    expect(heard(facts(), null)).toEqual(['hands mine taken out nadia']);
    expect(heard(facts(), facts({ dueOn: '2026-11-27' }))).toEqual([
      'moved mine moved nadia',
      'moved gave moved answering',
    ]);
    // Whoever is given it on another day hears of both at once.
    expect(heard(facts(), facts({ dueOn: '2026-11-27', assigneeId: 'bram' }))).toContain('hands mine given bram');
    expect(heard(facts(), facts({ heldReason: 'no part', heldUntil: '2026-11-26' }), 'nadia')).toEqual([
      'held gave held up answering',
    ]);
    expect(heard(facts({ heldReason: 'no part', heldUntil: '2026-11-26' }), facts())).toEqual([
      'held mine goes on nadia',
      'held gave goes on answering',
    ]);
  });

  it('is told how work ended: finished, to check, signed, sent back, skipped', () => {
    expect(heard(facts(), facts({ state: 'done' }), 'nadia')).toEqual(['finished gave finished answering']);
    expect(heard(facts(), facts({ state: 'done' }), 'bram')).toEqual([
      'hands mine finished nadia',
      'finished gave finished answering',
    ]);
    expect(heard(facts(), facts({ state: 'toCheck' }), 'nadia')).toEqual(['check gave to check answering']);
    expect(heard(facts({ state: 'toCheck' }), facts({ state: 'done' }))).toEqual(['check mine signed nadia']);
    expect(heard(facts({ state: 'toCheck' }), facts({ state: 'underWay', sentBack: 1 }))).toEqual([
      'check mine sent back nadia',
    ]);
    expect(heard(facts(), facts({ state: 'skipped' }))).toEqual([
      'hands mine skipped nadia',
      'finished gave skipped answering',
    ]);
    expect(heard(facts(), facts({ state: 'lapsed' }), null)).toEqual([]);
    const byClient = { assigneeId: null, offeredTo: { of: 'client' } } as const;
    expect(heard(facts(byClient), facts({ ...byClient, state: 'done', doneByContact: 'Thora Foyle' }), null)).toEqual([
      'client gave finished answering',
    ]);
  });

  it('is anyone of those to whom it is offered, once for each time it is', () => {
    const offered = facts({ assigneeId: null, offeredTo: DOCK });
    expect(heard(null, offered)).toEqual(['new mine offered role Dock']);
    expect(heard(offered, facts({ ...offered, dueOn: '2026-11-27' }))).toEqual(['moved gave moved answering']);
    expect(heard(offered, facts({ ...offered, offeredTo: { ...DOCK, onShift: true } }))).toEqual([
      'new mine offered shift Dock',
    ]);
    expect(heard(facts({ offeredTo: DOCK }), offered, 'nadia')).toEqual([
      'new mine offered role Dock',
      'hands gave given back answering',
    ]);
    expect(heard(null, facts({ assigneeId: null, offeredTo: { of: 'client' } }))).toEqual([]);
  });

  it('hears nothing of what comes to the same, nor of what they did themselves, and only what is theirs to hear', () => {
    fc.assert(
      fc.property(fc.option(anyFacts), fc.option(anyFacts), person, (before, after, byId) => {
        for (const { kind, side, to, turn } of heardOfTurn({ before, after, byId })) {
          expect(TURNS).toContain(turn);
          expect(canHear('manager', side, kind)).toBe(true);
          if (to !== 'answering' && 'anyOf' in to) {
            // What is offered has nobody.
            expect(after).toMatchObject({ assigneeId: null, offeredTo: to.anyOf });
          } else if (to !== 'answering') {
            expect(to.personId).not.toBe(byId);
            expect([before?.assigneeId, after?.assigneeId]).toContain(to.personId);
          }
        }
        if (before) expect(heardOfTurn({ before, after: before, byId })).toEqual([]);
      }),
    );
  });
});

describe('who hears of what was asked', () => {
  const leave = (before: 'asked' | null, state: 'asked' | 'given' | 'refused', byId: string) =>
    heardOfLeave(before, { state, personId: 'nadia' }, byId);

  it('is whoever decides, then whoever asked; of leave that was entered for them, they themselves', () => {
    expect(leave(null, 'asked', 'nadia')).toEqual([{ side: 'gave', turn: 'asks', to: 'answering' }]);
    expect(leave('asked', 'given', 'ines')).toEqual([{ side: 'mine', turn: 'given', to: { personId: 'nadia' } }]);
    expect(leave('asked', 'refused', 'ines')[0]?.turn).toBe('refused');
    expect(leave(null, 'given', 'ines')[0]?.turn).toBe('entered');
    expect(leave(null, 'given', 'nadia')).toEqual([]);
    expect(leave('asked', 'asked', 'ines')).toEqual([]);
    const swap = (state: 'asked' | 'agreed' | 'done' | 'refused' | 'withdrawn', byId: string) =>
      heardOfSwap({ state, askedBy: 'nadia', askedOf: 'bram' }, byId).map(({ to, turn }) => [
        to === 'answering' ? to : to.personId,
        turn,
      ]);
    expect(swap('asked', 'nadia')).toEqual([['bram', 'asks']]);
    expect(swap('agreed', 'bram')).toEqual([['answering', 'asks']]);
    expect(swap('done', 'bram')).toEqual([['nadia', 'given']]);
    expect(swap('refused', 'ines')).toEqual([
      ['nadia', 'refused'],
      ['bram', 'refused'],
    ]);
    expect(swap('withdrawn', 'nadia')).toEqual([]);
  });
});

describe('words of a message', () => {
  const telling = {
    today: TODAY,
    nameOf: (id: string) => ({ nadia: 'Nadia Orme', bram: 'Bram Hollis', ines: 'Ines Calloway' })[id] ?? null,
  };
  const told = (title: string, before: TaskFacts | null, after: TaskFacts | null) => ({
    ...{ title, sentBackReason: 'no photo' },
    turn: { before, after, byId: 'ines' },
  });

  it('say of one task what became of it, and by whom', () => {
    const said = (turn: Parameters<typeof sayTurn>[0], before: TaskFacts | null, after: TaskFacts | null) =>
      sayTurn(turn, told('Hose reels', before, after), telling).text;
    expect(said('given', null, facts())).toBe('yours now, due Wed 25 Nov, from Ines Calloway');
    expect(said('taken', facts(), facts({ assigneeId: 'bram' }))).toBe(
      'Bram Hollis has it now, changed by Ines Calloway',
    );
    expect(said('handed on', facts(), facts({ assigneeId: 'bram' }))).toBe('Nadia Orme → Bram Hollis, due Wed 25 Nov');
    expect(said('moved', facts(), facts({ dueOn: '2026-11-27' }))).toBe(
      'due Fri 27 Nov instead of Wed 25 Nov, changed by Ines Calloway',
    );
    expect(said('held up', facts(), facts({ heldReason: 'no part', heldUntil: '2026-11-26' }))).toBe(
      'no part, until Thu 26 Nov',
    );
    const byLink = {
      ...told('Papers', facts(), facts({ state: 'toCheck', doneByContact: 'Thora Foyle' })),
      sentBackReason: null,
    };
    expect(sayTurn('to check', { ...byLink, turn: { ...byLink.turn, byId: null } }, telling).text).toBe(
      'finished by Thora Foyle',
    );
    expect(said('sent back', facts(), facts())).toBe('sent back by Ines Calloway: no photo');
  });

  it('say of many what they have in common, and name the first', () => {
    const many = ['A', 'B', 'C', 'A'].map((title, i) => told(title, null, facts({ dueOn: isoOfDay(TODAY + 9 - i) })));
    expect(sayTurns('given', many, telling)).toEqual({
      title: '4 tasks are yours from Mon 30 Nov',
      text: 'A, B and 1 more',
    });
    expect(sayTurns('given', many.slice(0, 1), telling).title).toBe('A');
    for (const turn of TURNS) expect(sayTurns(turn, many, telling).title).toMatch(/^4 tasks /);
    expect(sayFirstOf(['A', 'B'])).toBe('A and B');
    expect(() => sayTurns('given', [], telling)).toThrow('no task');
  });
});

describe('wishes', () => {
  it('are one’s own or as usual; being named always rings, and what is none of theirs is never told', () => {
    for (const access of ACCESS_LEVELS)
      for (const side of MESSAGE_SIDES)
        for (const kind of MESSAGE_KINDS) {
          const usual = hearWish(access, {}, side, kind);
          expect(usual === null).toBe(!canHear(access, side, kind));
          const off = hearWish(access, { [side]: { [kind]: { here: false, mail: false, phone: false } } }, side, kind);
          if (off) expect(off).toEqual({ here: kind === 'named', mail: false, phone: false });
        }
    const rules = { others: { mine: { new: { here: 'off', mail: 'always' } } } } as const;
    expect(hearWish('member', {}, 'mine', 'new', rules)).toEqual({
      ...{ here: false, mail: true, phone: false },
    });
    expect(hearWish('member', { mine: { new: { here: true, phone: true } } }, 'mine', 'new', rules)).toEqual({
      ...{ here: true, mail: true, phone: true },
    });
    expect(hearWish('planner', {}, 'mine', 'new', rules)).toEqual(hearWish('planner', {}, 'mine', 'new'));
    expect(sayHearing({}, rules)).toEqual([
      'New work, their own work, for everybody else: here no, by mail always, on the phone no',
    ]);
    expect(sayHearing(rules, rules)).toEqual([]);
    expect(hearWish('member', {}, 'gave', 'run')).toBeNull();
    expect(hearWish('member', {}, 'gave', 'soon')).toBeNull();
    expect(hearWish('member', {}, 'mine', 'soon')).not.toBeNull();
    expect(hearWish('viewer', {}, 'mine', 'new')).toBeNull();
  });
});

const time = fc.integer({ min: 0, max: 1439 }).map(isoTimeOf);
const quietWish: fc.Arbitrary<QuietWish> = fc.record({
  from: time,
  to: time,
  offDays: fc.boolean(),
  through: fc.constantFrom(null, ...MESSAGE_KINDS),
});

describe('quiet hours', () => {
  const NIGHT: QuietWish = { from: '18:00', to: '07:00', offDays: true, through: 'run' };
  // 24 November 2026 is a Tuesday.
  const isWeekend = (day: number) => (((day - TODAY) % 7) + 7) % 7 === 4 || (((day - TODAY) % 7) + 7) % 7 === 5;

  it('hold a mail over midnight, over days off, and not at all what comes through', () => {
    const at = (day: number, minutes: number, kind: 'late' | 'run' = 'late') =>
      leavesAt(NIGHT, kind, { day, minutes }, isWeekend);
    expect(at(TODAY, 640)).toEqual({ day: TODAY, minutes: 640 });
    expect(at(TODAY, 1100)).toEqual({ day: TODAY + 1, minutes: 420 });
    expect(at(TODAY + 1, 60)).toEqual({ day: TODAY + 1, minutes: 420 });
    expect(at(TODAY + 3, 1100)).toEqual({ day: TODAY + 6, minutes: 420 });
    expect(at(TODAY + 4, 640, 'run')).toEqual({ day: TODAY + 4, minutes: 640 });
    // Whoever never works has no days off by that.
    expect(leavesAt(NIGHT, 'late', { day: TODAY, minutes: 1100 }, () => true)).toEqual({
      day: TODAY + 1,
      minutes: 420,
    });
  });

  it('let go at the first minute that is not quiet, and never before now', () => {
    fc.assert(
      fc.property(
        quietWish,
        fc.integer({ min: 0, max: 1439 }),
        fc.integer({ min: 0, max: 20 }),
        (quiet, minutes, free) => {
          const isFree = (day: number) => day < TODAY + free;
          const now = { day: TODAY, minutes };
          const leaves = leavesAt(quiet, 'late', now, isFree);
          if (quiet.through === 'late') {
            expect(leaves).toEqual(now);
            return;
          }
          expect(isQuietTime(quiet, leaves.minutes)).toBe(false);
          expect(quiet.offDays && isFree(leaves.day)).toBe(false);
          // Said once for all minutes, of which there may be thirty thousand.
          const loud: number[] = [];
          for (let at = TODAY * 1440 + minutes; at < leaves.day * 1440 + leaves.minutes; at++)
            if (!isQuietTime(quiet, at % 1440) && !(quiet.offDays && isFree(Math.floor(at / 1440)))) loud.push(at);
          expect(loud).toEqual([]);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('reminders between two instants', () => {
  const calendar = workingCalendar([1, 2, 3, 4, 5], new Map([[dayOfIso('2026-12-25'), 'Christmas Day']]));
  const offset = fc.record({
    amount: fc.integer({ min: -12, max: 12 }),
    unit: fc.constantFrom('day' as const, 'workingDay' as const),
  });

  it('are those that the days of work have, each once, however the time is cut', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ offset, time }), { minLength: 1, maxLength: 3 }),
        fc.constantFrom('Europe/London', 'America/New_York', 'Pacific/Kiritimati', null),
        // Clock changes of spring and autumn, a holiday.
        fc.constantFrom('2026-03-29', '2026-10-25', '2026-11-01', '2026-12-25'),
        fc.array(fc.integer({ min: 1, max: 6 * 1440 }), { minLength: 1, maxLength: 4 }),
        (reminders, zone, around, cuts) => {
          const start = instantOf(isoOfDay(dayOfIso(around) - 2), '00:00', 'Europe/London');
          const ends = [...new Set(cuts)].sort((a, b) => a - b).map((minutes) => start + minutes * 60_000);
          const found = ends.flatMap((upTo, i) =>
            remindersBetween({ reminders, zone }, { after: ends[i - 1] ?? start, upTo }, calendar, 'Europe/London'),
          );
          const wanted: string[] = [];
          for (let on = dayOfIso(around) - 60; on < dayOfIso(around) + 60; on++)
            for (const reminder of reminders) {
              const day = isoOfDay(offsetDay(on, reminder.offset, calendar));
              const at = instantOf(day, reminder.time, zone ?? 'Europe/London');
              if (at > start && at <= (ends.at(-1) ?? start)) wanted.push(`${at} ${on}`);
            }
          expect(found.map(({ at, on }) => `${at} ${on}`).sort()).toEqual(wanted.sort());
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('what is told of things that happen', () => {
  const names: Readonly<Record<string, string>> = { ines: 'Ines Calloway', wyn: 'Wyn Garrick' };
  const telling: Telling = { today: TODAY, nameOf: (id) => names[id] ?? null };

  it('says lists and pools of calls', () => {
    expect(sayCallList('Renewals', { calls: 12, wanted: 12 })).toEqual({
      ...{ title: 'Renewals: 12 calls today', text: 'your list is ready' },
    });
    expect(sayCallList('Renewals', { calls: 1, wanted: 12 })).toEqual({
      ...{ title: 'Renewals: 1 call today', text: '12 were asked for, the pool has no more' },
    });
    const today = { on: '2026-11-24', short: 11, names: ['Wyn Garrick', 'Dinah Sparrow', 'Kit Sorrell'] };
    expect(sayPool('Renewals', today, telling)).toEqual({
      title: 'Renewals: 11 calls short today',
      text: 'the pool has run dry for Wyn Garrick, Dinah Sparrow and 1 more',
    });
    expect(sayPool('Renewals', { on: '2026-11-27', short: 0, names: [] }, telling)).toEqual({
      title: 'Renewals: the pool runs dry',
      text: 'there are too few to ring from Fri 27 Nov',
    });
  });

  it('says notices by the first that has to go, and those that are too late', () => {
    const say = (count: number, tooLate: number, sendBy: string | null) =>
      Object.values(sayNoticesDue(['Auk', 'Petrel'].slice(0, count), { count, tooLate, sendBy }, telling)).join(' | ');
    expect(say(1, 0, '2026-11-26')).toBe('1 notice to send, by Thu 26 Nov | Auk');
    expect(say(4, 0, '2026-11-26')).toBe('4 notices to send, first by Thu 26 Nov | Auk, Petrel and 2 more');
    expect(say(2, 1, '2026-11-26')).toBe(
      '2 notices to send, first by Thu 26 Nov | 1 of them too late already: Auk and Petrel',
    );
    expect(say(1, 1, null)).toBe('1 notice to send | too late already: Auk');
  });

  it('says the days on which nobody is on shift, comments, links that were opened and files that were brought in', () => {
    const gap = { work: 'Fuel dock', about: 'Quay 2', days: ['2026-11-28', '2026-11-29'] };
    expect(sayShiftGaps([gap], telling)).toEqual({
      title: 'Nobody is on shift on Sat 28 Nov and 1 more day',
      text: 'Fuel dock, Quay 2',
    });
    expect(sayComment('Boom', 'The hinge is worn', 'wyn', telling).text).toBe('Wyn Garrick: The hinge is worn');
    expect(sayOpened('Insurance', { contact: 'Ada Foyle', client: 'Foyle & Sons' })).toEqual({
      ...{ title: 'Insurance', text: 'opened by Ada Foyle of Foyle & Sons' },
    });
    expect(sayOpened(null, { contact: 'Ada Foyle', client: 'Ada Foyle' }).text).toBe(
      'Ada Foyle opened what is asked of them',
    );
    expect(sayBroughtIn({ kind: 'clients', fileName: 'berths.csv', rows: 1, byId: 'ines' }, telling)).toEqual({
      ...{ title: 'Ines Calloway brought in clients', text: 'berths.csv, 1 line' },
    });
    expect([namesIn('ask @Wyn Garrick', 'Wyn Garrick'), namesIn('ask Wyn Garrick', 'Wyn Garrick')]).toEqual([
      true,
      false,
    ]);
  });
});
