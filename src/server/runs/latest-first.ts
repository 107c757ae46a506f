/** Of two in the same moment, the one at start-up came before: each process counts its ids by itself. */
export const LATEST_FIRST = `started_at desc, (why = 'startup'), id desc`;
