import { X } from 'lucide-react';
import { useMemo } from 'react';
import {
  ASSIGNMENT_KINDS,
  type AssignmentRule,
  type Cover,
  callNames,
  type DatesBetween,
  dayOfIso,
  type Group,
  givenTo,
  hasLeftBy,
  isoOfDay,
  rosterInForce,
  sayRoles,
  type TurnLength,
  type Turns,
  type Weekday,
  weekdayShort,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ChoiceBlank, DateBlank, Part } from '../../../kit/blanks.tsx';
import { Picker } from '../../../kit/picker.tsx';
import { sayShortDay } from '../../../kit/ways.ts';
import type { FormPartProps } from './form-part.tsx';
import { RosterList, type RosterPlace } from './roster-list.tsx';
import { SwapLines } from './swap-lines.tsx';
import { initialsOf } from './who-faces.ts';
import { beginning, COVER_WORDS, KIND_WORDS, moved, ofKind, withOrder } from './who-rules.ts';

interface WhoPartProps extends FormPartProps {
  readonly datesBetween: DatesBetween;
  /** The next date of each person, by their ids. */
  readonly nextOf: ReadonlyMap<string, number>;
  /** Whose dates stand out on the year. */
  readonly chosenId: string | null;
  readonly onChosen: (personId: string | null) => void;
}

/** Who does it, as a sentence: one of a few rules, and the blanks of the one that is chosen. */
export function WhoPart(props: WhoPartProps) {
  const { draft, onChange } = props;
  const { today, me, staff, roles } = useWorkspace();
  const { assignment: rule } = draft;
  const set = (assignment: AssignmentRule) => onChange({ ...draft, assignment });
  const around = {
    ...{ today, roles, meId: me.id },
    roleMembers: (role: string) => staff.filter((one) => one.roles.includes(role)).map(({ id }) => id),
  };
  const kinds = ASSIGNMENT_KINDS.filter(
    (kind) => kind !== 'usualPerson' || draft.clientId !== null || rule.kind === kind,
  );
  return (
    <Part name="Who">
      <fieldset className="flex flex-wrap items-baseline gap-x-2.5 gap-y-0 leading-6.5">
        <legend className="sr-only">Who does it</legend>
        {kinds.map((kind) => (
          <label
            key={kind}
            className="cursor-pointer border-b border-line-2 text-ink-2 hover:text-ink has-checked:border-b-2 has-checked:border-accent has-checked:font-semibold has-checked:text-ink has-focus-visible:outline-2 has-focus-visible:outline-accent"
          >
            <input
              type="radio"
              name="who"
              className="sr-only"
              checked={rule.kind === kind}
              onChange={() => set(ofKind(kind, rule, around))}
            />
            {KIND_WORDS[kind]}
          </label>
        ))}
      </fieldset>
      <RuleBlanks {...props} rule={rule} set={set} />
    </Part>
  );
}

interface BlanksProps extends WhoPartProps {
  readonly rule: AssignmentRule;
  readonly set: (rule: AssignmentRule) => void;
}

function RuleBlanks(props: BlanksProps) {
  const { rule, set } = props;
  switch (rule.kind) {
    case 'nobody':
      return (
        <div>
          <PersonPicker
            label="Who does it"
            id={null}
            none="nobody yet"
            onChoose={(personId: string | null) => set(givenTo(personId))}
          />{' '}
          does it: give it to someone before the first date
        </div>
      );
    case 'person':
      return (
        <div>
          <PersonPicker
            label="Who does it"
            id={rule.personId}
            onChoose={(personId: string) => set({ ...rule, personId })}
          />{' '}
          does it, <NamedRest rule={rule} set={set} />
        </div>
      );
    case 'usualPerson':
      return (
        <div>
          whoever looks after the client, and{' '}
          <PersonPicker
            label="Who does it where the client has nobody"
            id={rule.otherwiseId}
            none="nobody yet"
            onChoose={(otherwiseId: string | null) => set({ ...rule, otherwiseId })}
          />{' '}
          where nobody does, <NamedRest rule={rule} set={set} />
        </div>
      );
    case 'anyOf':
      return (
        <div>
          any one of <GroupBlank group={rule.group} onChange={(group) => set({ ...rule, group })} />: it stands with all
          of them until one takes it
        </div>
      );
    case 'leastToDo':
      return (
        <div>
          whoever of <GroupBlank group={rule.group} onChange={(group) => set({ ...rule, group })} /> has the least to do
          in that week, for their hours
        </div>
      );
    case 'inTurn':
      return <TurnBlanks {...props} rule={rule} />;
  }
}

