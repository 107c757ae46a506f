import { useState } from 'react';
import { Link } from 'react-router';
import type { CallQuota } from '../../../contract/index.ts';
import { dayOfIso, plural, termsOn } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { Empty, Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDate } from '../../kit/ways.ts';
import { useQuotas } from './api.ts';
import { sayAmount, sayComing } from './quota-words.ts';
import { SeveralQuotas } from './several-quotas.tsx';

/** All quotas, and whose lists of today there are to look at. */
export default function QuotasPage() {
  const { may } = useWorkspace();
  const { data, error, mutate } = useQuotas();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const toggle = (id: string) => {
    const next = new Set(chosen);
    if (!next.delete(id)) next.add(id);
    setChosen(next);
  };
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Skeleton rows={6} />;
  return (
    <div className="flex min-h-0 flex-1 flex-col overflow-y-auto">
      <title>Call quotas · Jolly Rota</title>
      <div className="page-head">
        <h1>Call quotas</h1>
        <Link className="btn ml-auto" to="/calls/figures">
          Figures
        </Link>
        <Link className="btn" to="/calls">
          Your calls
        </Link>
        {may('plan') && (
          <Link className="btn btn-primary" to="/calls/quotas/new">
            New quota
          </Link>
        )}
      </div>
      {data.quotas.length === 0 ? (
        <Empty title="There is no quota yet.">
          It says how many people somebody rings a day, a week or a month, and from whom they are taken. Each morning
          the list of the day is made from it.
        </Empty>
      ) : (
        <ul className="border-t border-line-2">
          {data.quotas.map((quota) => (
            <QuotaLine
              key={quota.id}
              quota={quota}
              isChosen={chosen.has(quota.id)}
              onToggle={may('plan') ? () => toggle(quota.id) : null}
            />
          ))}
        </ul>
      )}
      {chosen.size > 0 && <SeveralQuotas ids={[...chosen].sort()} onDone={() => setChosen(new Set())} />}
    </div>
  );
}

interface QuotaLineProps {
  readonly quota: CallQuota;
  readonly isChosen: boolean;
  readonly onToggle: (() => void) | null;
}

function QuotaLine({ quota, isChosen, onToggle }: QuotaLineProps) {
  const { today } = useWorkspace();
  const terms = termsOn(quota, today);
  const says = terms ?? quota.terms.at(-1)?.says;
  const state = terms
    ? `since ${sayDate(dayOfIso(quota.startsOn))}`
    : dayOfIso(quota.startsOn) > today
      ? `from ${sayDate(dayOfIso(quota.startsOn))}`
      : quota.endsOn !== null && dayOfIso(quota.endsOn) < today
        ? `ended ${sayDate(dayOfIso(quota.endsOn))}`
        : 'paused';
  return (
    <li
      className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-line px-5 py-2.5 text-row max-[720px]:px-4"
      data-chosen={isChosen || undefined}
    >
      {onToggle && (
        <input
          type="checkbox"
          className="check self-center"
          aria-label={`Choose ${quota.name}`}
          checked={isChosen}
          onChange={onToggle}
        />
      )}
      <Link className="text-body font-semibold hover:underline" to={`/calls/quotas/${quota.id}`}>
        {quota.name}
      </Link>
      <span>{[...(says ? [sayAmount(says)] : []), ...sayComing(quota, today)].join('; ')}</span>
      <span className="text-ink-2">{state}</span>
      <span className="ml-auto flex flex-wrap gap-x-3">
        {quota.people.length === 0 && <span className="text-late">nobody rings by it</span>}
        {quota.people.slice(0, 12).map(({ id, name }) => (
          <Link key={id} className="link-line" to={`/calls/of/${id}`}>
            {name}
          </Link>
        ))}
        {quota.people.length > 12 && plural(quota.people.length - 12, 'more', 'more')}
      </span>
    </li>
  );
}
