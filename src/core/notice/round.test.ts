import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tryMinutesOfTime } from '../civil-date/iso-date.ts';
import { byPlace, roundTimes } from './round.ts';

const stop = (place: string, minutes = 60) => ({ id: place, place, minutes });

describe('a round', () => {
  it('goes by place, as one walks past them', () => {
    const places = ['berth A 12', 'berth B 2', '', 'berth A 2', 'Berth a 4'];
    expect(byPlace(places.map((place) => stop(place))).map(({ place }) => place)).toEqual([
      'berth A 2',
      'Berth a 4',
      'berth A 12',
      'berth B 2',
      '',
    ]);
  });

  it('has times that follow from what each takes and the way between', () => {
    const times = roundTimes([stop('A', 60), stop('B', 25), stop('C', 40)], 9 * 60, 10);
    expect(times?.map(({ from, to }) => `${from}–${to}`)).toEqual(['09:00–10:00', '10:10–10:35', '10:45–11:25']);
    expect(roundTimes([stop('A', 60)], 23 * 60, 0)).toBeNull();
    expect(roundTimes([], 0, 0)).toEqual([]);
  });

  it('never has two stops at once, begins each on full five minutes and keeps what each takes', () => {
    const stops = fc.array(fc.integer({ min: 1, max: 240 }), { maxLength: 12 });
    fc.assert(
      fc.property(stops, fc.integer({ min: 0, max: 1439 }), fc.integer({ min: 0, max: 60 }), (of, from, between) => {
        const times = roundTimes(
          of.map((minutes, i) => stop(`${i}`, minutes)),
          from,
          between,
        );
        if (times === null) {
          expect(of.reduce((sum, minutes) => sum + minutes + between + 5, from + 5)).toBeGreaterThanOrEqual(1440);
          return;
        }
        const at = (time: string) => tryMinutesOfTime(time) ?? -1;
        times.forEach((one, i) => {
          expect(at(one.from) % 5).toBe(0);
          expect(at(one.to) - at(one.from)).toBe(of[i]);
          const before = times[i - 1];
          expect(at(one.from)).toBeGreaterThanOrEqual(before ? at(before.to) + between : from);
        });
      }),
    );
  });
});
