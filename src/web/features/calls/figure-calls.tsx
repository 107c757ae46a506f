import { Link } from 'react-router';
import type { CallLine, CallListQuery } from '../../../contract/index.ts';
import { dayOfIso } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { Pennant } from '../../kit/pennant.tsx';
import { Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDay, timeOf } from '../../kit/ways.ts';
import { addressOfCallsCsv, useCallsBehind } from './figures-api.ts';

interface FigureCallsProps {
  readonly query: CallListQuery;
  readonly title: string;
  readonly onClose: () => void;
}

/** The calls behind a figure, the newest first. */
export function FigureCalls({ query, title, onClose }: FigureCallsProps) {
  const { lines, isHere, isMore, more, error, again } = useCallsBehind(query);
  return (
    <aside className="flex min-h-0 flex-col" aria-label={title}>
      <header className="flex flex-none items-baseline gap-3 px-5 pt-3 pb-2">
        <h2 className="min-w-0 flex-1 font-head text-[17px] leading-6 font-[650]">{title}</h2>
        <a className="link-line text-row" href={addressOfCallsCsv(query)} download>
          as CSV
        </a>
        <button type="button" className="link-line text-row" onClick={onClose}>
          Close
        </button>
      </header>
      <div className="min-h-0 flex-1 overflow-y-auto px-5">
        {error && !isHere && <Trouble error={error} retry={again} />}
        {!isHere && !error && <Skeleton rows={8} />}
        {isHere && lines.length === 0 && <p className="border-t border-line py-3 text-row text-ink-2">No calls.</p>}
        <ul>
          {lines.map((line) => (
            <Line key={line.id} line={line} />
          ))}
        </ul>
        {isMore && (
          <button type="button" className="btn my-3" onClick={more}>
            Show more
          </button>
        )}
      </div>
    </aside>
  );
}

function Line({ line }: { readonly line: CallLine }) {
  const today = useToday();
  const { state, outcome, rungAt, on, contact, client, asset, person, note, callBack } = line;
  const ended = state === 'rung' ? outcome : state === 'open' ? 'to ring' : 'not rung';
  return (
    <li className="grid grid-cols-[20px_minmax(0,1fr)_auto] gap-x-2 border-t border-line py-1.5 text-row leading-5">
      <Pennant state={state === 'rung' ? 'done' : state === 'open' ? 'open' : 'lapsed'} label="" />
      <span className="truncate">
        <Link className="font-semibold hover:underline" to={`/clients/${client.id}`}>
          {contact.name}
        </Link>{' '}
        <span className="text-ink-2">
          {[contact.name === client.name ? null : client.name, asset].filter(Boolean).join(', ')}
        </span>
      </span>
      <span className="text-ink-2">
        {sayDay(dayOfIso(on), today)}
        {rungAt && ` ${timeOf(rungAt)}`}
      </span>
      <span className="col-start-2 col-end-4 text-ink-2">
        {ended}, {person.name}
        {callBack && `; call back ${sayDay(dayOfIso(callBack.on), today)}${callBack.at ? ` ${callBack.at}` : ''}`}
        {note && ` · “${note}”`}
      </span>
    </li>
  );
}
