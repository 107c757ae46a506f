import { useState } from 'react';
import { workspaceAddresses } from '../../../contract/addresses.ts';
import type { OwnWaysSet } from '../../../contract/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useRefresh } from '../../kit/answer.ts';
import { ask } from '../../kit/api.ts';
import { ChoiceBlank } from '../../kit/blanks.tsx';
import { CLOCK_WORDS, DATE_ORDER_WORDS, WEEK_START_WORDS } from '../../kit/ways-words.ts';

/** As the workspace has it. */
const AS_ALL = '';

/** How whoever is signed in sees dates and times; each choice holds at once, and on every page. */
export function MyWays() {
  const { ways, myWays } = useWorkspace();
  const refresh = useRefresh();
  const [busy, setBusy] = useState(false);
  const set = (chosen: Partial<OwnWaysSet>) => {
    setBusy(true);
    ask(workspaceAddresses.myWays, { body: { ...myWays, ...chosen } })
      .then(() => refresh('/workspace'))
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
