import { type AskingSchedule, OVERVIEW_LINES } from '../../contract/index.ts';
import { isoOfDay } from '../../core/index.ts';
import { oncePer } from '../platform/latest.ts';
import type { Scope } from '../platform/scope.ts';
import { type KeptLine, keptLines } from '../schedules/index.ts';

/** Those that can't be planned stand before those that wait, and these before what has come to its end. */
const ORDER = ['problem', 'waits', 'ended'] as const satisfies readonly AskingSchedule['because'][];

/** Schedules that somebody has to look at, the first few of them. */
export async function askingSchedules(
  scope: Scope,
  waits: readonly { readonly scheduleId: string; readonly days: number }[],
): Promise<{ all: number; count: number; lines: AskingSchedule[] }> {
  const lines = await keptLines(scope);
  const waiting = waits.flatMap(({ scheduleId, days }) => {
    const line = lines.get(scheduleId);
    return line && line.state === 'running' ? [{ ...told(line, 'waits'), days }] : [];
  });
  const all = [...asking(lines), ...waiting].sort((a, b) => ORDER.indexOf(a.because) - ORDER.indexOf(b.because));
  return { all: lines.size, count: all.length, lines: all.slice(0, OVERVIEW_LINES) };
}

const asking = oncePer((lines: ReadonlyMap<string, KeptLine>): AskingSchedule[] =>
  [...lines.values()]
    .flatMap((line): AskingSchedule[] => {
      if (line.state === 'problem') return [{ ...told(line, 'problem'), said: line.problem }];
      // Its last date lies so few days back that somebody may not have noticed.
      const last = line.dates.at(-1);
      if (line.state === 'ended' && last !== undefined) return [{ ...told(line, 'ended'), on: isoOfDay(last) }];
      return [];
    })
    .sort((a, b) => a.name.localeCompare(b.name) || (a.id < b.id ? -1 : 1)),
);

function told({ row }: KeptLine, because: AskingSchedule['because']): AskingSchedule {
  return {
    id: row.id,
    name: row.templateName,
    about: row.assetName ?? row.clientName,
    because,
    said: null,
    on: null,
    days: null,
  };
}
