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

/** Below every id that is made from a moment on. */
export const earliestId = (epochMilliseconds: number): string => uuidv7(epochMilliseconds, new Uint8Array(10));

/** Ids in the order they are asked for, even within one millisecond or when the clock is set back (RFC 9562, section 6.2, method 1). */
export function orderedIds(): (epochMilliseconds: number) => string {
  let last = 0;
  let counter = 0;
  return (now) => {
    if (now > last) {
      last = now;
      counter = 0;
    } else if (++counter > 0xfff) {
      // The counter has the 12 bits after the time; when they are used up, the time moves on by itself.
      last++;
      counter = 0;
    }
    const random = Uint8Array.from(randomBytes(10));
    random[0] = counter >> 8;
    random[1] = counter & 0xff;
    return uuidv7(last, random);
  };
}
