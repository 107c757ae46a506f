import { describe, expect, it } from 'vitest';
import type { Demand } from '../../../core/index.ts';
import { lineOf, taskOf } from '../../testing/tasks.ts';
import type { Unsent } from '../unsent/outbox.ts';
import { lineOnDevice, taskOnDevice, waitsHere } from './on-device.ts';
import { isFixed, missingOf, unreadTagOf } from './task-words.ts';

const HERE = { me: { id: 'nadia', name: 'Nadia Orme' }, momentOf: (at: number) => `2026-11-24T10:${at}` };
const TASK = '01937000-0000-7000-8000-000000000f01';

const one = (kind: string, field: string, value: object, state: Unsent['state'] = 'waiting'): Unsent => ({
  ...{ field, kind, value: { taskId: TASK, ...value }, key: field, about: '', to: '/', at: 45, state },
  ...{ said: null, type: null },
});
const waiting = (...all: Unsent[]) => new Map(all.map((item) => [item.field, item]));
const start = (state?: Unsent['state']) => one('start', `start ${TASK}`, {}, state);
const finish = (state?: Unsent['state']) => one('finish', `over ${TASK}`, { nextOn: null }, state);
const skip = one('skip', `over ${TASK}`, { reason: 'Storm.' });
const tick = (ticked: boolean) => one('tick', `tick ${TASK} a`, { key: 'a', ticked });
const answer = (value: unknown, remark = '') => one('answer', `answer ${TASK} n`, { demand: 'n', value, remark });
const photo = one('photo', 'photo p', { key: 'p', name: 'lamp.png', demand: 'pic' });

const NUMBER: Demand = { key: 'n', kind: 'number', label: 'Volt', unit: 'V', least: 11, most: 14 };
const TAG: Demand = { key: 'n', kind: 'tag', label: 'Tag' };
const FILE: Demand = { key: 'pic', kind: 'file', label: 'Photo' };
const line = (demands: Demand[] = []) => ({
  key: 'a',
  text: 'Lamp',
  note: '',
  demands,
  tickedAt: null,
  tickedBy: null,
});

