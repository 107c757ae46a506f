import { X } from 'lucide-react';
import { type Cover, type Group, groupKey, NOT_HERE, sayRoles } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ChoiceBlank } from '../../../kit/blanks.tsx';
import { Picker } from '../../../kit/picker.tsx';
import { COVER_WORDS, membersOf } from './who-rules.ts';

/** Whoever covers for those of an order who are not there. */
export function OrderCover({ cover, onChange }: { readonly cover: Cover; readonly onChange: (cover: Cover) => void }) {
  return (
    <>
      who is away or off is covered by{' '}
      <CoverBlank cover={cover} covers={['next', 'deputy', 'leastToDo', 'nobody']} onChange={onChange} />
    </>
  );
}

/** Whether days on which somebody has no hours are theirs as well. */
export function DaysOffBlank({
  daysOffToo,
  onChange,
}: {
  readonly daysOffToo: boolean;
  readonly onChange: (daysOffToo: boolean) => void;
}) {
  return (
    <ChoiceBlank
      label="On days on which they have no hours"
      value={daysOffToo ? 'too' : 'not'}
      options={[
        ['too', 'also on days off'],
        ['not', 'not on days off'],
      ]}
      onChange={(value) => onChange(value === 'too')}
    />
  );
}

export function CoverBlank({
  cover,
  covers,
  onChange,
}: {
  readonly cover: Cover;
  readonly covers: readonly Cover[];
  readonly onChange: (cover: Cover) => void;
}) {
  return (
    <ChoiceBlank
      label="Who covers"
      value={cover}
      options={covers.map((one) => [one, COVER_WORDS[one]] as const)}
      onChange={onChange}
    />
  );
}

type PersonPickerProps = { readonly label: string } & (
  | { readonly id: string; readonly onChoose: (id: string) => void }
  /** `none` is what nobody is called, where that can be chosen. */
  | { readonly id: string | null; readonly none: string; readonly onChoose: (id: string | null) => void }
);

export function PersonPicker(props: PersonPickerProps) {
  const { staffWith } = useWorkspace();
  return (
    <Picker
      label={props.label}
      chosen={props.id ?? ''}
      options={[
        ...('none' in props ? [{ key: '', name: props.none }] : []),
        ...staffWith(props.id).map((one) => ({ key: one.id, name: one.name, detail: sayRoles(one.roles) })),
      ]}
      onChoose={(key) => ('none' in props ? props.onChoose(key === '' ? null : key) : props.onChoose(key))}
    />
  );
}

const BY_NAME = 'people';

/** A role, a team, or people by name. */
export function GroupBlank({ group, onChange }: { readonly group: Group; readonly onChange: (group: Group) => void }) {
  const { roles, teams, people, staff, me } = useWorkspace();
  const chosen = group.of === 'people' ? BY_NAME : group.of === 'role' ? `role ${group.role}` : groupKey(group);
  const options = [
    ...roles.map((role) => ({ key: `role ${role}`, name: role, group: 'roles' })),
    ...teams.map((team) => ({ key: `team ${team}`, name: `team ${team}`, group: 'teams' })),
    { key: 'everyone', name: 'everyone' },
    { key: BY_NAME, name: 'these people' },
  ];
  const members = membersOf(group, staff);
  return (
    <>
      <Picker
        label="Of whom"
        chosen={chosen}
        options={options}
        onChoose={(key) => {
          if (key === BY_NAME) onChange({ of: 'people', ids: members.length > 0 ? members : [me.id] });
          else if (key === 'everyone') onChange({ of: 'everyone' });
          else if (key.startsWith('role '))
            onChange({
              of: 'role',
              role: key.slice(5),
              ...(group.of === 'role' && group.onShift ? { onShift: true } : {}),
            });
          else onChange({ of: 'team', team: key.slice(5) });
        }}
      />
      {group.of === 'role' && (
        <>
          {' '}
          <ChoiceBlank
            label="Whether they must be on shift"
            value={group.onShift ? 'on shift' : 'there'}
            options={[
              ['there', 'who is there'],
              ['on shift', 'who is on shift then'],
            ]}
            onChange={(value) =>
              onChange({ of: 'role', role: group.role, ...(value === 'on shift' ? { onShift: true } : {}) })
            }
          />
        </>
      )}
      {group.of === 'people' ? (
        <>
          {' '}
          {group.ids.map((id) => {
            const name = people.find((one) => one.id === id)?.name ?? NOT_HERE;
            return (
              <span
                key={id}
                className="mr-1.5 inline-flex items-center rounded-[3px] border border-line-2 px-1.5 leading-5.5"
              >
                {name}
                <button
                  type="button"
                  className="ml-1 cursor-pointer text-ink-2 hover:text-ink disabled:hidden"
                  aria-label={`Without ${name}`}
                  disabled={group.ids.length === 1}
                  onClick={() => onChange({ of: 'people', ids: group.ids.filter((one) => one !== id) })}
                >
                  <X size={12} aria-hidden />
                </button>
              </span>
            );
          })}
          <Picker
            label="Add a person"
            chosen=""
            placeholder="add a person"
            options={staff
              .filter(({ id }) => !group.ids.includes(id))
              .map((one) => ({ key: one.id, name: one.name, detail: sayRoles(one.roles) }))}
            onChoose={(id) => onChange({ of: 'people', ids: [...group.ids, id] })}
          />
        </>
      ) : (
        members.length === 0 && <b className="font-semibold">, who are nobody yet</b>
      )}
    </>
  );
}
