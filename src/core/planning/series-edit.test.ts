import { describe, expect, it } from 'vitest';
import { makeCalendar } from '../calendar/iso-calendar.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { parsePhrase } from '../recurrence/phrase/reader.ts';
import type { TitleContext } from '../wording/title.ts';
import { type ByHand, ownFrom, reviseFrom } from './by-hand.ts';
import { isDated, namedFor, planDays } from './plan.ts';
import { type EditableTask, editedFields, editOfOther, revisionOfEdit, type SeriesEdit } from './series-edit.ts';
import { PLAIN_TIMING } from './timing.ts';

const contextOn = (date: string): TitleContext => ({
  on: dayOfIso(date),
  client: null,
  asset: 'Crane 1',
  person: 'Bram',
});
const before: EditableTask = {
  title: 'Crane 1, 7 Dec 2026',
  instructions: '<p>Look.</p>',
  workOn: '2026-12-07',
  dueOn: '2026-12-08',
  startTime: '08:00',
  dueTime: null,
  assigneeId: 'bram',
  estimateMinutes: 30,
  priority: 'normal',
};
const later: EditableTask = { ...before, title: 'Crane 1, 14 Dec 2026', workOn: '2026-12-14', dueOn: '2026-12-15' };
const edit = (after: Partial<EditableTask>): SeriesEdit => ({
  before,
  after: { ...before, ...after },
  titleContext: contextOn('2026-12-07'),
});
const ofLater = (after: Partial<EditableTask>) => editOfOther(edit(after), later, contextOn('2026-12-14'));

describe('an edit of one task of a series', () => {
  it('goes on to another as the same change, not as the same text or day', () => {
    expect(ofLater({})).toEqual({});
    expect(ofLater({ title: 'Look at Crane 1, 7 Dec 2026' })).toEqual({ title: 'Look at Crane 1, 14 Dec 2026' });
    expect(ofLater({ workOn: '2026-12-08', dueOn: '2026-12-09' })).toEqual({
      workOn: '2026-12-15',
      dueOn: '2026-12-16',
    });
    expect(ofLater({ dueOn: '2026-12-10' })).toEqual({ dueOn: '2026-12-17' });
    expect(ofLater({ startTime: null, estimateMinutes: 45, assigneeId: null })).toEqual({
      startTime: null,
      estimateMinutes: 45,
      assigneeId: null,
    });
    expect(editedFields(edit({ priority: 'high', dueTime: '17:00' }))).toEqual(['dueTime', 'priority']);
  });

  it('becomes what the schedule says of its later ones, but for the day, which is the rule’s', () => {
    const all = edit({
      title: 'Look at Crane 1, 7 Dec 2026',
      workOn: '2026-12-08',
      dueOn: '2026-12-09',
      startTime: '09:00',
      assigneeId: 'kit',
      estimateMinutes: 45,
    });
    const main = revisionOfEdit(all, '');
    expect(main.own).toEqual({ titlePattern: 'Look at {asset}, {date}', assigneeId: 'kit', estimateMinutes: 45 });
    expect(main.timing).toEqual({ startTime: '09:00' });
    expect([...main.said]).toEqual(['title', 'startTime', 'assigneeId', 'estimateMinutes']);
    expect(revisionOfEdit(edit({ dueOn: '2026-12-10' }), '').timing).toEqual({ due: { amount: 3, unit: 'day' } });
    expect(revisionOfEdit(edit({ dueOn: '2026-12-10', startTime: '10:00' }), 'step')).toMatchObject({
      own: { startTime: '10:00' },
      timing: {},
    });
  });
});

describe('what a schedule says from a date on', () => {
  const calendar = makeCalendar({ workingWeekdays: [1, 2, 3, 4, 5], holidays: [] });
  const mondays: ByHand = {
    recurrence: parsePhrase('every 2 weeks on Mon', { start: '2026-11-23' }),
    timing: PLAIN_TIMING,
    pauses: [],
    exceptions: [],
    revisions: [],
  };
  const who = (schedule: ByHand) =>
    planDays(schedule, calendar, dayOfIso('2026-11-23'), dayOfIso('2027-01-31'))
      .filter(isDated)
      .map((one) => [
        isoOfDay(one.on).slice(5),
        namedFor(one) === undefined ? 'bram' : namedFor(one),
        one.timing.startTime,
      ]);

  it('holds for its dates and later rules, keeps the weeks, and adds up', () => {
    const kit = ownFrom(mondays, dayOfIso('2026-12-07'), '', { own: { assigneeId: 'kit' }, timing: {} });
    expect(who(kit)).toEqual([
      ['11-23', 'bram', null],
      ['12-07', 'kit', null],
      ['12-21', 'kit', null],
      ['01-04', 'kit', null],
      ['01-18', 'kit', null],
    ]);
    const revised = reviseFrom(kit, dayOfIso('2026-12-21')).draft;
    const earlier = ownFrom(revised, dayOfIso('2026-12-07'), '', {
      own: { estimateMinutes: 5 },
      timing: { startTime: '07:00' },
    });
    expect(earlier.revisions.map(({ own }) => own)).toEqual([
      { '': { assigneeId: 'kit', estimateMinutes: 5 } },
      { '': { assigneeId: 'kit', estimateMinutes: 5 } },
    ]);
    expect(who(earlier).map(([, , time]) => time)).toEqual([null, '07:00', '07:00', '07:00', '07:00']);
  });

  it('gives way to what was changed for one date', () => {
    const kit = ownFrom(mondays, dayOfIso('2026-12-07'), '', { own: { assigneeId: 'kit' }, timing: {} });
    const once: ByHand = {
      ...kit,
      exceptions: [{ kind: 'change', date: '2026-12-21', change: { assigneeId: null } }],
    };
    expect(who(once).map(([, person]) => person)).toEqual(['bram', 'kit', null, 'kit', 'kit']);
  });
});