describe('a task on this device', () => {
  it('is as the server has it where nothing waits, and where what was done was refused or is still typed', () => {
    const task = taskOf();
    expect(taskOnDevice(task, new Map(), HERE)).toBe(task);
    const left = waiting(start('refused'), finish('refused'), one('note', `note ${TASK}`, { note: 'x' }, 'draft'));
    expect(taskOnDevice(task, left, HERE)).toEqual(task);
    expect(waitsHere(TASK, left)).toBe(false);
  });

  it('is begun, done or skipped as of when that was done here, and no more can be written over it', () => {
    expect(taskOnDevice(taskOf(), waiting(start()), HERE)).toMatchObject({
      state: 'underWay',
      startedAt: '2026-11-24T10:45',
    });
    const done = taskOnDevice(taskOf(), waiting(start(), finish()), HERE);
    expect(done).toMatchObject({ state: 'done', doneAt: '2026-11-24T10:45', doneBy: 'Nadia Orme', mayAddTo: true });
    expect(isFixed(done)).toBe(true);
    expect(taskOnDevice(taskOf({ signsOff: 'Ines' }), waiting(finish()), HERE)).toMatchObject({ state: 'toCheck' });
    expect(taskOnDevice(taskOf({ note: 'Wet.' }), waiting(skip), HERE)).toMatchObject({
      state: 'skipped',
      note: 'Wet.\nStorm.',
    });
  });

  it('lacks no more what was given here: a tick, a reading, a photo; a line is ticked by what it asks for', () => {
    const task = taskOf({ steps: [line()], demands: [NUMBER, FILE] });
    expect(missingOf(task)).toHaveLength(3);
    const here = taskOnDevice(task, waiting(tick(true), answer(12.4), photo), HERE);
    expect(missingOf(here)).toEqual([]);
    expect(here.stepsDone).toBe(1);
    const asking = taskOf({ steps: [line([NUMBER, FILE])] });
    expect(taskOnDevice(asking, waiting(answer(12.4)), HERE).stepsDone).toBe(0);
    expect(taskOnDevice(asking, waiting(answer(12.4), photo), HERE).stepsDone).toBe(1);
    // Taken back here, the tick is gone.
    const ticked = taskOf({ steps: [{ ...line(), tickedAt: '2026-11-24T09:00', tickedBy: 'Nadia Orme' }] });
    expect(taskOnDevice(ticked, waiting(tick(false)), HERE).stepsDone).toBe(0);
  });

  it('does not count what the server is known to refuse: the tag of something else, a figure without its remark', () => {
    const tagged = taskOf({ demands: [TAG], assetTag: 'CR-2' });
    expect(missingOf(taskOnDevice(tagged, waiting(answer('PA-1')), HERE))).toHaveLength(1);
    expect(missingOf(taskOnDevice(tagged, waiting(answer('cr-2')), HERE))).toEqual([]);
    const read = taskOf({ demands: [NUMBER] });
    expect(missingOf(taskOnDevice(read, waiting(answer(9)), HERE))).toHaveLength(1);
    expect(missingOf(taskOnDevice(read, waiting(answer(9, 'Battery is old.')), HERE))).toEqual([]);
  });

  it('is started by the tag that was read here, and by no other', () => {
    const tag: Demand = { ...TAG, atStart: true };
    const task = taskOf({ demands: [tag], assetTag: 'CR-2', startsByTag: true });
    const read = one('answer', `answer ${TASK} n`, { demand: 'n', value: 'cr-2', remark: '', starts: true });
    expect(unreadTagOf(task)).toBe(tag);
    expect(taskOnDevice(task, waiting(answer('PA-1')), HERE).state).toBe('open');
    const here = taskOnDevice(task, waiting(read), HERE);
    expect(here).toMatchObject({ state: 'underWay', startedAt: '2026-11-24T10:45' });
    expect(unreadTagOf(here)).toBeNull();
    expect(lineOnDevice(lineOf({ startsByTag: true }), waiting(read), HERE)).toMatchObject({
      ...{ state: 'underWay', startsByTag: false },
    });
    expect(waitsHere(TASK, waiting(read))).toBe(true);
  });

  it('is finished by the last thing done, where its template says so', () => {
    const task = taskOf({ steps: [line()], finishWithLast: true });
    expect(taskOnDevice(task, waiting(tick(true)), HERE)).toMatchObject({ state: 'done', doneAt: '2026-11-24T10:45' });
    expect(taskOnDevice({ ...task, demands: [FILE] }, waiting(tick(true)), HERE).state).toBe('open');
    expect(taskOnDevice({ ...task, finishWithLast: false }, waiting(tick(true)), HERE).state).toBe('open');
    // What is asked for beside the lines, given after the last tick, finishes nothing by itself: as on the server.
    const noted = { ...task, demands: [{ key: 'w', kind: 'note', label: '' } as Demand] };
    const note = (at: number) => ({ ...one('note', `note ${TASK}`, { note: 'Dry.', was: '' }), at });
    expect(taskOnDevice(noted, waiting(note(44), tick(true)), HERE).state).toBe('done');
    expect(taskOnDevice(noted, waiting(tick(true), note(46)), HERE).state).toBe('open');
  });
});

describe('a line of a day on this device', () => {
  it('stands as what was done last has it', () => {
    const none = lineOf();
    expect(lineOnDevice(none, new Map(), HERE)).toBe(none);
    expect(lineOnDevice(none, waiting(start()), HERE).state).toBe('underWay');
    expect(lineOnDevice(none, waiting(start(), finish()), HERE)).toMatchObject({
      state: 'done',
      doneAt: '2026-11-24T10:45',
    });
    expect(lineOnDevice(lineOf({ late: true }), waiting(skip), HERE)).toMatchObject({ state: 'skipped', late: false });
    expect(lineOnDevice(lineOf({ id: 'other' }), waiting(finish()), HERE).state).toBe('open');
  });
});
