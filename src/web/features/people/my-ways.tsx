import { useState } from 'react';
import type { OwnWaysSet, StartPlace } from '../../../contract/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank } from '../../kit/blanks.tsx';
import { CLOCK_WORDS, DATE_ORDER_WORDS, WEEK_START_WORDS } from '../../kit/ways-words.ts';
import { useChangeMyWays } from './change-my-ways.ts';

/** As the workspace has it. */
const AS_ALL = '';

/** A view of tasks, which is chosen where it is. */
const A_VIEW = 'view';

const START_WORDS: readonly (readonly [place: StartPlace, words: string])[] = [
  ['overview', 'the morning page'],
  ['day-sheet', 'your day sheet'],
  ['calls', 'your calls'],
  ['schedules', 'Schedules'],
  ['tasks', 'Tasks'],
  ['wallchart', 'the wallchart'],
  ['workload', 'Workload'],
  ['logbook', 'the logbook'],
];

/** How whoever is signed in sees dates and times; each choice holds at once, and on every page. */
export function MyWays() {
  const { ways, myWays, may } = useWorkspace();
  const { startsAt } = myWays;
  const isView = startsAt !== null && typeof startsAt === 'object';
  const change = useChangeMyWays();
  const [busy, setBusy] = useState(false);
  const set = (chosen: Partial<OwnWaysSet>) => {
    setBusy(true);
    change(chosen)
      .catch(sayTrouble)
      .finally(() => setBusy(false));
  };
  return (
    <fieldset disabled={busy} className="mt-7 border-t border-line-2 pt-3">
      <h2 className="text-[17px] leading-5.5 text-primary">Dates and times</h2>
      <p className="mt-1 text-row leading-7">
        For you a week begins on a{' '}
        <Way
          label="Day on which a week begins for you"
          chosen={myWays.weekStarts}
          ofAll={ways.weekStarts}
          options={WEEK_START_WORDS}
          onChange={(weekStarts) => set({ weekStarts })}
        />
        , dates are shown as{' '}
        <Way
          label="How dates are shown to you"
          chosen={myWays.dateOrder}
          ofAll={ways.dateOrder}
          options={DATE_ORDER_WORDS}
          onChange={(dateOrder) => set({ dateOrder })}
        />
        , times as{' '}
        <Way
          label="How times are shown to you"
          chosen={myWays.clock}
          ofAll={ways.clock}
          options={CLOCK_WORDS}
          onChange={(clock) => set({ clock })}
        />
      </p>
      <h2 className="mt-5 text-[17px] leading-5.5 text-primary">Where you begin</h2>
      <p className="mt-1 text-row leading-7">
        You begin with{' '}
        <ChoiceBlank<StartPlace | typeof AS_ALL | typeof A_VIEW>
          label="What you begin with"
          value={isView ? A_VIEW : ((startsAt as StartPlace | null) ?? AS_ALL)}
          options={[
            [AS_ALL, `${may('plan') ? 'the morning page' : 'your day sheet'}, as usual`],
            ...START_WORDS.filter(([place]) => place !== 'overview' || may('plan')),
            ...(isView ? ([[A_VIEW, 'a view of tasks']] as const) : []),
          ]}
          onChange={(place) => {
            if (place !== A_VIEW) set({ startsAt: place === AS_ALL ? null : place });
          }}
        />
        {!isView && <span className="ml-2 text-note text-ink-2">or a view of your own: open it on Tasks</span>}
      </p>
    </fieldset>
  );
}

interface WayProps<T extends string | number> {
  readonly label: string;
  readonly chosen: T | null;
  readonly ofAll: T;
  readonly options: readonly (readonly [way: T, words: string])[];
  readonly onChange: (chosen: T | null) => void;
}

function Way<T extends string | number>({ label, chosen, ofAll, options, onChange }: WayProps<T>) {
  const usual = options.find(([way]) => way === ofAll)?.[1] ?? '';
  return (
    <ChoiceBlank<T | typeof AS_ALL>
      label={label}
      value={chosen ?? AS_ALL}
      options={[[AS_ALL, `${usual}, as everybody here`], ...options]}
      onChange={(way) => onChange(way === AS_ALL ? null : (way as T))}
    />
  );
}
