import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PLAIN_TIMING } from '../core/index.ts';
import { anyRecurrence } from '../core/recurrence/generated.ts';
import * as addresses from './addresses.ts';
import * as contract from './index.ts';
import {
  endpoint,
  exceptionSchema,
  pauseSchema,
  recurrenceSchema,
  revisionSchema,
  scheduleEndpoints,
  scheduleInputSchema,
  taskEndpoints,
  templateEndpoints,
  templateInputSchema,
  timingSchema,
  workspaceEndpoints,
} from './index.ts';

const issuesOf = (result: { success: boolean; error?: { issues: { path: PropertyKey[]; message: string }[] } }) =>
  (result.error?.issues ?? []).map(({ path, message }) => `${path.join('.')}: ${message}`);

describe('every endpoint', () => {
  it('stands at an address of its own: of two at one, the first would answer for both', () => {
    const all = Object.entries(contract)
      .filter(([name]) => name.endsWith('Endpoints'))
      .flatMap(([, group]) => Object.values(group as Record<string, contract.Endpoint>))
      .map(({ method, path }) => `${method} ${path.replace(/:\w+/g, ':id')}`);
    expect(all.length).toBeGreaterThan(100);
    expect(all.filter((one, i) => all.indexOf(one) !== i)).toEqual([]);
  });
});

describe('a recurrence over the wire', () => {
  it('is any that the core can hold', () => {
    fc.assert(
      fc.property(anyRecurrence, (recurrence) => {
        expect(recurrenceSchema.parse(JSON.parse(JSON.stringify(recurrence)))).toEqual(recurrence);
      }),
    );
  });

  const good = {
    start: '2026-11-24',
    rules: [{ kind: 'weeks', every: 1, on: [2] }],
    end: { kind: 'never' },
    dayOff: 'none',
  };
  it.each([
    [{ ...good, start: '24/11/2026' }, 'start: This is not a date'],
    [{ ...good, start: '2026-02-29' }, 'start: This is not a date'],
    [{ ...good, rules: [] }, 'rules: Say when'],
    [{ ...good, rules: Array(13).fill(good.rules[0]) }, 'rules: Twelve rules at most'],
    [{ ...good, rules: [{ kind: 'weeks', every: 0, on: [2] }] }, 'rules.0.every: At least 1'],
    [{ ...good, rules: [{ kind: 'weeks', every: 1000, on: [2] }] }, 'rules.0.every: At most 999'],
    [{ ...good, rules: [{ kind: 'weeks', every: 1.5, on: [2] }] }, 'rules.0.every: Whole numbers only'],
    [{ ...good, rules: [{ kind: 'weeks', every: null, on: [2] }] }, 'rules.0.every: Say how many'],
    [{ ...good, rules: [{ kind: 'weeks', every: 1, on: [] }] }, 'rules.0.on: Choose at least one weekday'],
    [
      { ...good, rules: [{ kind: 'weeks', every: 1, on: [8] }] },
      'rules.0.on.0: A weekday is 1 for Monday to 7 for Sunday',
    ],
    [{ ...good, rules: [{ kind: 'weeks', every: 1, on: [2, 2] }] }, 'rules.0.on: A weekday stands there twice'],
    [
      { ...good, rules: [{ kind: 'days', every: 1, except: [1, 2, 3, 4, 5, 6, 7] }] },
      'rules.0.except: Leave at least one weekday',
    ],
    [
      { ...good, rules: [{ kind: 'months', every: 1, months: [13], on: [{ kind: 'date', day: 1 }], missing: 'last' }] },
      'rules.0.months.0',
    ],
    [
      { ...good, rules: [{ kind: 'months', every: 1, months: [], on: [], missing: 'last' }] },
      'rules.0.on: Choose at least one day',
    ],
    [
      { ...good, rules: [{ kind: 'months', every: 1, months: [], on: [{ kind: 'date', day: 0 }], missing: 'last' }] },
      'rules.0.on.0.day: From 1 to 31',
    ],
    [
      { ...good, rules: [{ kind: 'months', every: 1, months: [], on: [{ kind: 'date', day: 32 }], missing: 'last' }] },
      'rules.0.on.0.day',
    ],
    [
      { ...good, rules: [{ kind: 'years', every: 1, months: [], on: [{ kind: 'date', day: 1 }], missing: 'last' }] },
      'rules.0.months: Choose the month',
    ],
    [{ ...good, end: { kind: 'after', count: 0 } }, 'end.count: At least once'],
    [{ ...good, end: { kind: 'after', count: 10_000 } }, 'end.count: At most 9999 times'],
    [{ ...good, end: { kind: 'on', date: 'soon' } }, 'end.date: This is not a date'],
    [{ ...good, dayOff: 'sometimes' }, 'dayOff'],
    [{ ...good, rules: [{ kind: 'dates', dates: [] }] }, 'rules.0.dates: Write at least one date'],
    [{ ...good, rules: [{ kind: 'dates', dates: ['2027-02-30'] }] }, 'rules.0.dates.0: This is not a date'],
    [{ ...good, rules: [{ kind: 'workingDays', every: 1000 }] }, 'rules.0.every: At most 999'],
    [{ ...good, rules: [{ kind: 'rrule', text: 'FREQ=SECONDLY' }] }, 'rules.0.text: FREQ=SECONDLY is finer than a day'],
    [{ ...good, rules: [{ kind: 'follows', reaches: 'done', amount: -1, unit: 'day' }] }, 'rules.0.amount: At least 0'],
    [{ ...good, rules: [{ kind: 'follows', reaches: 'paid', amount: 1, unit: 'day' }] }, 'rules.0.reaches'],
    [{ ...good, closed: { seasons: [], dates: 'omit' } }, 'closed.seasons: Say when it is closed'],
    [
      { ...good, closed: { seasons: [{ from: '02-30', to: '03-01' }], dates: 'omit' } },
      'closed.seasons.0.from: A day of the year',
    ],
    [{ ...good, except: ['tomorrow'] }, 'except.0: This is not a date'],
  ])('is refused with its place: %j', (wrong, words) => {
    expect(issuesOf(recurrenceSchema.safeParse(wrong)).join('\n')).toContain(words);
  });
});

