import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Assignment, People } from '../assignment/assignment.ts';
import { Loads } from '../assignment/loads.ts';
import { type Colleague, peopleHere } from '../assignment/people-here.ts';
import { makeCalendar } from '../calendar/iso-calendar.ts';
import { WEEKDAYS_ONLY } from '../calendar/working-calendar.ts';
import type { Weekday } from '../civil-date/civil-day.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { plainWeek } from '../people/week-hours.ts';
import { occurrencesWithinHorizon } from '../planning/horizon.ts';
import { isDated, planDays } from '../planning/plan.ts';
import { PLAIN_TIMING } from '../planning/timing.ts';
import { parsePhrase } from '../recurrence/phrase/reader.ts';
import { partAssigner } from './part-assigner.ts';
import {
  answerProblem,
  type Demand,
  type Doing,
  isFinishedByLast,
  isTickedByProof,
  outsideBy,
  stillMissing,
  tagToStart,
} from './proof.ts';
import { sayAnswer, sayDemand, sayLimits, sayMissing, sayOutside } from './proof-words.ts';
import { minutesOfHolder, tasksOfSet, ticketsOfHolder } from './set-tasks.ts';
import { partDays, type Step, sayOffset, setMinutes, setParts, setReach } from './template-set.ts';

const check = (key: string, demands: readonly Demand[] = []): Step => ({
  kind: 'check',
  key,
  text: `Line ${key}`,
  note: '',
  demands,
});
const own = (key: string, amount: number, unit: 'day' | 'workingDay' = 'day'): Extract<Step, { kind: 'task' }> => ({
  kind: 'task',
  key,
  titlePattern: `Task ${key}`,
  note: '',
  offset: { amount, unit },
  startTime: null,
  dueTime: '12:00',
  assignee: { by: 'set' },
  estimateMinutes: 10,
  demands: [],
  signOff: null,
});
const template = (...steps: Step[]) => ({
  titlePattern: 'Main',
  estimateMinutes: 60,
  demands: [],
  signOff: null,
  tickets: [],
  steps,
});
const loop: Demand = { key: 'loop', label: 'Earth loop', kind: 'number', unit: 'Ω', least: 0.05, most: 0.8 };

const hand = (id: string, roles: string[], worksOn: readonly Weekday[], of: Partial<Colleague> = {}): Colleague => ({
  ...{ id, roles, team: null, weeks: [plainWeek(450, worksOn)], weeksFrom: '2026-12-01' },
  ...{ shifts: [], shiftChanges: [], worksFrom: null, worksUntil: null, leave: [], deputyId: null, tickets: [] },
  ...of,
});
const ofParts = (people: People, context: Partial<Parameters<typeof partAssigner>[0]> = {}) =>
  partAssigner({
    ...{ calendar: WEEKDAYS_ONLY, people, usualPersonId: null },
    loads: new Loads(people.workers, () => false, []),
    ...context,
  });

