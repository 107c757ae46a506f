import { ProblemError } from '../../kit/api.ts';
import type { Kind } from '../unsent/outbox.ts';
import { outbox } from '../unsent/use-unsent.ts';
import { type UploadTarget, upload } from './upload.ts';

/** A picture or file that waits on this device; its bytes are kept beside, under the key it is sent under. */
export interface PhotoValue extends UploadTarget {
  readonly taskId: string;
  readonly key: string;
  readonly name: string;
}

const store = () => import('../../kit/device-store.ts');

/** Told once a file that had waited is there. */
type Arrived = (taskId: string) => void;
let onArrived: Arrived = () => undefined;
export const whenPhotoArrives = (listener: Arrived): void => {
  onArrived = listener;
};

export const PHOTO: Kind<PhotoValue> = outbox.register({
  name: 'photo',
  sender: {
    send: async ({ key, name, ...target }: PhotoValue) => {
      const file = await (await store()).keptOnDevice('files', key);
      if (!file) throw new ProblemError(gone(name));
      await upload(file, target, () => undefined, key);
      onArrived(target.taskId);
    },
    onGone: ({ key }) => void store().then(({ keepOnDevice }) => keepOnDevice('files', key, null)),
  },
});

const gone = (name: string) => ({
  type: 'about:blank',
  title: 'Gone',
  status: 410,
  detail: `“${name}” is no longer on this device: its storage was emptied.`,
});

export const photoField = (key: string) => `photo ${key}`;

/** Keeps a file on this device until there is a connection. @throws whatever keeps it from being kept, as a full disk */
export async function keepPhoto(file: File, value: PhotoValue, to: string): Promise<void> {
  await (await store()).keepOnDevice('files', value.key, file);
  outbox.put(PHOTO, { field: photoField(value.key), value, about: `the file ${value.name}`, to });
}

/** The bytes of one that waits, to be shown. */
export async function photoOnDevice(key: string): Promise<File | null> {
  return (await store()).keptOnDevice('files', key);
}
