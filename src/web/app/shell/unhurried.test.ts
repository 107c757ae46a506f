import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Live } from '../../../contract/index.ts';
import { touchedBy } from './touched-by.ts';
import { Unhurried } from './unhurried.ts';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe('what is asked for again', () => {
  it('is asked for once, however much news there is meanwhile', () => {
    const asked: string[] = [];
    const unhurried = new Unhurried(
      (address) => asked.push(address),
      () => 0.5,
    );
    for (let news = 0; news < 50; news++) unhurried.soon('/tasks/1');
    expect(asked).toEqual([]);
    vi.advanceTimersByTime(250);
    expect(asked).toEqual(['/tasks/1']);
    unhurried.soon('/tasks/1');
    vi.advanceTimersByTime(250);
    expect(asked).toHaveLength(2);
  });

  it('is asked for every few seconds at most where it is large, and always after the last of the news', () => {
    const asked: number[] = [];
    const began = Date.now();
    const unhurried = new Unhurried(
      () => asked.push(Date.now() - began),
      () => 0.5,
    );
    for (let second = 0; second < 10; second++) {
      unhurried.later('/schedules');
      vi.advanceTimersByTime(1000);
    }
    vi.advanceTimersByTime(5000);
    expect(asked).toHaveLength(4);
    for (const [i, at] of asked.entries()) if (i > 0) expect(at - (asked[i - 1] ?? 0)).toBeGreaterThanOrEqual(3000);
    expect(asked.at(-1)).toBeGreaterThan(9000);
  });

  it('is not asked for once the page is left', () => {
    const asked: string[] = [];
    const unhurried = new Unhurried((address) => asked.push(address));
    unhurried.soon('/tasks/1');
    unhurried.later('/schedules');
    unhurried.stop();
    vi.advanceTimersByTime(10_000);
    expect(asked).toEqual([]);
  });
});

describe('news', () => {
  const ME = 'ines';
  const news = (of: Partial<Live>): Live => ({ topics: [], tasks: null, people: null, load: true, ...of });

  it('of a tick touches that task and one day sheet', () => {
    expect(touchedBy(news({ topics: ['tasks'], tasks: ['t'], people: ['nadia'], load: false }), ME)).toEqual({
      soon: ['/tasks/t', '/people/nadia/'],
      later: ['/day-sheets'],
    });
  });

  it('of work that moves touches lists and sums as well', () => {
    const { soon, later } = touchedBy(news({ topics: ['tasks', 'schedules'] }), ME);
    expect(soon).toEqual(['/tasks/', '/people/']);
    expect(later).toEqual([
      '/day-sheets',
      '/schedules',
      '/overview',
      '/task-list',
      '/visits',
      '/notices',
      '/tideline',
      '/team',
      '/workload',
      '/wallchart',
      '/colleagues',
      '/shifts',
      '/clients',
      '/schedules/timed-work',
    ]);
    const narrow = touchedBy(news({ topics: ['tasks', 'schedules'], people: ['nadia'] }), ME);
    expect([narrow.soon, narrow.later]).toEqual([
      ['/tasks/', '/people/nadia/'],
      [
        '/day-sheets',
        '/schedules',
        '/overview',
        '/task-list',
        '/visits',
        '/notices',
        '/tideline',
        '/team',
        '/workload',
        '/wallchart',
        '/colleagues',
        '/shifts',
        '/clients',
        '/schedules/timed-work',
      ],
    ]);
    expect(touchedBy(news({ topics: ['schedules'] }), ME).later).toEqual([
      '/schedules',
      '/people/',
      '/day-sheets',
      '/overview',
      '/task-list',
      '/visits',
      '/notices',
      '/tideline',
      '/team',
      '/workload',
      '/wallchart',
      '/colleagues',
      '/shifts',
      '/clients',
      '/schedules/timed-work',
    ]);
  });

  it('of a bell is for its person alone', () => {
    expect(touchedBy(news({ topics: ['bell'], people: ['nadia'], load: false }), ME).soon).toEqual([]);
    expect(touchedBy(news({ topics: ['bell'], people: ['nadia', 'ines'], load: false }), ME).soon).toEqual(['/bell']);
    expect(touchedBy(news({ topics: ['bell'], load: false }), ME).soon).toEqual(['/bell']);
  });

  it('of a template touches the library, and the workspace for its lists', () => {
    expect(touchedBy(news({ topics: ['templates'] }), ME).later).toEqual(['/templates', '/workspace']);
  });
});