describe('the set of a template', () => {
  it('hangs check lines on the task above them, the first ones on the main task', () => {
    const parts = setParts(template(check('a'), check('b'), own('notice', -7), check('c'), own('file', 2)));
    expect(parts.map(({ key, checkLines }) => [key, checkLines.map((line) => line.key)])).toEqual([
      ['', ['a', 'b']],
      ['notice', ['c']],
      ['file', []],
    ]);
  });

  it('asks whoever has it for the tickets of all that is theirs, and gives a step to nobody who lacks its own', () => {
    const named = (personId: string) => ({
      ...own('hoist', 0),
      assignee: { by: 'person' as const, personId },
      tickets: ['hoist'],
    });
    const parts = setParts({ ...template({ ...own('gas', 0), tickets: ['gas'] }, named('Bram')), tickets: ['boat'] });
    expect(ticketsOfHolder(parts)).toEqual(['boat', 'gas']);
    const schedule = {
      recurrence: parsePhrase('every day', { start: '2026-12-01' }),
      timing: PLAIN_TIMING,
    };
    const [one] = planDays(schedule, WEEKDAYS_ONLY, dayOfIso('2026-12-01'), dayOfIso('2026-12-01')).filter(isDated);
    const bram = (tickets: readonly { name: string; until: string | null }[]) =>
      peopleHere([
        {
          ...{ id: 'Bram', roles: [], team: null, weeks: [plainWeek(450, [1])], weeksFrom: '2026-12-01' },
          shifts: [],
          shiftChanges: [],
          ...{ worksFrom: null, worksUntil: null, leave: [], deputyId: null, tickets },
        },
      ]);
    const whoHas = (people: People) =>
      one &&
      tasksOfSet(one, parts, WEEKDAYS_ONLY, { kind: 'nobody', why: null }, ofParts(people)).map(
        ({ assigneeId }) => assigneeId,
      );
    expect(whoHas(bram([{ name: 'hoist', until: '2026-12-01' }]))).toEqual([null, null, 'Bram']);
    expect(whoHas(bram([{ name: 'hoist', until: '2026-11-30' }]))).toEqual([null, null, null]);
  });

  it('gives a step to nobody where a ticket of whoever has the set has ended by its day', () => {
    const parts = setParts({ ...template({ ...own('after', 3), tickets: ['gas'] }), tickets: [] });
    const days = { recurrence: parsePhrase('every day', { start: '2026-12-01' }), timing: PLAIN_TIMING };
    const [one] = planDays(days, WEEKDAYS_ONLY, dayOfIso('2026-12-01'), dayOfIso('2026-12-01')).filter(isDated);
    const holder = (until: string) =>
      peopleHere([
        {
          ...{
            id: 'Kit',
            roles: [],
            team: null,
            weeks: [plainWeek(450, [1])],
            weeksFrom: '2026-12-01',
            shifts: [],
            shiftChanges: [],
            worksFrom: null,
          },
          ...{ worksUntil: null, leave: [], deputyId: null, tickets: [{ name: 'gas', until }] },
        },
      ]);
    const given = { kind: 'one', personId: 'Kit', why: { by: 'name', passedOver: [] } } as const;
    const whoHas = (until: string, ofSet: Assignment = given) =>
      one && tasksOfSet(one, parts, WEEKDAYS_ONLY, ofSet, ofParts(holder(until))).map(({ assigneeId }) => assigneeId);
    expect(whoHas('2026-12-04')).toEqual(['Kit', 'Kit']);
    expect(whoHas('2026-12-03')).toEqual(['Kit', null]);
    // By hand it stays as it was given.
    expect(whoHas('2026-12-03', { ...given, why: { by: 'hand' } })).toEqual(['Kit', 'Kit']);
  });

  it('gives a step to any one of a role who can have it on its own day, whoever has the set', () => {
    const step = {
      ...own('lift', 4),
      assignee: { by: 'anyOf' as const, group: { of: 'role' as const, role: 'yard' } },
      tickets: ['hoist'],
    };
    const parts = setParts(template(step));
    expect([minutesOfHolder(parts), ticketsOfHolder(parts)]).toEqual([parts[0]?.estimateMinutes, []]);
    const days = { recurrence: parsePhrase('every day', { start: '2026-12-01' }), timing: PLAIN_TIMING };
    const [one] = planDays(days, WEEKDAYS_ONLY, dayOfIso('2026-12-01'), dayOfIso('2026-12-01')).filter(isDated);
    const lifter = (id: string, roles: string[], worksOn: Weekday, until: string | null) =>
      hand(id, roles, [worksOn], { tickets: [{ name: 'hoist', until }] });
    // The step is on Saturday the 5th.
    const people = peopleHere([
      lifter('Bram', ['yard'], 6, null),
      lifter('Selwyn', ['yard'], 6, '2026-12-04'),
      lifter('Gwen', ['yard'], 2, null),
      lifter('Kit', ['dock crew'], 6, null),
    ]);
    const given = { kind: 'one', personId: 'Kit', why: { by: 'name', passedOver: [] } } as const;
    const [main, lift] = one ? tasksOfSet(one, parts, WEEKDAYS_ONLY, given, ofParts(people)) : [];
    expect([main?.assigneeId, lift?.assigneeId]).toEqual(['Kit', null]);
    expect(lift?.assignment).toMatchObject({ kind: 'anyOf', personIds: ['Bram'] });
  });

  it('gives a step to the client’s usual person, to whoever of some has the least to do, and covers whoever is away', () => {
    const yard = { of: 'role' as const, role: 'yard' };
    const parts = setParts(
      template(
        { ...own('call', 0), assignee: { by: 'usualPerson' as const } },
        { ...own('lift', 0), assignee: { by: 'leastToDo' as const, group: yard } },
        { ...own('hang', 1), assignee: { by: 'leastToDo' as const, group: yard } },
        { ...own('sign', 0), assignee: { by: 'person' as const, personId: 'Maud' } },
      ),
    );
    const days = { recurrence: parsePhrase('every day', { start: '2026-12-01' }), timing: PLAIN_TIMING };
    const dates = planDays(days, WEEKDAYS_ONLY, dayOfIso('2026-12-01'), dayOfIso('2026-12-02')).filter(isDated);
    const week: Weekday[] = [1, 2, 3, 4, 5];
    const away = [{ from: '2026-12-02', to: '2026-12-02', half: null }];
    const people = peopleHere([
      hand('Bram', ['yard'], week),
      hand('Selwyn', ['yard'], week),
      hand('Maud', [], week, { leave: away, deputyId: 'Oskar' }),
      hand('Oskar', [], week),
      hand('Rhona', [], week),
    ]);
    const given = { kind: 'one', personId: 'Oskar', why: { by: 'name', passedOver: [] } } as const;
    const whoHas = (usualPersonId: string | null, context: Partial<Parameters<typeof partAssigner>[0]> = {}) => {
      const own = ofParts(people, { usualPersonId, ...context });
      return dates.map((one) =>
        tasksOfSet(one, parts, WEEKDAYS_ONLY, given, own)
          .map(({ assigneeId }) => assigneeId ?? '–')
          .join(' '),
      );
    };
    // Each that is given away counts for the next one.
    expect(whoHas('Rhona')).toEqual(['Oskar Rhona Bram Selwyn Maud', 'Oskar Rhona Bram Selwyn Oskar']);
    expect(whoHas(null)[0]).toBe('Oskar – Bram Selwyn Maud');
    const settled = (nominal: number, step: string) =>
      step === 'lift' && nominal === dayOfIso('2026-12-01') ? { personId: 'Selwyn', why: null } : undefined;
    expect(whoHas(null, { settled })[0]).toBe('Oskar – Selwyn Bram Maud');
  });

  it('stands there for each who has one of their own, but for steps that are somebody else’s', () => {
    const named = { ...own('report', 1), assignee: { by: 'person' as const, personId: 'Maud' } };
    const parts = setParts(template(own('sign', 0), named));
    const days = { recurrence: parsePhrase('every day', { start: '2026-12-01' }), timing: PLAIN_TIMING };
    const [one] = planDays(days, WEEKDAYS_ONLY, dayOfIso('2026-12-01'), dayOfIso('2026-12-01')).filter(isDated);
    const each = {
      kind: 'eachOf' as const,
      group: { of: 'role' as const, role: 'crew' },
      personIds: ['a', 'b'],
      passedOver: [],
    };
    const tasks = one ? tasksOfSet(one, parts, WEEKDAYS_ONLY, each, ofParts(peopleHere([hand('Maud', [], [1])]))) : [];
    expect(tasks.map(({ part, head, assigneeId }) => `${part.key}/${head}/${assigneeId}`)).toEqual([
      '/a/a',
      '/b/b',
      'sign/a/a',
      'sign/b/b',
      'report//Maud',
    ]);
  });

  it('keeps every check line, and counts all minutes', () => {
    const step = fc.oneof(fc.constant('check'), fc.constant('task'));
    fc.assert(
      fc.property(fc.array(step, { maxLength: 30 }), (kinds) => {
        const made = template(...kinds.map((kind, i) => (kind === 'check' ? check(`k${i}`) : own(`k${i}`, i))));
        const parts = setParts(made);
        expect(parts.flatMap(({ checkLines }) => checkLines).length).toBe(kinds.filter((k) => k === 'check').length);
        expect(parts.reduce((sum, part) => sum + part.estimateMinutes, 0)).toBe(setMinutes(made));
      }),
    );
  });

  const calendar = makeCalendar({ workingWeekdays: [1, 2, 3, 4, 5], holidays: [] });
  const schedule = {
    recurrence: {
      start: '2026-12-03',
      rules: [{ kind: 'weeks' as const, every: 4, on: [4 as const] }],
      end: { kind: 'never' as const },
      dayOff: 'none' as const,
    },
    timing: { ...PLAIN_TIMING, appears: { amount: -2, unit: 'day' as const }, startTime: '09:00' },
  };

  it('works each task on its own day, seen as long before as the main one', () => {
    const [occurrence] = planDays(schedule, calendar, dayOfIso('2026-12-01'), dayOfIso('2026-12-10')).filter(isDated);
    if (!occurrence) throw new Error('no occurrence');
    const days = setParts(template(own('notice', -7), own('file', 2, 'workingDay'))).map((part) => {
      const { on, appears, startTime, dueTime } = partDays(occurrence, part, calendar);
      return [isoOfDay(on), isoOfDay(appears), startTime, dueTime];
    });
    expect(days).toEqual([
      ['2026-12-03', '2026-12-01', '09:00', null],
      ['2026-11-26', '2026-11-24', null, '12:00'],
      ['2026-12-07', '2026-12-05', null, '12:00'],
    ]);
  });

  it('is made whole when the first of its tasks comes into sight', () => {
    const parts = setParts(template(own('notice', -7)));
    const upTo = (date: string, given: typeof parts | undefined) =>
      occurrencesWithinHorizon(schedule, calendar, {
        from: dayOfIso('2026-11-01'),
        upTo: dayOfIso(date),
        ...(given ? { parts: given } : {}),
      }).map(({ on }) => isoOfDay(on));
    expect(upTo('2026-11-23', parts)).toEqual([]);
    expect(upTo('2026-11-24', parts)).toEqual(['2026-12-03']);
    expect(upTo('2026-11-24', undefined)).toEqual([]);
    expect(setReach(parts)).toBe(7);
  });

  it('says offsets as people do', () => {
    expect(
      [own('a', 0), own('a', -1), own('a', -7), own('a', 2, 'workingDay')].map((s) => sayOffset(s.offset)),
    ).toEqual(['on the day', '1 day before', '7 days before', '2 working days after']);
  });
});

