import { taskAddresses } from '../../../contract/addresses.ts';
import { callAddresses } from '../../../contract/addresses-later.ts';
import type { CallDay, DaySheet, Task } from '../../../contract/index.ts';
import { type CivilDay, isoOfDay } from '../../../core/index.ts';
import { addressOf, ProblemError, request } from '../../kit/api.ts';
import { keepAnswer, keptAnswer } from '../../kit/kept-answers.ts';
import { PICTURES } from '../../kit/picture-cache.ts';
import { addressOfSmall } from '../files/upload.ts';

/** Today and a week. */
const DAYS = 8;
/** Between two questions: this goes on beside what somebody waits for. */
const PAUSE_MS = 150;

/** Files, of the task and of its template, come and go without its version: it is asked for again after so long. */
const FRESH_MS = 2 * 60 * 60 * 1000;

const pause = () => new Promise((resolve) => setTimeout(resolve, PAUSE_MS));

/**
 * Takes today and the coming week of somebody along on this device, each task with its instructions and pictures, so that
 * they can be read without a net. One thing after the other; what has come to the device a short while ago, and has not
 * changed since, is not asked for again.
 * Ends quietly where the connection does.
 */
export async function takeAlong(personId: string, today: CivilDay, signal: AbortSignal): Promise<void> {
  try {
    for (let day = 0; day < DAYS && !signal.aborted; day++) await takeDay(personId, isoOfDay(today + day), signal);
    await takeCalls(personId, isoOfDay(today), signal);
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error;
  }
}

async function takeDay(personId: string, date: string, signal: AbortSignal): Promise<void> {
  const address = addressOf(taskAddresses.daySheet, { params: { personId }, query: { date } });
  const sheet = (await request('GET', address)) as DaySheet;
  keepAnswer(address, sheet);
  for (const line of [...sheet.late, ...sheet.thisDay]) {
    if (signal.aborted) return;
    const at = addressOf(taskAddresses.one, { params: { taskId: line.id } });
    const kept = await keptAnswer(at);
    const task = kept?.answer as Task | undefined;
    const stands = kept !== null && task?.version === line.version && Date.now() - kept.at < FRESH_MS;
    await takePictures(stands && task ? task : await takeTask(at), signal);
  }
}

/** The list of today, each call with what is known of the client. */
async function takeCalls(person: string, on: string, signal: AbortSignal): Promise<void> {
  const address = addressOf(callAddresses.day, { query: { person, on } });
  const list = (await request('GET', address)) as CallDay;
  keepAnswer(address, list);
  for (const { id } of list.calls.filter(({ state }) => state === 'open')) {
    if (signal.aborted) return;
    await pause();
    const at = addressOf(callAddresses.before, { params: { callId: id } });
    keepAnswer(at, await request('GET', at));
  }
}

async function takeTask(address: string): Promise<Task> {
  await pause();
  const task = (await request('GET', address)) as Task;
  keepAnswer(address, task);
  return task;
}

/** Their small forms, as they are shown; the service worker keeps them as they pass. */
async function takePictures({ files, templateFiles, instructions }: Task, signal: AbortSignal): Promise<void> {
  // On the first page of all it is not there yet: they are taken when it is.
  if (!navigator.serviceWorker?.controller) return;
  const small = [...templateFiles, ...files].filter(({ isPicture }) => isPicture).map(({ id }) => addressOfSmall(id));
  const shown = [...instructions.matchAll(/\/api\/files\/[0-9a-f-]{36}(?:\/small)?/g)].map(([address]) => address);
  const cache = await caches.open(PICTURES);
  for (const address of new Set([...small, ...shown])) {
    if (signal.aborted) return;
    if (await cache.match(address)) continue;
    await pause();
    // Without a connection it is taken another time.
    await fetch(address, { signal }).catch(() => null);
  }
}
