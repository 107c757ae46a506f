import { request as httpRequest } from 'node:http';
import { request as httpsRequest } from 'node:https';
import { isIP } from 'node:net';
import { isPublic, publicOnly } from './public-only.ts';

const PATIENCE_MS = 10_000;

interface Posting {
  readonly headers: Readonly<Record<string, string>>;
  readonly body: Buffer | string;
  /** Whether it may lead to this machine or its network. */
  readonly mayBeInside: boolean;
}

/** Whether an address names a place inside by its number: a name is looked at when it is looked up, what is no name never is. */
export function isInside(address: string): boolean {
  const host = new URL(address).hostname.replace(/^\[|\]$/g, '');
  return isIP(host) !== 0 && !isPublic(host);
}

/** Posts something to an address that somebody has named. @returns what was answered; words where nothing was. No redirect is followed. */
export function posted(address: string, { headers, body, mayBeInside }: Posting): Promise<number | string> {
  const url = new URL(address);
  if (!mayBeInside && isInside(address)) return Promise.resolve(`${url.hostname} is no address outside`);
  return new Promise((resolve) => {
    const sent = (url.protocol === 'http:' ? httpRequest : httpsRequest)(
      url,
      { method: 'POST', headers, timeout: PATIENCE_MS, ...(mayBeInside ? {} : { lookup: publicOnly }) },
      (answer) => {
        answer.resume();
        resolve(answer.statusCode ?? 0);
      },
    );
    sent.on('timeout', () => sent.destroy(new Error('it did not answer in time')));
    sent.on('error', (error) => resolve(error.message));
    sent.end(body);
  });
}
