import { FileText } from 'lucide-react';
import { type ReactNode, useEffect, useEffectEvent, useMemo, useRef, useState } from 'react';
import { byLinkAddresses } from '../../../contract/addresses.ts';
import { MAX_FILE_BYTES } from '../../../contract/device.ts';
import type { LinkedTask, StoredFile } from '../../../contract/index.ts';
import type { Demand } from '../../../core/index.ts';
import { ProblemError } from '../../kit/api.ts';
import { newKey } from '../../kit/new-key.ts';
import { timeOf } from '../../kit/ways.ts';
import { madeSmaller } from '../files/smaller.ts';
import { sayBytes } from '../files/upload.ts';
import { KeptFiles } from './kept-files.ts';
import { askByLink, fileByLink, mayPass, sendFileByLink } from './link-api.ts';

/** The bytes of a file as an address for this page alone, for as long as it is shown; null until they are here. */
function useBytes(fileId: string, size: '' | '/small', isWanted = true): string | null {
  const [address, setAddress] = useState<string | null>(null);
  useEffect(() => {
    if (!isWanted) return;
    let made: string | null = null;
    let isGone = false;
    fileByLink(fileId, size).then(
      (bytes) => {
        if (isGone) return;
        made = URL.createObjectURL(bytes);
        setAddress(made);
      },
      // The name stands there all the same.
      (error: unknown) => reportError(error),
    );
    return () => {
      isGone = true;
      if (made !== null) URL.revokeObjectURL(made);
    };
  }, [fileId, size, isWanted]);
  return address;
}

/** A small picture, or the mark of a paper. */
export function LinkedMark({ file, small = false }: { readonly file: StoredFile; readonly small?: boolean }) {
  const size = small ? 'h-9 w-8' : 'h-12 w-11';
  const address = useBytes(file.id, '/small', file.isPicture);
  return file.isPicture && address !== null ? (
    <img className={`${size} flex-none rounded-[2px] border border-line object-cover`} src={address} alt="" />
  ) : (
    <span className={`${size} grid flex-none place-items-center rounded-[2px] bg-primary text-primary-content`}>
      <FileText size={small ? 16 : 22} aria-hidden />
    </span>
  );
}

/** A file to be read: opened in a tab of its own, or saved. */
export function LinkedFile({ file }: { readonly file: StoredFile }) {
  const [isMissed, setMissed] = useState(false);
  const open = async () => {
    setMissed(false);
    const bytes = await fileByLink(file.id, '');
    const link = document.createElement('a');
    link.href = URL.createObjectURL(bytes);
    link.download = file.name;
    link.click();
    // After the browser has taken it.
    setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
  };
  const tryToOpen = () =>
    open().catch((error: unknown) => {
      setMissed(true);
      reportError(error);
    });
  return (
    <p className="flex min-h-11 flex-wrap items-center gap-x-2.5 text-touch">
      <LinkedMark file={file} small />
      <button type="button" className="link-line break-all text-left" onClick={() => void tryToOpen()}>
        {file.name}
      </button>
      <span className="text-row text-ink-2">{sayBytes(file.bytes)}</span>
      {isMissed && (
        <span role="alert" className="text-row text-late">
          It could not be loaded: press again in a moment.
        </span>
      )}
    </p>
  );
}

const PICTURE = /^\/api\/files\/([0-9a-f-]{36})$/;

/** Instructions, whose pictures are fetched with the link. */
export function LinkedText({ html }: { readonly html: string }) {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const made: string[] = [];
    for (const picture of place.current?.querySelectorAll<HTMLImageElement>('img[data-file]') ?? [])
      fileByLink(picture.dataset['file'] ?? '', '').then(
        (bytes) => {
          const address = URL.createObjectURL(bytes);
          made.push(address);
          picture.src = address;
        },
        (error: unknown) => reportError(error),
      );
    return () => {
      for (const address of made) URL.revokeObjectURL(address);
    };
  }, []);
  return (
    // biome-ignore lint/security/noDangerouslySetInnerHtml: sanitised on the server at every write, and the page's policy runs no script of others
    <div ref={place} className="rich-text" dangerouslySetInnerHTML={{ __html: withoutSources(html) }} />
  );
}

