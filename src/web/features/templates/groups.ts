import { groupKey, type UnnamedGroup } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';

/** Of whom somebody may be meant without a name: roles, those of them on shift, teams, everyone. @param chosen stays, though it has left the lists */
export function useGroups(chosen: UnnamedGroup | null): readonly UnnamedGroup[] {
  const { roles, teams } = useWorkspace();
  const groups: UnnamedGroup[] = [
    ...roles.flatMap((role): UnnamedGroup[] => [
      { of: 'role', role },
      { of: 'role', role, onShift: true },
    ]),
    ...teams.map((team): UnnamedGroup => ({ of: 'team', team })),
    { of: 'everyone' },
  ];
  const isThere = chosen === null || groups.some((one) => groupKey(one) === groupKey(chosen));
  return isThere ? groups : [...groups, chosen];
}
