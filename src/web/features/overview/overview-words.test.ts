import { describe, expect, it } from 'vitest';
import { dayOfIso } from '../../../core/index.ts';
import { minutesBetween, sayAsking, sayElapsed, saySince, sayUnderWay, sayWeek } from './overview-words.ts';

const TODAY = dayOfIso('2026-11-24');

describe('the words of the morning page', () => {
  it('tell how long something has gone on, of how long it should', () => {
    expect(minutesBetween('2026-11-24T09:35', '2026-11-24T10:40')).toBe(65);
    expect(minutesBetween('2026-11-23T23:50', '2026-11-24T00:10')).toBe(20);
    expect(minutesBetween('2026-11-24T10:40', '2026-11-24T09:35')).toBe(0);
    expect([sayElapsed(65, 45), sayElapsed(105, 120), sayElapsed(20, 120)]).toEqual([
      '65 of 45 min',
      '1 h 45 of 2 h',
      '20 min of 2 h',
    ]);
  });

  it('tell of another day by its date, and of days under way by how many', () => {
    expect(saySince({ startedAt: '2026-11-24T08:55' }, TODAY)).toBe('since 08:55');
    expect(saySince({ startedAt: '2026-11-21T08:55' }, TODAY)).toBe('since 21 Nov');
    expect(sayUnderWay({ startedAt: '2026-11-21T08:55' }, TODAY)).toBe('under way for 3 days');
    expect(sayUnderWay({ startedAt: null }, TODAY)).toBe('under way');
  });

  it('tell what a schedule asks for', () => {
    const one = { id: 'x', name: 'Antifoul bay wash', about: null, said: null, on: null, days: null };
    expect(sayAsking({ ...one, because: 'ended', on: '2026-11-20' }, TODAY)).toBe('ended Fri 20 Nov');
    expect(sayAsking({ ...one, because: 'waits', days: 1 }, TODAY)).toBe('has waited 1 day for its last one');
    expect(sayAsking({ ...one, because: 'problem', said: 'its rule never comes' }, TODAY)).toBe('its rule never comes');
  });

  it('name who is over in a week, else who is away, by first names where that is enough', () => {
    const [nadia, bram] = [
      { id: 'n', name: 'Nadia Orme' },
      { id: 'b', name: 'Bram Hollis' },
    ];
    const week = {
      ...{ monday: '2026-11-30', made: 0, foreseen: 0, capacity: 0, over: [], overCount: 0 },
      ...{ away: [nadia, bram], awayCount: 3 },
    };
    expect(sayWeek(week, [nadia, bram])).toEqual({ words: 'Nadia, Bram and 1 more on leave', isOver: false });
    const over = [{ ...bram, minutes: 2400, capacity: 2250 }];
    expect(sayWeek({ ...week, over, overCount: 2 }, [nadia, bram])).toEqual({
      words: 'Bram 40 of 37.5 and 1 more',
      isOver: true,
    });
    expect(sayWeek({ ...week, away: [], awayCount: 0 }, [])).toEqual({ words: '', isOver: false });
  });
});
