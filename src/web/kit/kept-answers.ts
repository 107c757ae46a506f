import { useSyncExternalStore } from 'react';
import type { Path } from '../../contract/path.ts';
import { commentPaths, taskPaths, workspacePaths } from '../../contract/paths.ts';
import { callPaths } from '../../contract/paths-later.ts';
import type { KeptAnswer } from './device-store.ts';
import { movedOn } from './moved-on.ts';
import { PICTURES } from './picture-cache.ts';

/**
 * What the server said last, kept on this device for when there is no connection: who is signed in, the days that were
 * shown or will be wanted, their tasks. It belongs to whoever is signed in, and goes when somebody else is.
 */

/** The addresses of an endpoint, whatever its parameters. */
const addressesOf = ([, path]: Path) => new RegExp(`^/api${path.replace(/:\w+/g, '[^/?]+')}(\\?.*)?$`);

const SESSION = `/api${workspacePaths.session[1]}`;
const WORKSPACE = `/api${workspacePaths.workspace[1]}`;
const CLOCK = `/api${workspacePaths.clock[1]}`;
const SHEET = addressesOf(taskPaths.daySheet);
const KEPT = [
  ...[workspacePaths.session, workspacePaths.workspace, workspacePaths.clock].map(addressesOf),
  ...[taskPaths.daySheet, taskPaths.one, taskPaths.tideline, commentPaths.list].map(addressesOf),
  ...[callPaths.day, callPaths.before].map(addressesOf),
];
/** What is older is not shown: a device that was lost tells nothing for long. */
const LONGEST_MS = 9 * 24 * 60 * 60 * 1000;

export const isKept = (address: string): boolean => KEPT.some((kept) => kept.test(address));

const store = () => import('./device-store.ts');

/** One after the other: what is kept of somebody else goes before anything of whoever is signed in now is kept. */
let line: Promise<void> = Promise.resolve();

/** Keeps an answer, while the page goes on. Where this device can't keep anything, it works with a connection alone. */
export function keepAnswer(address: string, answer: unknown): void {
  if (canKeep()) line = line.then(() => keep(address, answer));
}

/** What was still on its way when somebody signed out is nobody's. */
let isSomebodys = false;
/** Once a page what nobody will be shown any more goes. */
let isSwept = false;

const canKeep = () => typeof indexedDB !== 'undefined';

async function keep(address: string, answer: unknown): Promise<void> {
  try {
    const { forgetOlderAnswers, keepOnDevice, keptOnDevice } = await store();
    if (address === SESSION) {
      const before = await keptOnDevice('answers', SESSION);
      if (ownerOf(before?.answer) !== ownerOf(answer)) await forgetAll();
      else if (!isSwept) await forgetOlderAnswers(Date.now() - LONGEST_MS);
      isSwept = true;
      isSomebodys = ownerOf(answer) !== null;
    } else if (!isSomebodys) return;
    await keepOnDevice('answers', address, { answer, at: Date.now() });
  } catch (error) {
    tellUnable(error);
  }
}

/** What was said last, with the time moved on; null where nothing was, or too long ago. */
export async function keptAnswer(address: string): Promise<KeptAnswer | null> {
  if (!canKeep()) return null;
  try {
    const { keptOnDevice } = await store();
    const get = async (at: string) => {
      const kept = await keptOnDevice('answers', at);
      return kept && Date.now() - kept.at < LONGEST_MS ? kept : null;
    };
    const kept = await get(address);
    if (address === WORKSPACE || address === CLOCK) return kept && withTimeMoved(kept);
    if (!SHEET.test(address) || address.includes('?')) return kept;
    // The sheet of today is asked for without its day; what was today is not today for ever.
    const now = await get(WORKSPACE);
    const today = now && dayOf(withTimeMoved(now).answer);
    return today === null || (kept?.answer as { date?: string } | undefined)?.date === today
      ? kept
      : get(`${address}?date=${today}`);
  } catch (error) {
    tellUnable(error);
    return null;
  }
}

/**
 * Of what is shown and what is kept the one to show without a connection: what is shown may hold what came with another
 * answer since, but neither the time nor the day moves on in it. Undefined where there is neither.
 */
export function betterOf(address: string, shown: unknown, kept: KeptAnswer | null): unknown {
  if (kept === null || shown === undefined) return shown ?? kept?.answer;
  if (address === WORKSPACE || address === CLOCK) return kept.answer;
  const isOtherDay =
    SHEET.test(address) && (shown as { date?: string }).date !== (kept.answer as { date?: string }).date;
  return isOtherDay ? kept.answer : shown;
}

/** Lets go of all that is kept to be read. */
export async function forgetAnswers(): Promise<void> {
  if (!canKeep()) return;
  try {
    isSomebodys = false;
    await line;
    await forgetAll();
  } catch (error) {
    tellUnable(error);
  }
}

async function forgetAll(): Promise<void> {
  await (await store()).forgetOnDevice('answers');
  // Not over plain http.
  await globalThis.caches?.delete(PICTURES);
}

function ownerOf(session: unknown): string | null {
  return (session as { person?: { id?: string } | null } | undefined)?.person?.id ?? null;
}

interface Told {
  readonly now: string;
  readonly clockStands: boolean;
}

function withTimeMoved({ answer, at }: KeptAnswer): KeptAnswer {
  const { now, clockStands } = answer as Told;
  return { at, answer: { ...(answer as Told), now: clockStands ? now : movedOn(now, Date.now() - at) } };
}

const dayOf = (answer: unknown): string => (answer as Told).now.slice(0, 10);

let isUnable = false;
function tellUnable(error: unknown): void {
  // A private window, or a full disk: told once, to whoever reads the console.
  if (!isUnable) console.info('Nothing can be kept on this device for later.', error);
  isUnable = true;
}

/** Since when what is shown was not heard from the server, in milliseconds since 1970; null while it answers. */
let asOf: number | null = null;
const listeners = new Set<() => void>();

export function tellAsOf(at: number | null): void {
  const next = at === null || asOf === null ? at : Math.min(at, asOf);
  if (next === asOf) return;
  asOf = next;
  for (const listener of listeners) listener();
}

/** Whether the server was not reached last, or this device says itself that it has no connection. */
export const isWithoutNet = (): boolean => asOf !== null || !navigator.onLine;

/** Calls back when the server is reached again. */
export function onReached(back: () => void): () => void {
  let wasAway = asOf !== null;
  return subscribe(() => {
    if (wasAway && asOf === null) back();
    wasAway = asOf !== null;
  });
}

export function useAsOf(): number | null {
  return useSyncExternalStore(subscribe, () => asOf);
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
