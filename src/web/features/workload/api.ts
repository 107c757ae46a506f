import { workloadAddresses } from '../../../contract/addresses.ts';
import type { Evenable, LoadUnit } from '../../../contract/index.ts';
import { plural } from '../../../core/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../kit/answer.ts';
import { ask } from '../../kit/api.ts';

/** @param site of whose work alone; null for all work */
export const useWorkload = (from: string | null, by: LoadUnit, site: string | null) =>
  useAnswer(workloadAddresses.load, {
    query: { by, ...(from === null ? {} : { from }), ...(site === null ? {} : { site }) },
  });

/** @param personId null for what is nobody's */
export const useCell = (personId: string | null, from: string, by: LoadUnit, site: string | null) =>
  useAnswer(workloadAddresses.cell, {
    query: { from, by, ...(personId === null ? {} : { person: personId }), ...(site === null ? {} : { site }) },
  });

export type Among = { readonly role: string } | { readonly team: string };

export const useEvenable = (among: Among, week: string) =>
  useAnswer(workloadAddresses.evenable, { query: { week, ...among } });

/** Gives tasks to others in one go. @throws ProblemError when something has changed since */
export function useMoves() {
  const refresh = useRefresh();
  return async (moves: readonly { readonly task: Evenable['tasks'][number]; readonly to: string }[]) => {
    const body = { moves: moves.map(({ task: { id, version }, to }) => ({ id, version, to })) };
    const { moved, changeId } = await ask(workloadAddresses.move, { body });
    await refresh('/workload', '/people/', '/tasks/', '/schedules', '/tideline', '/team', '/colleagues');
    sayDone(`${plural(moved, 'task')} given to others.`, changeId);
  };
}
