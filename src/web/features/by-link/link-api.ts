import type { Address } from '../../../contract/addresses.ts';
import { byLinkAddresses } from '../../../contract/addresses.ts';
import type { LinkedTask, OpenedLink } from '../../../contract/index.ts';
import { LINK_HEADER, PASS_HEADER } from '../../../contract/link-headers.ts';
import { type Answer, addressOf, type Input, ProblemError, request } from '../../kit/api.ts';
import { sendForm } from '../../kit/send-form.ts';

/**
 * What stands after the # of the link, read once: it goes to no server by itself, and stays out of every log. The address bar
 * keeps it, so that a page that was left open or kept can be loaded again.
 */
export const linkToken = (): string => window.location.hash.slice(1);

/** Under a part of the token: enough to tell links apart, too little to open one. */
const PLACE = 'jolly-rota.link';
export const placeOf = (name: string): string => `${PLACE}.${linkToken().slice(0, 10)}.${name}`;

const passOf = (): string => localStorage.getItem(placeOf('pass')) ?? '';
export const keepPass = (pass: string): void => localStorage.setItem(placeOf('pass'), pass);

const headers = (): Record<string, string> => ({ [LINK_HEADER]: linkToken(), [PASS_HEADER]: passOf() });

/** Asks as whoever has the link. @throws ProblemError with words for the person */
export function askByLink<A extends Address>(address: A, input: Input<A> = {}): Promise<Answer<A>> {
  const body = input.body ?? (address.method === 'GET' ? undefined : {});
  return request(address.method, addressOf(address, input), body, undefined, headers()) as Promise<Answer<A>>;
}

export const openLink = (): Promise<OpenedLink> => askByLink(byLinkAddresses.open);

/** Sends a file, with how far it is. @throws ProblemError when it is refused, or does not get through */
export async function sendFileByLink(
  { taskId, demand, key }: { readonly taskId: string; readonly demand: string; readonly key: string },
  file: File,
  onProgress: (share: number) => void,
): Promise<LinkedTask> {
  const form = new FormData();
  form.set('key', key);
  form.set('demand', demand);
  // Last, so that the server knows where it is for before it reads it.
  form.set('file', file);
  const { task } = await sendForm<{ task: LinkedTask }>(`/link/tasks/${taskId}/files`, form, onProgress, headers());
  return task;
}

/** The bytes of a file, to be shown or saved: a picture of this page can't say whose it is. */
export async function fileByLink(fileId: string, size: '' | '/small'): Promise<Blob> {
  const response = await fetch(`/api/link/files/${fileId}${size}`, { headers: headers() });
  if (!response.ok) throw new Error(`The file ${fileId} was not given (${response.status}).`);
  return response.blob();
}

/** Whether it may get through later: no connection, or a fault of ours. */
export const mayPass = (error: unknown): boolean =>
  error instanceof ProblemError &&
  (error.problem.status === 0 || error.problem.status >= 500 || error.problem.status === 429);
