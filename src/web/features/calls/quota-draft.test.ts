import { describe, expect, it } from 'vitest';
import type { CallQuota } from '../../../contract/index.ts';
import { dayOfIso } from '../../../core/index.ts';
import { draftOf, inputOf } from './quota-draft.ts';

const TODAY = dayOfIso('2026-11-24');
const NEW = draftOf(null, TODAY, ['berth adviser']);
const quota = (rest: Partial<CallQuota> = {}): CallQuota => ({
  ...{ id: 'q', name: 'Renewal calls', version: 3, startsOn: '2026-11-02', endsOn: null, pauses: [], people: [] },
  terms: [{ from: '2026-11-02', says: NEW.says }],
  ...rest,
});
const pausesOf = (of: CallQuota, pausedFrom: string | null) =>
  inputOf(of, { ...draftOf(of, TODAY, []), pausedFrom }, TODAY).pauses;

describe('a quota that is written', () => {
  it('counts from tomorrow where it has begun, from its own day where it has not, and is of the version it was begun from', () => {
    expect(NEW).toMatchObject({ from: '2026-11-24', says: { group: { of: 'role', role: 'berth adviser' } } });
    expect(draftOf(quota(), TODAY, [])).toMatchObject({ from: '2026-11-25', version: 3, pausedFrom: null });
    const toCome = quota({ startsOn: '2026-12-07', terms: [{ from: '2026-12-07', says: NEW.says }] });
    expect(draftOf(toCome, TODAY, []).from).toBe('2026-12-07');
  });

  it('is written from what it says last, also where that is still to come', () => {
    const says = { ...NEW.says, gap: 5 };
    const twice = quota({ terms: [...quota().terms, { from: '2026-12-01', says }] });
    expect(draftOf(twice, TODAY, [])).toMatchObject({ from: '2026-12-01', says: { gap: 5 } });
  });

  it('is paused from the day from which it counts, and goes on from there', () => {
    const past = { from: '2026-11-05', to: '2026-11-09' };
    expect(pausesOf(quota({ pauses: [past] }), '2026-11-25')).toEqual([past, { from: '2026-11-25', to: null }]);
    const paused = quota({ pauses: [past, { from: '2026-11-20', to: null }] });
    expect(draftOf(paused, TODAY, []).pausedFrom).toBe('2026-11-20');
    expect(pausesOf(paused, '2026-11-20')).toEqual(paused.pauses);
    expect(pausesOf(paused, null)).toEqual([past, { from: '2026-11-20', to: '2026-11-25' }]);
    // One that was only to come is as if it had never been said.
    expect(pausesOf(quota({ pauses: [{ from: '2026-11-25', to: null }] }), null)).toEqual([]);
  });

  it('asks nothing by an empty line', () => {
    const says = { ...NEW.says, asks: [' Do they stay? ', '', ' '] };
    expect(inputOf(null, { ...NEW, says }, TODAY).says.asks).toEqual(['Do they stay?']);
  });
});