describe('timing over the wire', () => {
  const good = {
    appears: { amount: -4, unit: 'workingDay' },
    starts: { amount: 0, unit: 'day' },
    due: { amount: 0, unit: 'day' },
    startTime: '08:00',
    dueTime: '12:00',
  };
  it('takes leads before the day and a due date after it', () => {
    expect(timingSchema.safeParse(good).success).toBe(true);
    expect(timingSchema.safeParse({ ...good, due: { amount: 3, unit: 'workingDay' }, dueTime: '07:00' }).success).toBe(
      true,
    );
  });

  it.each([
    [{ ...good, appears: { amount: 1, unit: 'day' } }, 'appears.amount: It may appear up to 366 days before'],
    [{ ...good, due: { amount: -1, unit: 'day' } }, 'due.amount: It may be due on the day'],
    [{ ...good, dueTime: '07:00' }, 'dueTime: It is due before it starts'],
    [{ ...good, startTime: '25:00' }, 'startTime: This is not a time'],
    [{ ...good, starts: { amount: -0.5, unit: 'day' } }, 'starts.amount: Whole days only'],
    [{ ...good, starts: { amount: 0, unit: 'fortnight' } }, 'starts.unit'],
    [{ ...good, reminders: [{ offset: { amount: -400, unit: 'day' }, time: '09:00' }] }, 'reminders.0.offset.amount'],
    [
      { ...good, reminders: [{ offset: { amount: -1, unit: 'day' }, time: '9' }] },
      'reminders.0.time: This is not a time',
    ],
    [
      { ...good, reminders: Array.from({ length: 9 }, () => ({ offset: { amount: 0, unit: 'day' }, time: '09:00' })) },
      'Eight reminders at most',
    ],
    [{ ...good, zone: 'London' }, 'zone: There is no such time zone'],
  ])('is refused with its place: %j', (wrong, words) => {
    expect(issuesOf(timingSchema.safeParse(wrong)).join('\n')).toContain(words);
  });
});

describe('what was changed by hand, over the wire', () => {
  it('takes each kind of exception, and pauses that end or last', () => {
    for (const exception of [
      { kind: 'skip', date: '2026-12-25' },
      { kind: 'move', date: '2026-12-25', to: '2026-12-24' },
      { kind: 'add', date: '2026-12-30' },
      { kind: 'change', date: '2026-12-25', change: { startTime: null, dueTime: '12:00' } },
    ])
      expect(exceptionSchema.parse(exception)).toEqual(exception);
    expect(pauseSchema.safeParse({ from: '2026-12-01', to: null }).success).toBe(true);
  });

  it.each([
    [{ kind: 'move', date: '2026-12-25' }, 'to'],
    [{ kind: 'skip', date: 'Christmas' }, 'date: This is not a date'],
    [{ kind: 'change', date: '2026-12-25', change: { startTime: 'noon' } }, 'change.startTime: This is not a time'],
    [{ kind: 'swap', date: '2026-12-25' }, 'kind'],
  ])('refuses %j with its place', (wrong, words) => {
    expect(issuesOf(exceptionSchema.safeParse(wrong)).join('\n')).toContain(words);
  });

  it('gives stored timings of an earlier version what they lack', () => {
    const { reminders, zone, ...earlier } = { ...PLAIN_TIMING };
    expect([reminders, zone]).toEqual([[], null]);
    expect(timingSchema.parse(earlier)).toEqual(PLAIN_TIMING);
  });
});

