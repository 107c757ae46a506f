import type { NoticePage } from '../../contract/index.ts';
import { ERASED } from './words.ts';

/** What stands in the place of a letter to somebody who was erased: that there was one. */
export const NOTHING_WRITTEN: NoticePage = {
  ...{ v: 1, language: 'en-GB', from: { name: ERASED, lines: [] }, to: [ERASED], issued: '', replaces: null },
  ...{ subject: ERASED, body: [] },
};
