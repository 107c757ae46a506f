import { useEffect, useState } from 'react';
import { pushAddresses } from '../../../contract/addresses-later.ts';
import { dayOfIso } from '../../../core/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useToday } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import { ask } from '../../kit/api.ts';
import { Part } from '../../kit/blanks.tsx';
import { useTrying } from '../../kit/use-trying.ts';
import { sayDay } from '../../kit/ways.ts';
import { askForPlace, type CanShow, canShow, leavePlace, placeHere } from './this-device.ts';

const WHY_NOT: Readonly<Record<Exclude<CanShow, 'yes'>, string>> = {
  refused: 'This browser was told to show nothing from here: allow it beside its address first.',
  'no secure page': 'Browsers show it over https alone: whoever runs this sets its address.',
  'not here': 'This browser can’t. On a phone it can once the application is on the home screen.',
};

/** Phones and computers that show what happens though no page is open. */
export function DevicesPart() {
  const { data, mutate } = useAnswer(pushAddresses.mine, {});
  const today = useToday();
  const { busy, trying } = useTrying();
  const [here, setHere] = useState<string | null>(null);
  const [isRefused, setRefused] = useState(false);
  useEffect(() => {
    let isOpen = true;
    void placeHere().then((place) => {
      if (isOpen) setHere(place);
    });
    return () => {
      isOpen = false;
    };
  }, []);
  if (!data) return null;
  const can = isRefused ? 'refused' : canShow();
  const isAdded = data.devices.some(({ endpoint }) => endpoint === here);
  const add = async () => {
    const place = await askForPlace(data.key);
    setRefused(place === null);
    if (place === null) return;
    await mutate(await ask(pushAddresses.add, { body: place }), { revalidate: false });
    setHere(place.endpoint);
    sayDone('What you chose for the phone is shown on this device from now on.');
  };
  const drop = async (deviceId: string, endpoint: string) => {
    if (endpoint === here) await leavePlace();
    await mutate(await ask(pushAddresses.drop, { params: { deviceId } }), { revalidate: false });
    if (endpoint === here) setHere(null);
    sayDone('Nothing is shown on that device any more.');
  };
  return (
    <Part name="Phone">
      {data.devices.length === 0 && (
        <span className="block text-ink-2">No device of yours shows anything while no page is open.</span>
      )}
      <ul>
        {data.devices.map(({ id, name, endpoint, addedAt, toldAt, trouble }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-3 leading-7">
            <b className="font-semibold">{endpoint === here ? 'this device' : name}</b>
            <span className="text-ink-2">since {sayDay(dayOfIso(addedAt.slice(0, 10)), today)}</span>
            <span className={trouble ? 'text-late' : 'text-ink-2'}>
              {trouble ?? (toldAt ? `last told ${sayDay(dayOfIso(toldAt.slice(0, 10)), today)}` : 'told nothing yet')}
            </span>
            <button
              type="button"
              className="link-line leading-5"
              disabled={busy}
              aria-label={`Take out ${endpoint === here ? 'this device' : name}`}
              onClick={() => void trying(() => drop(id, endpoint))}
            >
              Take out
            </button>
          </li>
        ))}
      </ul>
      {!isAdded &&
        (can === 'yes' ? (
          <button type="button" className="btn btn-sm" disabled={busy} onClick={() => void trying(add)}>
            Show it on this device
          </button>
        ) : (
          <span className="block leading-5 text-ink-2">{WHY_NOT[can]}</span>
        ))}
    </Part>
  );
}
