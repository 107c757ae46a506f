import { describe, expect, it } from 'vitest';
import { dayOfIso } from '../../../core/index.ts';
import { timeOf } from '../../kit/ways.ts';
import { lineOf } from '../../testing/tasks.ts';
import { sayFor, sayTimes, sayWindow } from './task-words.ts';

const today = dayOfIso('2026-11-24');
describe('the times of a task', () => {
  it.each([
    ['11:00', '12:00', '11:00–12:00'],
    [null, '15:30', 'by 15:30'],
    ['09:00', null, 'from 09:00'],
    [null, null, ''],
  ])('from %s by %s read %j', (startTime, dueTime, words) => {
    expect(sayTimes({ startTime, dueTime })).toBe(words);
  });

  it('say how late it is before anything else', () => {
    expect(sayWindow(lineOf({ late: true, daysLate: 3, dueOn: '2026-11-21' }), today, today)).toBe('3 days late');
    expect(sayWindow(lineOf({ late: true, daysLate: 0, dueTime: '09:00' }), today, today)).toBe('late today');
  });

  it('say the later day it may be finished by', () => {
    expect(sayWindow(lineOf({ dueOn: '2026-11-25' }), today, today)).toBe('by tomorrow');
    expect(sayWindow(lineOf({ dueOn: '2026-12-03' }), today, today)).toBe('by 3 Dec');
    expect(sayWindow(lineOf({ dueOn: '2026-11-28' }), today, today)).toBe('by Sat');
    expect(sayWindow(lineOf({}), today, today)).toBe('any time');
  });

  it('of work done late stay its times', () => {
    expect(sayWindow(lineOf({ state: 'done', late: true, daysLate: 1, dueTime: '10:00' }), today, today)).toBe(
      'by 10:00',
    );
  });

  it('of a moment are its clock time', () => {
    expect(timeOf('2026-11-24T07:05')).toBe('07:05');
  });
});

describe('whom a task is for', () => {
  const named = (name: string) => ({ id: '00000000-0000-4000-8000-000000000000', name });
  it('is not said twice when the title says it', () => {
    const vessel = { asset: named('Quiet Harriet'), client: named('Edda Rushworth') };
    expect(sayFor(lineOf({ ...vessel, title: 'Gas and shore power' }))).toBe('Quiet Harriet, Edda Rushworth');
    expect(sayFor(lineOf({ ...vessel, title: 'Gas and shore power · Quiet Harriet' }))).toBe('Edda Rushworth');
    expect(sayFor(lineOf({}))).toBe('');
  });
});
