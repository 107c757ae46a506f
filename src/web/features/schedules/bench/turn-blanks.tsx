import { useMemo } from 'react';
import {
  type AssignmentRule,
  callNames,
  type DatesBetween,
  dayOfIso,
  hasLeftBy,
  isoOfDay,
  NOT_HERE,
  rosterInForce,
  sayRoles,
  type TurnLength,
  type Turns,
  type Weekday,
  weekdayShort,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ChoiceBlank, DateBlank } from '../../../kit/blanks.tsx';
import { useNewest } from '../../../kit/newest.ts';
import { Picker } from '../../../kit/picker.tsx';
import { sayShortDay } from '../../../kit/ways.ts';
import { RosterList, type RosterPlace } from './roster-list.tsx';
import { SwapLines } from './swap-lines.tsx';
import { initialsOf } from './who-faces.ts';
import { OrderCover } from './who-pickers.tsx';
import { beginning, membersOf, moved, withOrder } from './who-rules.ts';

export interface TurnsAround {
  readonly datesBetween: DatesBetween;
  /** The next date of each person, by their ids. */
  readonly nextOf: ReadonlyMap<string, number>;
  /** Whose dates stand out on the year. */
  readonly chosenId: string | null;
  readonly onChosen: (personId: string | null) => void;
}

interface TurnBlanksProps extends TurnsAround {
  readonly set: (rule: AssignmentRule) => void;
  readonly rule: Extract<AssignmentRule, { kind: 'inTurn' }>;
}

/** The order of turns, when they move on, from when, who covers, and swaps. */
export function TurnBlanks({ rule, set, datesBetween, nextOf, chosenId, onChosen }: TurnBlanksProps) {
  const { today, people, staff, roles } = useWorkspace();
  const { turns } = rule;
  const roster = rosterInForce(turns, today);
  const inits = useMemo(() => initialsOf(roster.people, callNames(people)), [roster.people, people]);
  const setTurns = (next: Turns) => set({ ...rule, turns: next });
  const order = (ids: readonly string[]) => setTurns(withOrder(turns, today, ids, datesBetween));
  const places = useMemo(
    () =>
      roster.people.map((personId): RosterPlace => {
        const person = people.find(({ id }) => id === personId);
        const next = nextOf.get(personId);
        return {
          personId,
          name: person?.name ?? NOT_HERE,
          initial: inits.get(personId) ?? '?',
          next: next === undefined ? 'no date within a year' : sayShortDay(next),
          trouble: person && !hasLeftBy(person, today) ? null : 'has left',
        };
      }),
    [roster.people, people, nextOf, inits, today],
  );
  // A long order is not drawn with every key that is typed above it.
  const choose = useNewest(onChosen);
  const move = useNewest((from: number, to: number) => order(moved(roster.people, from, to)));
  const drop = useNewest((index: number) => order(roster.people.filter((_, i) => i !== index)));
  const later = turns.rosters.filter(({ from }) => from > isoOfDay(today) && from > roster.from);
  return (
    <>
      <RosterList places={places} chosenId={chosenId} onChoose={choose} onMove={move} onDrop={drop} />
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
              ? membersOf({ of: 'role', role: key.slice(5) }, staff).filter((id) => !roster.people.includes(id))
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
        <OrderCover cover={rule.cover} onChange={(cover) => set({ ...rule, cover })} />, and the order goes on as it was
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
      {length.per === 'occurrence' && (
        <>
          ; a date that is skipped{' '}
          <ChoiceBlank
            label="The turn of a date that is skipped"
            value={length.skipped ?? 'used up'}
            options={[
              ['used up', 'uses up its turn'],
              ['passes on', 'passes its turn on'],
            ]}
            onChange={(skipped) =>
              onChange(skipped === 'passes on' ? { per: 'occurrence', skipped } : { per: 'occurrence' })
            }
          />
        </>
      )}
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
