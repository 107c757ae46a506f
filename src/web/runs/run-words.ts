import type { Run } from '../../contract/index.ts';
import { dayOfIso, plural, sayDay } from '../../core/index.ts';

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
  if (from === null || to === null) return '';
  return `${sayDay(dayOfIso(from), today)} to ${sayDay(dayOfIso(to), today)}, ${plural(scheduleCount, 'schedule')}`;
}

/** What came of it. */
export function sayMade({ made, already, problems, state, total }: Run): string {
  const parts = [
    state === 'running' ? `${made} of ${total} made` : made === 0 ? 'nothing new' : `${made} made`,
    already > 0 ? `${already} there already` : '',
    problems.length > 0 ? `${plural(problems.length, 'schedule')} with a problem` : '',
    state === 'undone' ? 'taken back' : '',
  ];
  return parts.filter(Boolean).join(', ');
}

/** "2 s", "0.3 s" */
export function sayLength(milliseconds: number): string {
  return milliseconds < 950 ? `${(milliseconds / 1000).toFixed(1)} s` : `${Math.round(milliseconds / 1000)} s`;
}
