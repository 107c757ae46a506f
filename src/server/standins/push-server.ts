import { createDecipheriv, createECDH, createPublicKey, hkdfSync, randomBytes, verify } from 'node:crypto';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';

/** A push service on loopback, with the browsers that it reaches: what is sent is read as the browser would (RFC 8291). */
export interface PushStandIn {
  /** A browser that can be pushed to, as it says so itself. */
  subscribe(): { readonly endpoint: string; readonly keys: { readonly p256dh: string; readonly auth: string } };
  /** What the browsers have been sent, in the order in which it came. */
  readonly received: readonly { readonly endpoint: string; readonly sign: unknown; readonly topic: string }[];
  /** What it answers from now on: 201, or trouble. */
  answer(status: number): void;
  stop(): Promise<void>;
}

interface Browser {
  readonly ecdh: ReturnType<typeof createECDH>;
  readonly auth: Buffer;
}

export async function startPushServer(): Promise<PushStandIn> {
  const browsers = new Map<string, Browser>();
  const received: { endpoint: string; sign: unknown; topic: string }[] = [];
  let status = 201;
  const server = createServer((request, response) => {
    const chunks: Buffer[] = [];
    request.on('data', (chunk: Buffer) => chunks.push(chunk));
    request.on('end', () => {
      const endpoint = `${origin()}${request.url}`;
      const browser = browsers.get(endpoint);
      if (!browser || status !== 201) return response.writeHead(browser ? status : 404).end();
      if (!isSignedFor(request.headers.authorization ?? '', origin())) return response.writeHead(403).end();
      const text = decrypted(Buffer.concat(chunks), browser);
      received.push({ endpoint, sign: JSON.parse(text), topic: String(request.headers['topic']) });
      response.writeHead(201).end();
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const origin = () => `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return {
    received,
    subscribe() {
      const ecdh = createECDH('prime256v1');
      const p256dh = ecdh.generateKeys('base64url');
      const auth = randomBytes(16);
      const endpoint = `${origin()}/${randomBytes(12).toString('hex')}`;
      browsers.set(endpoint, { ecdh, auth });
      return { endpoint, keys: { p256dh, auth: auth.toString('base64url') } };
    },
    answer(next) {
      status = next;
    },
    stop: () => new Promise((resolve) => server.close(() => resolve())),
  };
}

/** Whether whoever sends has signed it for this service with the key that they name (RFC 8292, section 2). */
function isSignedFor(authorization: string, audience: string): boolean {
  const [, token = '', key = ''] = /^vapid t=([^,]+), ?k=(.+)$/.exec(authorization) ?? [];
  const [head = '', claims = '', signature = ''] = token.split('.');
  if (signature === '') return false;
  const raw = Buffer.from(key, 'base64url');
  const [x, y] = [raw.subarray(1, 33), raw.subarray(33, 65)].map((part) => part.toString('base64url'));
  const publicKey = createPublicKey({ format: 'jwk', key: { kty: 'EC', crv: 'P-256', x: x ?? '', y: y ?? '' } });
  const isTheirs = verify(
    'sha256',
    Buffer.from(`${head}.${claims}`),
    { key: publicKey, dsaEncoding: 'ieee-p1363' },
    Buffer.from(signature, 'base64url'),
  );
  const { aud, sub } = JSON.parse(Buffer.from(claims, 'base64url').toString()) as { aud?: string; sub?: string };
  return isTheirs && aud === audience && /^(mailto:|https:)/.test(sub ?? '');
}

const SALT = 16;
const RECORD_SIZE = 4;
const TAG = 16;

/** One record of aes128gcm (RFC 8188, section 2), with the keys that RFC 8291, section 3.4, makes of those of the browser. */
function decrypted(body: Buffer, { ecdh, auth }: Browser): string {
  const salt = body.subarray(0, SALT);
  const keyLength = body.readUInt8(SALT + RECORD_SIZE);
  const start = SALT + RECORD_SIZE + 1;
  const theirs = body.subarray(start, start + keyLength);
  const sealed = body.subarray(start + keyLength);
  const info = Buffer.concat([Buffer.from('WebPush: info\0'), ecdh.getPublicKey(), theirs]);
  const secret = hkdfSync('sha256', ecdh.computeSecret(theirs), auth, info, 32);
  const key = (name: string, length: number) =>
    Buffer.from(hkdfSync('sha256', Buffer.from(secret), salt, Buffer.from(`Content-Encoding: ${name}\0`), length));
  const decipher = createDecipheriv('aes-128-gcm', key('aes128gcm', 16), key('nonce', 12));
  decipher.setAuthTag(sealed.subarray(-TAG));
  const opened = Buffer.concat([decipher.update(sealed.subarray(0, -TAG)), decipher.final()]);
  // What stands after the mark of the last record is padding.
  return opened.subarray(0, opened.lastIndexOf(2)).toString('utf8');
}
