import { useMemo } from 'react';
import {
  type Reach,
  runEndpoints,
  type Schedule,
  type ScheduleInput,
  type SchedulePatch,
  type Sync,
  scheduleEndpoints,
} from '../../../contract/index.ts';
import { plural } from '../../../core/index.ts';
import { sayDone, sayTrouble } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh, useWholeList } from '../../kit/answer.ts';
import { type Answer, addressOf, ask } from '../../kit/api.ts';

type Page = Answer<typeof scheduleEndpoints.list>;

/** All schedules of the workspace, page by page. */
export function useSchedules() {
  const { data, error, mutate } = useWholeList<Page>((after) =>
    addressOf(scheduleEndpoints.list, { query: after === null ? {} : { after } }),
  );
  const schedules = useMemo(() => data?.flatMap((page) => page.schedules), [data]);
  return { schedules, error, retry: () => void mutate() };
}

export function useSchedule(scheduleId: string | null) {
  return useAnswer(scheduleEndpoints.one, scheduleId === null ? null : { params: { scheduleId } });
}

export function useLastRun() {
  return useAnswer(runEndpoints.last, {});
}

type Saved = Answer<typeof scheduleEndpoints.create>;

export function useScheduleActions() {
  const refresh = useRefresh();
  const keep = async (asked: Promise<Saved>, said: (saved: Saved) => string): Promise<Schedule> => {
    const saved = await asked;
    sayDone(said(saved), saved.changeId);
    // Not waited for: whoever has saved may be on the way to another page already.
    void refresh('/schedules', '/tideline', '/templates', '/people/');
    return saved.schedule;
  };
  return {
    /** @throws ProblemError when it is refused */
    impact: (input: ScheduleInput & { version: number }, scheduleId: string, reach: Reach) =>
      ask(scheduleEndpoints.impact, { params: { scheduleId }, body: { ...input, reach } }),
    /** @throws ProblemError when it is refused */
    save: (input: ScheduleInput & { version: number }, scheduleId: string | null, reach?: Reach) =>
      scheduleId === null
        ? keep(
            ask(scheduleEndpoints.create, { body: input }),
            ({ schedule, tasks }) => `“${schedule.template.name}” is scheduled. ${saySync(tasks)}`,
          )
        : keep(
            ask(scheduleEndpoints.change, { params: { scheduleId }, body: { ...input, ...(reach ? { reach } : {}) } }),
            ({ tasks }) => `Saved. ${saySync(tasks)}`,
          ),
    /** @throws ProblemError when it is refused */
    impactOfSeveral: (changes: readonly SchedulePatch[], reach: Reach) =>
      ask(scheduleEndpoints.impactOfSeveral, { body: { changes: [...changes], reach } }),
    /** @throws ProblemError when it is refused */
    async saveSeveral(changes: readonly SchedulePatch[], said: string, reach?: Reach): Promise<void> {
      const { tasks, changeId } = await ask(scheduleEndpoints.changeSeveral, {
        body: { changes: [...changes], ...(reach ? { reach } : {}) },
      });
      sayDone(`${said} ${saySync(tasks)}`, changeId);
      void refresh('/schedules', '/tideline', '/templates', '/people/');
    },
    async runNow(): Promise<void> {
      try {
        const { run } = await ask(runEndpoints.runNow);
        await refresh('/schedules', '/tideline', '/people/', '/runs');
        const problems =
          run.problems.length > 0 ? ` ${plural(run.problems.length, 'schedule')} could not be planned.` : '';
        sayDone(
          `${run.made === 0 ? 'Nothing was missing' : `Made ${plural(run.made, 'task')}`}; ${run.already} were there already.${problems}`,
        );
      } catch (error) {
        sayTrouble(error);
      }
    },
  };
}

/** What a save did to tasks, in a sentence. */
export function saySync({ made, changed, removed, kept }: Sync): string {
  const parts = [
    made > 0 && `${plural(made, 'task')} made`,
    changed > 0 && `${changed} changed`,
    removed > 0 && `${removed} taken back`,
    kept > 0 && `${kept} left alone as ${kept === 1 ? 'it shows' : 'they show'} already`,
  ].filter((part): part is string => part !== false);
  return parts.length > 0 ? `${parts.join(', ')}.` : 'No task changes for now.';
}
