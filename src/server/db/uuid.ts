import { randomBytes } from 'node:crypto';

/**
 * UUID version 7 (RFC 9562, section 5.7): 48 bits of milliseconds, then random bits, so that ids sort by time of making.
 * `random` gives ten bytes; the demo passes its own, to be the same every time.
 */
export function uuidv7(epochMilliseconds: number, random: Uint8Array = randomBytes(10)): string {
  const bytes = new Uint8Array(16);
  let time = epochMilliseconds;
  for (let i = 5; i >= 0; i--) {
    bytes[i] = time % 256;
    time = Math.floor(time / 256);
  }
  bytes.set(random.subarray(0, 10), 6);
  bytes[6] = ((bytes[6] as number) & 0x0f) | 0x70;
  bytes[8] = ((bytes[8] as number) & 0x3f) | 0x80;
  const hex = Buffer.from(bytes).toString('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
}
