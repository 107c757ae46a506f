import { useEffect, useState } from 'react';
import type { Unsent } from '../unsent/outbox.ts';
import { UnsentMark } from '../unsent/unsent-mark.tsx';
import { outbox, useUnsentOf } from '../unsent/use-unsent.ts';
import { PHOTO, type PhotoValue, photoOnDevice } from './photo.ts';

interface WaitingFilesProps {
  readonly taskId: string;
  readonly demand: string | null;
}

/** Pictures and files of a task that are on this device alone: each with what it waits for. */
export function WaitingFiles({ taskId, demand }: WaitingFilesProps) {
  return useWaitingFiles(taskId, demand).map((one) => <WaitingFile key={one.field} unsent={one} />);
}

export function useWaitingFiles(taskId: string, demand: string | null): Unsent[] {
  const waiting = useUnsentOf(({ kind, value }) => {
    const photo = value as PhotoValue;
    return kind === PHOTO.name && photo.taskId === taskId && (photo.demand ?? null) === demand;
  });
  return [...waiting.values()];
}

function WaitingFile({ unsent }: { readonly unsent: Unsent }) {
  const { key, name } = unsent.value as PhotoValue;
  const picture = usePicture(key);
  return (
    <div className="mt-1.5 flex items-start gap-2 text-note leading-4.5" role="status">
      {picture && <img className="h-14 w-14 rounded-[4px] object-cover" src={picture} alt={name} />}
      <span className="min-w-0">
        <span className="block break-all">{name}</span>
        {unsent.state === 'waiting' ? (
          <>
            <b className="font-semibold">Not sent yet.</b> {unsent.said}{' '}
            <button
              type="button"
              className="link-line"
              aria-label={`Take out ${name}`}
              onClick={() => outbox.discard(unsent.field)}
            >
              Take it out
            </button>
          </>
        ) : (
          <UnsentMark unsent={unsent} />
        )}
      </span>
    </div>
  );
}

/** The address of a picture on this device, for as long as it is shown. */
function usePicture(key: string): string | null {
  const [address, setAddress] = useState<string | null>(null);
  useEffect(() => {
    let made: string | null = null;
    let isGone = false;
    void photoOnDevice(key).then((file) => {
      if (isGone || !file?.type.startsWith('image/')) return;
      made = URL.createObjectURL(file);
      setAddress(made);
    });
    return () => {
      isGone = true;
      if (made) URL.revokeObjectURL(made);
    };
  }, [key]);
  return address;
}
