import { type DragEvent, type ReactNode, useRef, useState } from 'react';
import { MAX_FILE_BYTES } from '../../../contract/index.ts';
import { ProblemError } from '../../kit/api.ts';
import { isWithoutNet } from '../../kit/kept-answers.ts';
import { newKey } from '../../kit/new-key.ts';
import { keepPhoto } from './photo.ts';
import { madeSmaller } from './smaller.ts';
import { type Uploaded, type UploadTarget, upload } from './upload.ts';
import { WaitingFiles } from './waiting-files.tsx';

interface Sending {
  readonly key: string;
  readonly file: File;
  readonly share: number;
  readonly problem: string | null;
  readonly canTryAgain: boolean;
}

interface FileDropProps {
  /** What the button says: "Add a photo or file". */
  readonly words: string;
  /** For those who don't see what stands around it. */
  readonly label: string;
  readonly target: UploadTarget;
  readonly onUploaded: (uploaded: Uploaded) => void;
  readonly primary?: boolean;
  readonly disabled?: boolean;
  /** What stands beside the button: the files that are there. */
  readonly children?: ReactNode;
}

const TAKEN = 'image/jpeg,image/png,image/gif,image/webp,application/pdf';

/** Takes pictures and PDFs, chosen or dropped, with how far each is and another try where one was refused or broke off. */
export function FileDrop({ words, label, target, onUploaded, primary = false, disabled, children }: FileDropProps) {
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const [sending, setSending] = useState<readonly Sending[]>([]);
  const update = (key: string, change: Partial<Sending>) =>
    setSending((all) => all.map((one) => (one.key === key ? { ...one, ...change } : one)));
  const drop = (key: string) => setSending((all) => all.filter((one) => one.key !== key));

  /** Keeps what is for a task on this device, in the order of all that is done there; tells whether it could. */
  const keepHere = async (file: File, key: string): Promise<boolean> => {
    const { taskId, demand } = target;
    if (taskId === undefined) return false;
    try {
      await keepPhoto(file, { taskId, demand, key, name: file.name }, window.location.pathname);
      return true;
    } catch (error) {
      // A private window, or a full disk: it is tried with what connection there is, and told how that went.
      if (error instanceof DOMException) return false;
      throw error;
    }
  };
  /** @throws ProblemError when it is refused */
  const sendOrKeep = async (file: File, key: string): Promise<Uploaded | null> => {
    if (isWithoutNet() && (await keepHere(file, key))) return null;
    try {
      return await upload(file, target, (share) => update(key, { share }), key);
    } catch (error) {
      const isCutOff = error instanceof ProblemError && error.problem.status === 0;
      if (isCutOff && (await keepHere(file, key))) return null;
      throw error;
    }
  };
  const send = async (chosen: File, key: string) => {
    try {
      const file = await madeSmaller(chosen);
      if (file.size > MAX_FILE_BYTES) {
        const problem = `This file is larger than ${MAX_FILE_BYTES / 1024 / 1024} MB: send a smaller one.`;
        return update(key, { problem, canTryAgain: false });
      }
      const uploaded = await sendOrKeep(file, key);
      drop(key);
      if (uploaded) onUploaded(uploaded);
    } catch (error) {
      update(key, {
        problem: error instanceof ProblemError ? error.message : 'It was not sent, by a fault of ours.',
      });
      // The others go on; the fault is for the console.
      if (!(error instanceof ProblemError)) reportError(error);
    }
  };
  /** One after the other, in the order in which they were chosen: on a weak connection the first ones are there soon. */
  const line = useRef(Promise.resolve());
  const enqueue = (file: File, key: string) => {
    line.current = line.current.then(() => send(file, key));
  };
  const take = (files: FileList | null) => {
    for (const file of files ?? []) {
      const key = newKey();
      setSending((all) => [...all, { key, file, share: 0, problem: null, canTryAgain: true }]);
      enqueue(file, key);
    }
  };
  const onDrag = (isOver: boolean) => (event: DragEvent) => {
    if (!event.dataTransfer.types.includes('Files')) return;
    event.preventDefault();
    setOver(isOver);
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: a larger target for what the button does
    <div
      className={`rounded-[4px] ${over ? 'bg-chosen outline-2 outline-dashed outline-primary' : ''}`}
      onDragOver={onDrag(true)}
      onDragLeave={onDrag(false)}
      onDrop={(event) => {
        onDrag(false)(event);
        take(event.dataTransfer.files);
      }}
    >
      <div className="flex flex-wrap items-center gap-2">
        {children}
        {!disabled && (
          <button
            type="button"
            className={`btn h-[30px] min-h-[30px] max-[720px]:h-11 ${primary ? 'btn-primary' : ''}`}
            onClick={() => input.current?.click()}
          >
            {words}
          </button>
        )}
        <input
          ref={input}
          type="file"
          className="sr-only"
          tabIndex={-1}
          aria-label={label}
          accept={TAKEN}
          multiple
          disabled={disabled}
          onChange={({ target: chosen }) => {
            take(chosen.files);
            chosen.value = '';
          }}
        />
      </div>
      {target.taskId !== undefined && <WaitingFiles taskId={target.taskId} demand={target.demand ?? null} />}
      {sending.map(({ key, file, share, problem, canTryAgain }) => (
        <div key={key} className="mt-1.5 text-note leading-4.5" role={problem ? 'alert' : 'status'}>
          <span className="break-all">{file.name}</span>
          {problem === null ? (
            <span
              className="mt-1 block h-1 bg-base-300"
              role="progressbar"
              aria-label={`Sending ${file.name}`}
              aria-valuenow={Math.round(share * 100)}
            >
              <i className="block h-1 bg-primary" style={{ width: `${share * 100}%` }} />
            </span>
          ) : (
            <span className="block">
              <span className="text-late">{problem}</span>{' '}
              {canTryAgain && (
                <button
                  type="button"
                  className="link-line mr-3"
                  onClick={() => {
                    update(key, { problem: null, share: 0 });
                    enqueue(file, key);
                  }}
                >
                  Try again
                </button>
              )}
              <button type="button" className="link-line" onClick={() => drop(key)}>
                Leave it
              </button>
            </span>
          )}
        </div>
      ))}
    </div>
  );
}