type NamedRule = Extract<AssignmentRule, { kind: 'person' | 'usualPerson' }>;

/** Days off, and who takes over, of somebody who is named. */
function NamedRest({ rule, set }: { readonly rule: NamedRule; readonly set: (rule: AssignmentRule) => void }) {
  return (
    <>
      <ChoiceBlank
        label="On days on which they have no hours"
        value={rule.daysOffToo ? 'too' : 'not'}
        options={[
          ['too', 'also on days off'],
          ['not', 'not on days off'],
        ]}
        onChange={(value) => set({ ...rule, daysOffToo: value === 'too' })}
      />
      ; who is away is covered by{' '}
      <CoverBlank cover={rule.cover} covers={['deputy', 'nobody']} onChange={(cover) => set({ ...rule, cover })} />
    </>
  );
}

function CoverBlank({
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

function PersonPicker(props: PersonPickerProps) {
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
function GroupBlank({ group, onChange }: { readonly group: Group; readonly onChange: (group: Group) => void }) {
  const { roles, teams, people, staff, me } = useWorkspace();
  const chosen = group.of === 'people' ? BY_NAME : `${group.of} ${group.of === 'role' ? group.role : group.team}`;
  const options = [
    ...roles.map((role) => ({ key: `role ${role}`, name: role, group: 'roles' })),
    ...teams.map((team) => ({ key: `team ${team}`, name: `team ${team}`, group: 'teams' })),
    { key: BY_NAME, name: 'these people' },
  ];
  const membersOf = (of: Group) =>
    of.of === 'people'
      ? of.ids
      : staff
          .filter((one) => (of.of === 'role' ? one.roles.includes(of.role) : one.team === of.team))
          .map(({ id }) => id);
  const members = membersOf(group);
  return (
    <>
      <Picker
        label="Of whom"
        chosen={chosen}
        options={options}
        onChoose={(key) => {
          if (key === BY_NAME) onChange({ of: 'people', ids: members.length > 0 ? members : [me.id] });
          else if (key.startsWith('role ')) onChange({ of: 'role', role: key.slice(5) });
          else onChange({ of: 'team', team: key.slice(5) });
        }}
      />
      {group.of === 'people' ? (
        <>
          {' '}
          {group.ids.map((id) => {
            const name = people.find((one) => one.id === id)?.name ?? 'somebody who is not here';
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

interface TurnBlanksProps extends BlanksProps {
  readonly rule: Extract<AssignmentRule, { kind: 'inTurn' }>;
}

function TurnBlanks({ rule, set, datesBetween, nextOf, chosenId, onChosen }: TurnBlanksProps) {
  const { today, people, staff, roles } = useWorkspace();
  const { turns } = rule;
  const roster = rosterInForce(turns, today);
  const inits = useMemo(() => initialsOf(roster.people, callNames(people)), [roster.people, people]);
  const setTurns = (next: Turns) => set({ ...rule, turns: next });
  const order = (ids: readonly string[]) => setTurns(withOrder(turns, today, ids, datesBetween));
  const places = roster.people.map((personId): RosterPlace => {
    const person = people.find(({ id }) => id === personId);
    const next = nextOf.get(personId);
    return {
      personId,
      name: person?.name ?? 'somebody who is not here',
      initial: inits.get(personId) ?? '?',
      next: next === undefined ? 'no date within a year' : sayShortDay(next),
      trouble: person && !hasLeftBy(person, today) ? null : 'has left',
    };
  });
  const later = turns.rosters.filter(({ from }) => from > isoOfDay(today) && from > roster.from);
  return (
    <>
      <RosterList
        places={places}
        chosenId={chosenId}
        onChoose={onChosen}
        onMove={(from, to) => order(moved(roster.people, from, to))}
        onDrop={(index) => order(roster.people.filter((_, i) => i !== index))}
      />
      <div className="mt-1">
        <Picker
          label="Add a person to the turns"
          chosen=""
          placeholder="Add a person"
          options={[
            ...staff.map((one) => ({
              key: one.id,
              name: one.name,
              detail: sayRoles(one.roles),
              group: roster.people.includes(one.id) ? 'once more' : 'people',
            })),
            ...roles.map((role) => ({ key: `role ${role}`, name: `all of ${role}`, group: 'roles' })),
          ]}
          onChoose={(key) => {
            const ids = key.startsWith('role ')
              ? staff
                  .filter((one) => one.roles.includes(key.slice(5)) && !roster.people.includes(one.id))
                  .map(({ id }) => id)
              : [key];
            if (ids.length > 0) order([...roster.people, ...ids]);
          }}
        />
      </div>
      <div>
        moves on <LengthBlanks length={turns.length} onChange={(length) => setTurns({ ...turns, length })} />
      </div>
      <div>
        from{' '}
        <DateBlank
          label="The order begins on"
          value={dayOfIso(roster.from)}
          when="left"
          onChange={(from) => setTurns(beginning(turns, from, today, roster.people[0] ?? ''))}
        />{' '}
        on, first{' '}
        <ChoiceBlank
          label="Who begins"
          value={roster.people[0] ?? ''}
          options={[...new Set(roster.people)].map(
            (id) => [id, people.find((one) => one.id === id)?.name ?? '…'] as const,
          )}
          onChange={(id) => setTurns(beginning(turns, dayOfIso(roster.from), today, id))}
        />
      </div>
      <div>
        who is away or off is covered by{' '}
        <CoverBlank
          cover={rule.cover}
          covers={['next', 'deputy', 'leastToDo', 'nobody']}
          onChange={(cover) => set({ ...rule, cover })}
        />
        , and the order goes on as it was
      </div>
      {later.map((one) => (
        <div key={one.from}>
          another order from {sayShortDay(dayOfIso(one.from))}{' '}
          <button
            type="button"
            className="link-line"
            onClick={() => setTurns({ ...turns, rosters: turns.rosters.filter((other) => other !== one) })}
          >
            Take it out
          </button>
        </div>
      ))}
      <SwapLines turns={turns} datesBetween={datesBetween} onChange={setTurns} />
    </>
  );
}

const WEEKDAYS: readonly Weekday[] = [1, 2, 3, 4, 5, 6, 7];

function LengthBlanks({
  length,
  onChange,
}: {
  readonly length: TurnLength;
  readonly onChange: (length: TurnLength) => void;
}) {
  return (
    <>
      <ChoiceBlank
        label="Turns move on"
        value={length.per}
        options={[
          ['occurrence', 'each time'],
          ['week', 'each week'],
          ['month', 'each month'],
        ]}
        onChange={(per) => onChange(per === 'week' ? { per, on: 1 } : { per })}
      />
      {length.per === 'week' && (
        <>
          {' '}
          on{' '}
          <ChoiceBlank
            label="The weekday on which turns move on"
            value={length.on}
            options={WEEKDAYS.map((day) => [day, weekdayShort(day)] as const)}
            onChange={(on) => onChange({ per: 'week', on })}
          />
        </>
      )}
    </>
  );
}
