import type { Run } from '../../../contract/index.ts';
import { dayOfIso, plural } from '../../../core/index.ts';
import { sayDay } from '../../kit/ways.ts';

const WHY: Readonly<Record<Run['why'], string>> = {
  daily: 'daily',
  startup: 'server start',
  byHand: 'by hand',
  fill: 'fill',
};

/** "daily", "fill by Ines Calloway" */
export function sayWhy({ why, by }: Pick<Run, 'why' | 'by'>): string {
  return by === null ? WHY[why] : `${WHY[why]} by ${by}`;
}

/** What a run was about: the period of a fill and its schedules, or nothing. */
export function sayPeriod({ from, to, scheduleCount }: Run, today: number): string {
  if (from === null) return '';
  if (to === null) return `one schedule, as of ${sayDay(dayOfIso(from), today)}`;
  return `${sayDay(dayOfIso(from), today)} to ${sayDay(dayOfIso(to), today)}, ${plural(scheduleCount, 'schedule')}`;
}

/** What came of it. */
export function sayMade({ made, already, problemCount, leftOut, lapsed, state, total }: Run): string {
  const parts = [
    state === 'running' ? `${made} of ${total} made` : made === 0 ? 'nothing new' : `${made} made`,
    already > 0 ? `${already} there already` : '',
    lapsed > 0 ? `${lapsed} lapsed` : '',
    leftOut.length > 0 ? `left out: ${sayLeftOut(leftOut)}` : '',
    problemCount > 0 ? `${plural(problemCount, 'schedule')} with a problem` : '',
    state === 'undone' ? 'taken back' : '',
  ];
  return parts.filter(Boolean).join(', ');
}

const LEFT_OUT_WORDS: Readonly<Record<Run['leftOut'][number]['because'], string>> = {
  paused: 'paused',
  'day off': 'on a day off',
  closed: 'in a closed season',
  skipped: 'skipped by hand',
  'same day as another': 'on the same day as another',
  deleted: 'deleted on purpose',
};

/** "8 paused, 2 skipped by hand" */
export function sayLeftOut(leftOut: readonly Pick<Run['leftOut'][number], 'because' | 'dates'>[]): string {
  const sums = new Map<string, number>();
  for (const { because, dates } of leftOut)
    sums.set(LEFT_OUT_WORDS[because], (sums.get(LEFT_OUT_WORDS[because]) ?? 0) + dates);
  return [...sums].map(([words, dates]) => `${dates} ${words}`).join(', ');
}

/** Whether a run can be taken back: a fill, or the run of one schedule. Others make what is due anyway. */
export function canTakeBack({ why, state, scheduleCount }: Run): boolean {
  return state === 'done' && (why === 'fill' || scheduleCount > 0);
}

/** "2 s", "0.3 s" */
export function sayLength(milliseconds: number): string {
  return milliseconds < 950 ? `${(milliseconds / 1000).toFixed(1)} s` : `${Math.round(milliseconds / 1000)} s`;
}
