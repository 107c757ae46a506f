import { useState } from 'react';
import { type CallDay, type FoundContact, MOST_CONTACTS_FOUND } from '../../../contract/index.ts';
import { dayOfIso } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { ChoiceBlank } from '../../kit/blanks.tsx';
import { Picker } from '../../kit/picker.tsx';
import { useTrying } from '../../kit/use-trying.ts';
import { sayDay } from '../../kit/ways.ts';
import { useCallActions, useContactsFound } from './api.ts';

const NEXT = 'next';
/** Of those who can't be put on the list, how many are told with why. */
const TOLD = 2;

/** One more on the list of today: the next from the pool, or whoever is named. */
export function AddCall({ of: { person, quotas } }: { readonly of: CallDay }) {
  const today = useToday();
  const { more } = useCallActions();
  const { busy, trying } = useTrying();
  const [typed, setTyped] = useState<string | null>(null);
  const [chosenQuota, chooseQuota] = useState('');
  const { data: found, isLoading, error } = useContactsFound(typed);
  const quota = quotas.find(({ id }) => id === chosenQuota) ?? quotas[0];
  if (!quota) return null;
  const contacts = found?.contacts ?? [];
  const canBe = ({ cannot, onListOf }: FoundContact) => cannot === null && onListOf === null;
  const isAsked = (typed ?? '').trim() !== '';
  const leftOut = isAsked ? contacts.filter((one) => !canBe(one)) : [];
  const below = [
    ...leftOut
      .slice(0, TOLD)
      .map(({ contact, onListOf, cannot }) =>
        onListOf === null
          ? `${contact.name}: ${WHY[cannot ?? 'never']}.`
          : `${contact.name} is on the list of ${onListOf}.`,
      ),
    ...(leftOut.length > TOLD ? [`${leftOut.length - TOLD} more can’t be put on it.`] : []),
    ...(found?.isMore ? [`The first ${MOST_CONTACTS_FOUND}: type more of the name for others.`] : []),
  ].join(' ');
  return (
    <span className="flex flex-wrap items-center gap-x-2">
      {quotas.length > 1 && (
        <ChoiceBlank
          label="By which quota"
          value={quota.id}
          options={quotas.map(({ id, name }) => [id, name] as const)}
          onChange={chooseQuota}
        />
      )}
      <Picker
        label="One more call"
        look="button"
        chosen=""
        placeholder="One more"
        options={[
          ...(isAsked ? [] : [{ key: NEXT, name: 'The next from the pool' }]),
          ...contacts.filter(canBe).map(({ contact, client, asset, lastRungOn }) => ({
            key: contact.id,
            name: contact.name,
            detail: [
              contact.name === client.name ? null : client.name,
              asset,
              lastRungOn === null ? 'never rung' : `rung ${sayDay(dayOfIso(lastRungOn), today)}`,
            ]
              .filter(Boolean)
              .join(', '),
          })),
        ]}
        onType={setTyped}
        isLooking={isLoading || busy}
        trouble={error?.message}
        below={below || undefined}
        onChoose={(key) => void trying(() => more(person.id, quota.id, key === NEXT ? null : key))}
      />
    </span>
  );
}

const WHY: Readonly<Record<NonNullable<FoundContact['cannot']>, string>> = {
  'no number': 'no number',
  'wrong number': 'a wrong number',
  never: 'never to be rung',
};
