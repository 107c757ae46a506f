import { useState } from 'react';
import { dayOfIso, isoOfDay, joinAnd, plural, type QuotaDeed } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { ChoiceBlank, DateBlank } from '../../kit/blanks.tsx';
import { useTrying } from '../../kit/use-trying.ts';
import { useCallActions, useSeveralQuotasLook } from './api.ts';
import { ChangedWeeksTable } from './changed-weeks.tsx';

interface SeveralQuotasProps {
  readonly ids: readonly string[];
  readonly onDone: () => void;
}

const VERBS: Readonly<Record<QuotaDeed['kind'], string>> = { pause: 'Pause', goOn: 'Go on with', end: 'End' };
const DONE: Readonly<Record<QuotaDeed['kind'], string>> = {
  pause: 'paused',
  goOn: 'going on again',
  end: 'given a last day',
};

/** What is done with the chosen quotas, and what that changes, by name and week, before it is done. */
export function SeveralQuotas({ ids, onDone }: SeveralQuotasProps) {
  const today = useToday();
  const [deed, setDeed] = useState<QuotaDeed>({ kind: 'pause', on: isoOfDay(today + 1) });
  const { look, problem, isOfNow } = useSeveralQuotasLook({ ids: [...ids], deed });
  const { several } = useCallActions();
  const { busy, trying } = useTrying();
  const count = look?.quotas.length ?? 0;
  const save = () =>
    trying(async () => {
      if (!look) return;
      const of = look.quotas.map(({ id, version }) => ({ id, version }));
      await several(of, deed, `${plural(count, 'quota')} ${DONE[deed.kind]}.`);
      onDone();
    });
  return (
    <section
      className="mt-auto border-t border-line-2 bg-base-200 px-5 py-3 text-row max-[720px]:px-4"
      aria-label="What is done with the chosen quotas"
    >
      <p className="leading-8">
        {plural(ids.length, 'quota')} chosen:{' '}
        <ChoiceBlank
          label="What is done with them"
          value={deed.kind}
          options={[
            ['pause', 'paused from'],
            ['goOn', 'going on again from'],
            ['end', 'ending with the lists of'],
          ]}
          onChange={(kind) => setDeed({ ...deed, kind })}
        />{' '}
        <DateBlank
          label="On which day"
          value={dayOfIso(deed.on)}
          onChange={(day) => setDeed({ ...deed, on: isoOfDay(day) })}
        />
      </p>
      {problem && (
        <p className="text-late" role="alert">
          {problem.problem.errors?.map(({ message }) => message).join(' ') ?? problem.message}
        </p>
      )}
      {look && (
        <div className={isOfNow ? '' : 'opacity-60'}>
          {look.same.length > 0 && (
            <p className="text-ink-2">Nothing changes with {joinAnd(look.same.map(({ name }) => name))}.</p>
          )}
          {look.quotas.map(({ id, name, changed }) => (
            <div key={id} className="mt-1.5">
              <h3 className="font-semibold">{name}</h3>
              {changed.length === 0 ? (
                <p className="text-ink-2">No figure of the coming six weeks becomes another.</p>
              ) : (
                <ChangedWeeksTable of={changed} caption={`What changes with ${name}`} />
              )}
            </div>
          ))}
        </div>
      )}
      <p className="mt-3 flex items-center gap-x-3">
        <button
          type="button"
          className="btn btn-primary"
          disabled={busy || count === 0 || !isOfNow || problem !== null}
          onClick={() => void save()}
        >
          {VERBS[deed.kind]} {plural(count, 'quota')}
        </button>
        <button type="button" className="link-line" onClick={onDone}>
          Leave them
        </button>
        <span className="text-ink-2">Lists that are made stay as they are.</span>
      </p>
    </section>
  );
}
