import { Phone } from 'lucide-react';
import type { ListedCall } from '../../../contract/index.ts';
import { dayOfIso, sayWhyListed } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { Pennant } from '../../kit/pennant.tsx';
import { sayDay, timeOf } from '../../kit/ways.ts';
import { useUnsent } from '../unsent/use-unsent.ts';
import { rungField } from './ringing.ts';

/** Some of the calls below their count. */
export function Band({
  count,
  words,
  more,
  children,
}: {
  readonly count: number;
  readonly words: string;
  readonly more?: string;
  readonly children: React.ReactNode;
}) {
  return (
    <section
      className="grid grid-cols-[88px_minmax(0,1fr)] border-t border-line-2 pl-5 max-[720px]:block max-[720px]:pl-0"
      aria-label={`${count} ${words}`}
    >
      <h2 className="pt-2 text-row font-semibold leading-4.5 max-[720px]:px-4">
        <b className="block font-head text-[21px] leading-6 max-[720px]:mr-1.5 max-[720px]:inline">{count}</b>
        {words}
        {more && (
          <span className="block text-note font-normal text-ink-2 max-[720px]:ml-2 max-[720px]:inline">{more}</span>
        )}
      </h2>
      <ul className="min-w-0 max-[720px]:px-4">{children}</ul>
    </section>
  );
}

/** Who is rung, and what people know them by. */
export function Who({ call }: { readonly call: Pick<ListedCall, 'contact' | 'client' | 'asset'> }) {
  const { contact, client, asset } = call;
  const about = [asset, contact.name === client.name ? null : client.name].filter(Boolean).join(', ');
  return (
    <span className="block truncate">
      <b className="font-semibold">{contact.name}</b> <span className="ml-1 text-ink-2">{about}</span>
    </span>
  );
}

interface LineProps {
  readonly call: ListedCall;
  readonly isChosen: boolean;
  readonly onChoose: (id: string) => void;
}

const LINE =
  'grid min-h-9 w-full items-center gap-x-3 border-b border-line text-left text-row data-[chosen]:bg-chosen pr-5 max-[720px]:pr-0';

export function CallLine({ call, day, isChosen, onChoose }: LineProps & { readonly day: number }) {
  const { today } = useWorkspace();
  const { why, number, last } = call;
  const isTimed = why.kind === 'promised' && why.at !== null;
  return (
    <li
      className={`${LINE} grid-cols-[22px_minmax(0,1.2fr)_minmax(0,1.1fr)_140px_minmax(0,0.9fr)] max-[720px]:grid-cols-[22px_minmax(0,1fr)_auto]`}
      data-chosen={isChosen || undefined}
    >
      <Pennant state="open" label="" size={20} />
      <button
        type="button"
        className="min-w-0 cursor-pointer text-left"
        aria-current={isChosen}
        onClick={() => onChoose(call.id)}
      >
        <Who call={call} />
      </button>
      <span className={`truncate max-[720px]:hidden ${isTimed ? 'font-semibold' : 'text-ink-2'}`}>
        {sayWhyListed(why, day)}
      </span>
      <a className="link-line font-mono whitespace-nowrap" href={`tel:${number.replace(/\s/g, '')}`}>
        <Phone aria-hidden className="mr-1 inline size-3.5" />
        {number}
      </a>
      <span className="truncate text-ink-2 max-[720px]:hidden">
        {last ? `${sayDay(dayOfIso(last.on), today)}, ${last.outcome}` : 'none yet'}
      </span>
    </li>
  );
}

export function DoneLine({ call, isChosen, onChoose }: LineProps) {
  const { today } = useWorkspace();
  const { outcome, note, rungAt, callBack } = call;
  const waits = useUnsent(rungField(call.id))?.state === 'waiting';
  const on = callBack && `, ${sayDay(dayOfIso(callBack.on), today)}${callBack.at ? ` ${callBack.at}` : ''}`;
  return (
    <li
      className={`${LINE} grid-cols-[22px_minmax(0,1.2fr)_minmax(0,2fr)_auto] max-[720px]:grid-cols-[22px_minmax(0,1fr)_auto]`}
      data-chosen={isChosen || undefined}
    >
      <Pennant state="done" label="" size={20} />
      <Who call={call} />
      <span className="truncate text-ink-2 max-[720px]:col-start-2 max-[720px]:row-start-2 max-[720px]:pb-1.5">
        {waits && <b className="mr-2 font-semibold text-ink">not sent yet</b>}
        {`${outcome?.name ?? ''}${on ?? ''}${rungAt ? `, rung ${timeOf(rungAt)}` : ''}${note ? `: ${note}` : ''}`}
      </span>
      <button
        type="button"
        className="link-line"
        aria-label={`Change what was said of ${call.contact.name}`}
        onClick={() => onChoose(call.id)}
      >
        Change it
      </button>
    </li>
  );
}
