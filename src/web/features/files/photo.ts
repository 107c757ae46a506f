import { problemOf } from '../../../contract/problems.ts';
import { refresh } from '../../kit/answer.ts';
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

export const PHOTO: Kind<PhotoValue> = outbox.register({
  name: 'photo',
  sender: {
    send: async ({ key, name, ...target }: PhotoValue, { agoMs }) => {
      const file = await (await store()).keptOnDevice('files', key);
      if (!file)
        throw new ProblemError(
          problemOf('not-found', `“${name}” is no longer on this device: its storage was emptied.`),
        );
      await upload(file, { ...target, agoMs }, () => undefined, key);
      void refresh(`/tasks/${target.taskId}`);
    },
    onGone: ({ key }) => void store().then(({ keepOnDevice }) => keepOnDevice('files', key, null)),
  },
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
