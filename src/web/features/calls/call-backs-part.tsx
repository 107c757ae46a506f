import { Link } from 'react-router';
import type { CallFigureQuery, CallFigures } from '../../../contract/index.ts';
import { dayOfIso, type PromiseKept, plural, sayDuration } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { Pennant } from '../../kit/pennant.tsx';
import { sayDay } from '../../kit/ways.ts';
import { KEPT_WORDS } from './figure-words.ts';
import { useCallsBehind } from './figures-api.ts';

interface CallBacksPartProps {
  readonly of: CallFigures['callBacks'];
  readonly query: CallFigureQuery;
  readonly onShow: (kept: PromiseKept) => void;
}

const IS_BAD: ReadonlySet<PromiseKept> = new Set(['late', 'owed']);
const TOLD = 6;

/** Which promised calls were kept, how soon, and who is still owed one. */
export function CallBacksPart({ of, query, onShow }: CallBacksPartProps) {
  const owedCount = of.by.find(({ kept }) => kept === 'owed')?.count ?? 0;
  const most = Math.max(1, ...of.by.map(({ count }) => count));
  if (of.promised === 0) return null;
  return (
    <section className="border-t border-line-2 px-5 py-3">
      <h2 className="flex items-baseline text-row font-semibold text-primary">
        Call-backs
        <span className="ml-auto text-note font-normal text-ink-2">{of.promised} promised</span>
      </h2>
      <ul className="mt-1">
        {of.by
          .filter(({ count }) => count > 0)
          .map(({ kept, count }) => (
            <li key={kept}>
              <button
                type="button"
                className={`grid w-full cursor-pointer grid-cols-[36px_132px_minmax(0,1fr)] items-center gap-x-2 py-1 text-left text-row hover:underline ${IS_BAD.has(kept) ? 'text-late' : ''}`}
                onClick={() => onShow(kept)}
              >
                <b className="text-right font-head text-[17px] font-bold">{count}</b>
                <span>{KEPT_WORDS[kept]}</span>
                <span
                  aria-hidden
                  className={`h-3 ${IS_BAD.has(kept) ? 'bg-(--late-fill)' : kept === 'kept' ? 'bg-primary' : 'bg-(--petrol-2)'}`}
                  style={{ width: `${Math.max(1, (count / most) * 100)}%` }}
                />
              </button>
            </li>
          ))}
      </ul>
      {of.medianMinutes !== null && (
        <p className="mt-1 text-note text-ink-2">
          Half of those with a time were rung within {sayDuration(Math.max(1, of.medianMinutes))} of it.
        </p>
      )}
      {owedCount > 0 && <Owed query={query} />}
    </section>
  );
}

function Owed({ query }: { readonly query: CallFigureQuery }) {
  const today = useToday();
  const { lines } = useCallsBehind({ ...query, kept: 'owed' });
  const shown = lines.slice(0, TOLD);
  return (
    <ul className="mt-2">
      {shown.map(({ id, contact, client, asset, person, callBack }) => (
        <li
          key={id}
          className="grid grid-cols-[20px_minmax(0,1fr)_auto] items-baseline gap-x-2 border-t border-line py-1.5 text-row"
        >
          <Pennant state="open" late label="" />
          <span className="truncate">
            <Link className="font-semibold hover:underline" to={`/clients/${client.id}`}>
              {contact.name}
            </Link>{' '}
            <span className="text-ink-2">{asset}</span>
          </span>
          <span className="text-ink-2">
            {callBack && `${sayDay(dayOfIso(callBack.on), today)}${callBack.at ? ` ${callBack.at}` : ''}`},{' '}
            {person.name}
          </span>
        </li>
      ))}
      {lines.length > shown.length && (
        <li className="border-t border-line py-1.5 text-row text-ink-2">
          and {plural(lines.length - shown.length, 'more', 'more')}
        </li>
      )}
    </ul>
  );
}
