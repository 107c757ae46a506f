import { type ReactNode, useState } from 'react';
import type { ClientRecord } from '../../../../contract/index.ts';
import { dayOfIso } from '../../../../core/index.ts';
import { useToday, useWorkspace } from '../../../app/shell/workspace.tsx';
import { useTrying } from '../../../kit/use-trying.ts';
import { sayDay } from '../../../kit/ways.ts';
import { useAnswerActions } from '../../answers/api.ts';
import { sayFieldValue } from '../own-fields.ts';

/** So many mails that were refused mark an address as one that does not work. */
const MARKED = 3;
/** Facts that stand there before the others are asked for. */
const SHOWN = 6;

interface Fact {
  readonly key: string;
  readonly name: string;
  readonly value: ReactNode;
}

/** How a client is reached and what is known of them, side by side. */
export function ClientFacts({ client }: { readonly client: ClientRecord }) {
  const { clientFields } = useWorkspace();
  const [all, setAll] = useState(false);
  const facts: Fact[] = [
    { key: 'usual', name: 'usual person', value: client.usualPerson?.name ?? 'nobody yet' },
    ...client.contacts.map((contact) => ({
      key: contact.id,
      name: contact.role || 'contact',
      value: <Reached contact={contact} known={client.name} client={client} />,
    })),
    ...clientFields.flatMap((field): Fact[] => {
      const value = client.fields[field.key];
      return value === undefined ? [] : [{ key: field.key, name: field.name, value: sayFieldValue(field, value) }];
    }),
    ...(client.address ? [{ key: 'address', name: 'address', value: client.address.replaceAll('\n', ', ') }] : []),
  ];
  const shown = all ? facts : facts.slice(0, SHOWN);
  return (
    <div className="flex flex-none flex-wrap items-center border-t border-line-2 px-5 py-2 max-[720px]:px-4">
      <dl className="flex flex-wrap gap-y-1.5 max-[720px]:grid max-[720px]:w-full max-[720px]:grid-cols-2">
        {shown.map(({ key, name, value }) => (
          <div
            key={key}
            className="mr-4 min-w-0 border-r border-line-2 pr-4 last-of-type:border-r-0 max-[720px]:w-full max-[720px]:border-r-0"
          >
            <dt className="text-note leading-4.5 text-ink-2">{name}</dt>
            <dd className="text-row leading-5">{value}</dd>
          </div>
        ))}
      </dl>
      {facts.length > SHOWN && (
        <button type="button" className="link-line text-note max-[720px]:py-1" onClick={() => setAll(!all)}>
          {all ? 'Fewer' : `${facts.length - SHOWN} more`}
        </button>
      )}
    </div>
  );
}

/** "Maren Brindle, 01632 960 536, maren@berth.example, rather by telephone". */
function Reached({
  contact,
  known,
  client: { refused, stopped },
}: {
  readonly contact: ClientRecord['contacts'][number];
  readonly known: string;
  readonly client: Pick<ClientRecord, 'refused' | 'stopped'>;
}) {
  const today = useToday();
  const { name, email, telephone, prefers } = contact;
  const failed = refused.find((one) => one.email === email.toLowerCase());
  const stop = stopped.find((one) => one.email === email.toLowerCase());
  const isNamed = name !== known || (email === '' && telephone === '');
  return (
    <span className="flex flex-wrap gap-x-2.5 max-[720px]:gap-y-1.5">
      {isNamed && <span>{name}</span>}
      {telephone && (
        <a className="link-line max-[720px]:py-1" href={`tel:${telephone.replaceAll(' ', '')}`}>
          {telephone}
        </a>
      )}
      {email && (
        <a className="link-line max-[720px]:py-1" href={`mailto:${email}`}>
          {email}
        </a>
      )}
      {failed && (
        <span className="text-late" title={failed.trouble}>
          {failed.times >= MARKED
            ? `does not arrive: ${failed.times} mails refused`
            : `refused ${sayDay(dayOfIso(failed.on.slice(0, 10)), today)}`}
        </span>
      )}
      {stop && <Stopped email={email} on={stop.on} />}
      {prefers && <span className="text-ink-2">rather by {prefers}</span>}
    </span>
  );
}

/** An address that wants no mails, and the way back where somebody has heard that it takes them again. */
function Stopped({ email, on }: { readonly email: string; readonly on: string }) {
  const { may } = useWorkspace();
  const today = useToday();
  const { mailAgain } = useAnswerActions();
  const { busy, trying } = useTrying();
  return (
    <span className="flex flex-wrap gap-x-2">
      <span className="text-late">wants no mails since {sayDay(dayOfIso(on.slice(0, 10)), today)}</span>
      {may('clients') && (
        <button
          type="button"
          className="link-line"
          disabled={busy}
          aria-label={`Mails go to ${email} again`}
          onClick={() => void trying(() => mailAgain(email))}
        >
          Mail again
        </button>
      )}
    </span>
  );
}
