/**
 * What a device says of something that was done on it and could not be sent at once. Both are headers, so that what is
 * asked for stays what it is.
 */

/** A key that the device makes for each thing done: sent again, it is done once (IETF draft “The Idempotency-Key HTTP Header Field”). */
export const KEY_HEADER = 'Idempotency-Key';
/** How long ago it was done, in whole seconds: told so, the device's clock may be wrong as long as it goes. */
export const AGO_HEADER = 'Done-Ago';

const DAY_SECONDS = 24 * 60 * 60;
/** What is older counts as done so long ago. */
export const LONGEST_AGO_SECONDS = 31 * DAY_SECONDS;

/** The largest file that is taken, in bytes. */
export const MAX_FILE_BYTES = 20 * 1024 * 1024;