/** Pictures without their address, which asks for a session, and with the id of their file instead. */
function withoutSources(html: string): string {
  const { body } = new DOMParser().parseFromString(html, 'text/html');
  for (const picture of body.querySelectorAll('img')) {
    const [, fileId] = PICTURE.exec(picture.getAttribute('src') ?? '') ?? [];
    if (fileId === undefined) continue;
    picture.removeAttribute('src');
    picture.dataset['file'] = fileId;
  }
  return body.innerHTML;
}

const TAKEN = 'image/jpeg,image/png,image/gif,image/webp,application/pdf';

/** How often what waits is tried again. */
const RETRY_MS = 20_000;
const KEPT = 'It is kept on this device, and goes by itself.';

/** What the device itself refuses is told to whoever reads its console; the file goes all the same. */
const told = (error: unknown): void => reportError(error);

interface Sending {
  readonly key: string;
  readonly file: File;
  readonly share: number;
  readonly said: string | null;
  readonly canTryAgain: boolean;
}

interface FilesAskedProps {
  readonly name: ReactNode;
  readonly demand: Demand;
  readonly task: LinkedTask;
  readonly onTask: (task: LinkedTask) => void;
}

/** Photos and papers for one thing that is asked, made smaller on the device, each with how far it is. */
export function FilesAsked({ name, demand, task, onTask }: FilesAskedProps) {
  const [sending, setSending] = useState<readonly Sending[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const camera = useRef<HTMLInputElement>(null);
  const chooser = useRef<HTMLInputElement>(null);
  const files = task.files.filter((file) => file.demand === demand.key);
  const hasCome = (key: string) => files.some((file) => file.key === key);
  const kept = useMemo(() => new KeptFiles(task.id, demand.key), [task.id, demand.key]);
  const going = useRef(new Set<string>());
  const isKept = useRef(new Set<string>());
  /** Refused, sent or left: what is not sent again by itself. */
  const settled = useRef(new Set<string>());
  const update = (key: string, change: Partial<Sending>) =>
    setSending((all) => all.map((one) => (one.key === key ? { ...one, ...change } : one)));
  const leave = (key: string) => {
    settled.current.add(key);
    setSending((all) => all.filter((one) => one.key !== key));
    kept.forget(key).catch(told);
  };
  const send = async (chosen: File, key: string) => {
    if (going.current.has(key)) return;
    going.current.add(key);
    update(key, { share: 0, said: null });
    try {
      const file = await madeSmaller(chosen);
      if (file.size > MAX_FILE_BYTES)
        return update(key, {
          said: `It is larger than ${MAX_FILE_BYTES / 1024 / 1024} MB: send a smaller one.`,
          canTryAgain: false,
        });
      const next = await sendFileByLink({ taskId: task.id, demand: demand.key, key }, file, (share) =>
        update(key, { share }),
      );
      leave(key);
      onTask(next);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      const canTryAgain = mayPass(error);
      if (!canTryAgain) settled.current.add(key);
      const waits = canTryAgain && isKept.current.has(key);
      update(key, { said: waits ? `${error.message} ${KEPT}` : error.message, canTryAgain });
    } finally {
      going.current.delete(key);
    }
  };
  /** What an earlier visit left, and what waits for a connection; not what got there and only its answer was lost. */
  const sendKept = useEffectEvent(async () => {
    for (const [key, file] of await kept.all()) {
      if (hasCome(key)) leave(key);
      if (settled.current.has(key)) continue;
      isKept.current.add(key);
      setSending((all) =>
        all.some((one) => one.key === key) ? all : [...all, { key, file, share: 0, said: null, canTryAgain: true }],
      );
      void send(file, key);
    }
  });
  useEffect(() => {
    const again = () => void sendKept().catch(told);
    again();
    window.addEventListener('online', again);
    const timer = window.setInterval(again, RETRY_MS);
    return () => {
      window.removeEventListener('online', again);
      clearInterval(timer);
    };
  }, []);
  const take = (chosen: FileList | null) => {
    for (const file of chosen ?? []) {
      const key = newKey();
      setSending((all) => [...all, { key, file, share: 0, said: null, canTryAgain: true }]);
      // It goes also where this device can't keep it; it is only not said to be kept.
      void kept
        .keep(key, file)
        .then(() => void isKept.current.add(key), told)
        .then(() => send(file, key));
    }
  };
  const takeAway = async (fileId: string) => {
    setProblem(null);
    try {
      onTask((await askByLink(byLinkAddresses.removeFile, { params: { fileId } })).task);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error.message);
    }
  };
  const input = (ref: typeof camera, label: string, isCamera: boolean) => (
    <input
      ref={ref}
      type="file"
      className="sr-only"
      tabIndex={-1}
      aria-label={label}
      accept={isCamera ? 'image/*' : TAKEN}
      {...(isCamera ? { capture: 'environment' as const } : { multiple: true })}
      onChange={({ target }) => {
        take(target.files);
        target.value = '';
      }}
    />
  );
  const called = demand.label || 'this';
  // Another answer may bring a file before that of its own sending does: it stands once.
  const onTheWay = sending.filter(({ key }) => !hasCome(key));
  return (
    <div>
      {name}
      {files.map((file) => (
        <div key={file.id} className="mt-2 grid min-h-12 grid-cols-[44px_minmax(0,1fr)_auto] items-center gap-x-2.5">
          <LinkedMark file={file} />
          <div className="min-w-0 text-[15px] leading-4.75">
            <span className="block truncate">{file.name}</span>
            <small className="block text-row leading-4.5 text-ink-2">
              kept {timeOf(file.at)}, {sayBytes(file.bytes)}
            </small>
          </div>
          <button
            type="button"
            className="h-11 cursor-pointer px-1 text-[15px]"
            aria-label={`Take away ${file.name}`}
            onClick={() => void takeAway(file.id)}
          >
            <span className="link-line">Take away</span>
          </button>
        </div>
      ))}
      {onTheWay.map((one) => (
        <div key={one.key} className="mt-2 text-[15px] leading-5">
          <span className="block truncate">{one.file.name}</span>
          {one.said === null ? (
            <progress className="h-1.5 w-full" max={1} value={one.share} aria-label={`Sending ${one.file.name}`} />
          ) : (
            <p role="alert" className="text-row text-late">
              {one.said}{' '}
              {one.canTryAgain && (
                <button type="button" className="link-line text-ink" onClick={() => void send(one.file, one.key)}>
                  Try again
                </button>
              )}{' '}
              <button type="button" className="link-line text-ink" onClick={() => leave(one.key)}>
                Leave it
              </button>
            </p>
          )}
        </div>
      ))}
      {problem && (
        <p role="alert" className="mt-1 text-row text-late">
          {problem}
        </p>
      )}
      <div className="mt-2 grid grid-cols-2 gap-2">
        <button
          type="button"
          className="btn h-11 justify-center bg-base-100 px-2 text-[15px]"
          onClick={() => camera.current?.click()}
        >
          {files.length > 0 ? 'Take another photo' : 'Take a photo'}
        </button>
        <button
          type="button"
          className="btn h-11 justify-center bg-base-100 px-2 text-[15px]"
          onClick={() => chooser.current?.click()}
        >
          Add a file
        </button>
        {input(camera, `Photo for ${called}`, true)}
        {input(chooser, `File for ${called}`, false)}
      </div>
    </div>
  );
}