describe('an answer', () => {
  const demand = (kind: Demand['kind']) =>
    ({ key: 'k', label: '', kind, options: ['post', 'mail'] }) as unknown as Demand;
  it.each([
    ['yesNo', false, null],
    ['yesNo', 'no', 'Answer yes or no.'],
    ['number', 1.5, null],
    ['number', Number.NaN, 'Give a number.'],
    ['number', '1', 'Give a number.'],
    ['date', '2026-02-28', null],
    ['date', '2026-02-29', 'Give a date.'],
    ['choice', 'post', null],
    ['choice', 'pigeon', 'Choose one of post, mail.'],
    ['choices', ['post', 'mail'], null],
    ['choices', [], 'Choose from post, mail.'],
    ['choices', ['post', 'post'], 'Choose from post, mail.'],
    ['text', ' ', 'Write something.'],
    ['longText', 'x'.repeat(2001), 'Write at most 2000 characters.'],
    ['tag', 'cr 1', null],
    ['tag', 'CR-2', '“CR-2” is not the tag of what this task is about.'],
    ['file', 'x', 'That is shown by a file or a note, not answered.'],
  ] as const)('to %s that is %j: %j', (kind, value, problem) => {
    expect(answerProblem(demand(kind), value, 'CR-1')).toBe(problem);
  });

  it('of a tag starts the task that asks for it, where there is one to be read and nothing has been done', () => {
    const tag: Demand = { key: 'tag', label: '', kind: 'tag', atStart: true };
    const asked = (answers: Doing['answers'] = {}) => ({ demands: [loop, tag], answers });
    expect(tagToStart(asked(), false, 'CR-1')).toBe(tag);
    expect(tagToStart(asked(), true, 'CR-1')).toBeNull();
    expect(tagToStart(asked(), false, null)).toBeNull();
    expect(tagToStart(asked({ tag: { value: 'CR-1', remark: '' } }), false, 'CR-1')).toBeNull();
    expect(tagToStart({ demands: [{ key: 'tag', label: '', kind: 'tag' }], answers: {} }, false, 'CR-1')).toBeNull();
    expect(sayDemand(tag)).toBe('tag reading, to start');
  });

  it('tells how far a reading is outside, in the figures it was given in', () => {
    if (loop.kind !== 'number') throw new Error();
    expect(outsideBy(loop, 1.12)).toBe(0.32);
    expect(sayOutside(loop, 1.12)).toBe('0.32 Ω over the limit');
    expect(sayOutside(loop, 0.01)).toBe('0.04 Ω under the limit');
    expect([sayOutside(loop, 0.05), sayOutside(loop, 0.8)]).toEqual(['', '']);
    expect(sayLimits(loop)).toBe('0.05 to 0.8 Ω');
    expect(sayLimits({ ...loop, least: null })).toBe('at most 0.8 Ω');
    expect(sayDemand({ ...loop, most: null })).toBe('number, at least 0.05 Ω');
    expect(sayAnswer(loop, 1250.5)).toBe('1,250.5 Ω');
  });

  it('is outside exactly when it is beyond a limit', () => {
    const limit = fc.option(fc.integer({ min: -50, max: 50 }), { nil: null });
    fc.assert(
      fc.property(limit, limit, fc.integer({ min: -60, max: 60 }), (least, most, value) => {
        const number = { key: 'n', label: '', kind: 'number', unit: '', least, most } as const;
        const inside = (least === null || value >= least) && (most === null || value <= most);
        expect(outsideBy(number, value) === 0).toBe(inside);
      }),
    );
  });
});

