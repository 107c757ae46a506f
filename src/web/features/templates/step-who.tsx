import { groupKey, type StepAssignee, sayGroup, sayRoles } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { Picker } from '../../kit/picker.tsx';
import { useGroups } from './groups.ts';

interface StepWhoProps {
  readonly label: string;
  readonly assignee: StepAssignee;
  readonly onChange: (assignee: StepAssignee) => void;
}

const OF_GROUPS = [
  ['anyOf', 'any of', 'any one of'],
  ['leastToDo', 'least to do of', 'whoever has the least to do'],
] as const;

/** Who does a task of its own in a set: whoever has the set, somebody by name, somebody of a role or a team, the client’s usual person or own contact, or nobody yet. */
export function StepWho({ label, assignee, onChange }: StepWhoProps) {
  const { people, staffWith } = useWorkspace();
  const personId = assignee.by === 'person' ? assignee.personId : null;
  const groups = useGroups('group' in assignee ? assignee.group : null);
  const ways = new Map<string, { readonly name: string; readonly assignee: StepAssignee; readonly group?: string }>([
    ['set', { name: 'whoever has the set', assignee: { by: 'set' } }],
    ['nobody', { name: 'nobody yet', assignee: { by: 'nobody' } }],
    ['usualPerson', { name: 'the client’s usual person', assignee: { by: 'usualPerson' } }],
    ['client', { name: 'the client’s own contact', assignee: { by: 'client' } }],
    ...staffWith(personId).map(
      ({ id, name }) => [id, { name, assignee: { by: 'person', personId: id }, group: 'by name' }] as const,
    ),
    ...OF_GROUPS.flatMap(([by, called, heading]) =>
      groups.map(
        (group) =>
          [
            `${by} ${groupKey(group)}`,
            { name: `${called} ${sayGroup(group, { people })}`, assignee: { by, group }, group: heading },
          ] as const,
      ),
    ),
  ]);
  const rolesOf = new Map(people.map((one) => [one.id, sayRoles(one.roles)]));
  return (
    <Picker
      label={label}
      chosen={personId ?? ('group' in assignee ? `${assignee.by} ${groupKey(assignee.group)}` : assignee.by)}
      options={[...ways].map(([key, { name, group }]) => ({
        key,
        name,
        ...(group === undefined ? {} : { group }),
        ...(rolesOf.has(key) ? { detail: rolesOf.get(key) ?? '' } : {}),
      }))}
      onChoose={(key) => {
        const way = ways.get(key);
        if (way) onChange(way.assignee);
      }}
    />
  );
}
