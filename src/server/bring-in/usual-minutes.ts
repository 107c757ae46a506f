import type { BringIn } from './entity.ts';

/** Minutes of work of which nothing is said, until somebody says otherwise. */
export const USUAL_MINUTES = 30;

/** How long work takes of which a file does not say it. */
export const usualMinutesOf = ({ asked }: Pick<BringIn, 'asked'>): number => asked.usualMinutes ?? USUAL_MINUTES;