describe('what is still missing', () => {
  const doing = (some: Partial<Doing>): Doing => ({
    demands: [{ key: 'photo', label: '', kind: 'file' }],
    checkLines: [
      { key: 'a', text: 'Gates', note: '', demands: [] },
      { key: 'b', text: 'Socket', note: '', demands: [loop] },
    ],
    ticked: new Set(),
    answers: {},
    files: {},
    note: '',
    ...some,
  });
  const words = (some: Partial<Doing>) => stillMissing(doing(some)).map((one) => one.words);

  it('is named in the order of the sheet', () => {
    expect(words({})).toEqual(['Gates', 'Earth loop', 'a photo or file']);
    expect(sayMissing(stillMissing(doing({})))).toBe('Gates, Earth loop and a photo or file');
  });

  it('is a remark where a reading is outside its limits', () => {
    expect(words({ answers: { loop: { value: 1.12, remark: ' ' } } })).toContain('the remark on Earth loop');
    expect(
      words({
        ticked: new Set(['a', 'b']),
        answers: { loop: { value: 1.12, remark: 'post 12 shut' } },
        files: { photo: 1 },
      }),
    ).toEqual([]);
  });

  it('is the tick of a line whose proof is there', () => {
    expect(
      words({ ticked: new Set(['a']), answers: { loop: { value: 0.4, remark: '' } }, files: { photo: 1 } }),
    ).toEqual(['Socket']);
  });

  it('is a note where one was asked for', () => {
    const asked = { demands: [{ key: 'n', label: '', kind: 'note' as const }], checkLines: [] };
    expect([words({ ...asked, note: ' ' }), words({ ...asked, note: 'done' })]).toEqual([['a note'], []]);
  });

  it('ticks a line that asks for something once all of it is there, and no other', () => {
    const [plain, asking] = doing({}).checkLines;
    if (!plain || !asking) throw new Error('two lines');
    const answers = { loop: { value: 0.4, remark: '' } };
    expect(isTickedByProof(plain, doing({ ticked: new Set(['a']) }))).toBe(false);
    expect(isTickedByProof(asking, doing({}))).toBe(false);
    expect(isTickedByProof(asking, doing({ answers }))).toBe(true);
    expect(isTickedByProof(asking, doing({ answers: { loop: { value: 1.12, remark: '' } } }))).toBe(false);
  });

  it('finishes by the last line alone: more lines are ticked than before, and nothing is missing', () => {
    const all = { ticked: new Set(['a', 'b']), answers: { loop: { value: 0.4, remark: '' } }, files: { photo: 1 } };
    expect(isFinishedByLast(new Set(['a']), doing(all))).toBe(true);
    // A photo or a note that comes after the last tick finishes nothing by itself.
    expect(isFinishedByLast(new Set(['a', 'b']), doing(all))).toBe(false);
    expect(isFinishedByLast(new Set(['a']), doing({ ...all, files: {} }))).toBe(false);
    expect(isFinishedByLast(new Set(), doing({ checkLines: [], demands: [] }))).toBe(false);
  });

  it('is counted where there is much', () => {
    const lines = Array.from({ length: 9 }, (_, i) => ({ key: `${i}`, text: `Line ${i}`, note: '', demands: [] }));
    expect(sayMissing(stillMissing(doing({ checkLines: lines, demands: [] })))).toBe(
      'Line 0, Line 1, Line 2 and 6 more',
    );
  });
});
