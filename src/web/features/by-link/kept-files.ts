// Not fetched when it is needed: then there may be no connection.
import { keepOnDevice, keptOnDevice } from '../../kit/device-store.ts';
import { placeOf } from './link-api.ts';

/** Files that wait on this device for one thing that is asked: their keys by the link, their bytes beside, on the disk. */
export class KeptFiles {
  private readonly place: string;

  constructor(taskId: string, demand: string) {
    this.place = placeOf(`files ${taskId} ${demand}`);
  }

  /** @throws whatever keeps it from being kept, as a full disk */
  async keep(key: string, file: File): Promise<void> {
    await keepOnDevice('files', key, file);
    this.put([...this.keys(), key]);
  }

  async forget(key: string): Promise<void> {
    const keys = this.keys();
    if (!keys.includes(key)) return;
    this.put(keys.filter((one) => one !== key));
    await keepOnDevice('files', key, null);
  }

  /** What waits, by the key it is sent under. */
  async all(): Promise<readonly (readonly [key: string, file: File])[]> {
    const keys = this.keys();
    if (keys.length === 0) return [];
    const found = await Promise.all(keys.map(async (key) => [key, await keptOnDevice('files', key)] as const));
    return found.flatMap(([key, file]) => (file === null ? [] : [[key, file] as const]));
  }

  private keys(): readonly string[] {
    return (localStorage.getItem(this.place) ?? '').split(' ').filter((key) => key !== '');
  }

  private put(keys: readonly string[]): void {
    if (keys.length === 0) localStorage.removeItem(this.place);
    else localStorage.setItem(this.place, keys.join(' '));
  }
}
