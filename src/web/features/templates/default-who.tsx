import { type DefaultRule, givenTo, groupKey, sayRoles, sayRule } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { Picker } from '../../kit/picker.tsx';
import { useGroups } from './groups.ts';

interface DefaultWhoProps {
  readonly label?: string;
  readonly rule: DefaultRule;
  readonly onChange: (rule: DefaultRule) => void;
}

/** Which rule it is, and whom it names: what it says besides stays with it. */
function keyOf(rule: DefaultRule): string {
  if ('group' in rule) return `${rule.kind} ${groupKey(rule.group)}`;
  return rule.kind === 'person' ? rule.personId : rule.kind;
}

/** Who does the work of a template, unless a schedule says otherwise. */
export function DefaultWho({ label = 'Who does it by default', rule, onChange }: DefaultWhoProps) {
  const { people, staffWith, today } = useWorkspace();
  const groups = useGroups('group' in rule ? rule.group : null);
  const personId = rule.kind === 'person' ? rule.personId : null;
  const ways: { readonly rule: DefaultRule; readonly group?: string; readonly detail?: string }[] = [
    { rule: { v: 1, kind: 'nobody' } },
    { rule: { v: 1, kind: 'usualPerson', otherwiseId: null, daysOffToo: true, cover: 'deputy' } },
    { rule: { v: 1, kind: 'client' } },
    ...staffWith(personId).map(({ id, roles }) => ({
      rule: givenTo(id),
      group: 'by name',
      detail: sayRoles(roles),
    })),
    ...groups.map((group) => ({ rule: { v: 1, kind: 'anyOf', group } as const, group: 'any one of them' })),
    ...groups.map((group) => ({
      rule: { v: 1, kind: 'eachOf', group, daysOffToo: true } as const,
      group: 'each of them',
    })),
    ...groups.map((group) => ({
      rule: { v: 1, kind: 'leastToDo', group } as const,
      group: 'whoever has the least to do',
    })),
  ];
  const chosen = keyOf(rule);
  return (
    <Picker
      label={label}
      chosen={chosen}
      chosenName={sayRule(rule, { people, today })}
      options={ways.map((way) => ({
        key: keyOf(way.rule),
        name: sayRule(way.rule, { people, today }),
        ...(way.group === undefined ? {} : { group: way.group }),
        ...(way.detail === undefined ? {} : { detail: way.detail }),
      }))}
      onChoose={(key) => {
        const way = ways.find((one) => keyOf(one.rule) === key);
        if (way && key !== chosen) onChange(way.rule);
      }}
    />
  );
}
