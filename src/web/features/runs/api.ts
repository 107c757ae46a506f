import { runAddresses } from '../../../contract/addresses.ts';
import type { FillInput, Run } from '../../../contract/index.ts';
import { sayDone, sayTrouble } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../kit/answer.ts';
import { ask } from '../../kit/api.ts';

export function useRuns() {
  return useAnswer(runAddresses.list, {});
}

export function useRun(runId: string) {
  return useAnswer(runAddresses.one, { params: { runId } });
}

export function useFill() {
  const refresh = useRefresh();
  return {
    /** @throws ProblemError when it is refused */
    rehearse: (input: FillInput) => ask(runAddresses.rehearse, { body: input }),
    /** @throws ProblemError when it is refused */
    start: async (input: FillInput): Promise<Run> => {
      const { run } = await ask(runAddresses.fill, { body: input });
      void refresh('/runs');
      return run;
    },
    /** @throws ProblemError when it is refused */
    runOne: async (scheduleId: string, asOf: string, isRehearsal: boolean) => {
      const answer = await ask(runAddresses.runOne, { params: { scheduleId }, body: { asOf, isRehearsal } });
      if (!isRehearsal) void refresh('/runs', '/schedules', '/tideline', '/people/');
      return answer;
    },
    undo: async ({ id: runId }: Run) => {
      try {
        sayDone((await ask(runAddresses.undo, { params: { runId } })).said);
        void refresh('/runs', '/schedules', '/tideline', '/people/');
      } catch (error) {
        sayTrouble(error);
      }
    },
  };
}