describe('a template over the wire', () => {
  const good = {
    name: 'Payroll',
    titlePattern: 'Payroll {month}',
    category: null,
    instructions: '',
    estimateMinutes: 1,
  };
  it('is trimmed at its edges and nothing else', () => {
    const { name, instructions } = templateInputSchema.parse({
      ...good,
      name: '  Payroll  run ',
      instructions: '  two\n lines ',
    });
    expect(name).toBe('Payroll  run');
    expect(instructions).toBe('  two\n lines ');
  });

  it('holds names in any script', () => {
    for (const name of ['Überprüfung', 'Ærø', '点検', '🚩 flags', "O’Brien's"])
      expect(templateInputSchema.parse({ ...good, name }).name).toBe(name);
  });

  it('never takes a text that is too long, however long', () => {
    fc.assert(
      fc.property(fc.integer({ min: 121, max: 100_000 }), (length) => {
        expect(issuesOf(templateInputSchema.safeParse({ ...good, name: 'x'.repeat(length) }))).toEqual([
          'name: The name may have 120 characters at most.',
        ]);
      }),
      { numRuns: 10 },
    );
  });
});

describe('the endpoints', () => {
  const all = [workspaceEndpoints, templateEndpoints, scheduleEndpoints, taskEndpoints].flatMap((group) =>
    Object.values(group),
  );

  it('have an address of their own each', () => {
    const addresses = all.map(({ method, path }) => `${method} ${path}`);
    expect(new Set(addresses).size).toBe(addresses.length);
  });

  it('are where a browser asks for them, each by its name', () => {
    const full: Readonly<Record<string, unknown>> = contract;
    const light: Readonly<Record<string, unknown>> = addresses;
    const groups = Object.keys(full).filter((name) => name.endsWith('Endpoints'));
    expect(Object.keys(light).sort()).toEqual(groups.map((name) => name.replace('Endpoints', 'Addresses')).sort());
    for (const name of groups) {
      const ofGroup = Object.entries(full[name] as Record<string, { method: string; path: string }>);
      expect(light[name.replace('Endpoints', 'Addresses')]).toEqual(
        Object.fromEntries(ofGroup.map(([key, { method, path }]) => [key, { method, path }])),
      );
    }
  });

  it('ask nothing where nothing is said', () => {
    const bare = endpoint(['GET', '/x'], { answer: workspaceEndpoints.session.answer });
    expect(bare.query.parse({})).toEqual({});
    expect(bare.body.parse({})).toEqual({});
  });

  it('hold what a task says of its own to the limits of a template, and read what was stored before they did', () => {
    const recurrence = {
      start: '2026-11-24',
      rules: [{ kind: 'weeks', every: 1, on: [2] }],
      end: { kind: 'never' },
      dayOff: 'none',
    };
    const revision = { from: '2026-12-01', recurrence, timing: PLAIN_TIMING, own: { s1: { estimateMinutes: 99_000 } } };
    expect(revisionSchema.safeParse(revision).success).toBe(true);
    const input = {
      ...{ templateId: crypto.randomUUID(), clientId: null, assetId: null, assignment: { v: 1, kind: 'nobody' } },
      ...{ recurrence, timing: PLAIN_TIMING, overlap: { kind: 'add' }, revisions: [revision] },
    };
    expect(issuesOf(scheduleInputSchema.safeParse(input))).toEqual([
      expect.stringMatching(/^revisions\.0\.own\.s1\.estimateMinutes: An estimate is \d+ hours at most/),
    ]);
  });

  it('keep ids of others out by form', () => {
    const wrong = scheduleInputSchema.safeParse({
      templateId: 1,
      clientId: 'x',
      assetId: null,
      assignment: { v: 1, kind: 'nobody' },
    });
    expect(issuesOf(wrong).map((issue) => issue.split(':')[0])).toEqual([
      'templateId',
      'clientId',
      'recurrence',
      'timing',
    ]);
  });
});
