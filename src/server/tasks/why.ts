import {
  dayOfIso,
  isDated,
  planDays,
  revisionOn,
  sayDate,
  sayDay,
  sayNear,
  sayOffset,
  weekdayName,
  weekdayOf,
  writePhrase,
} from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { Run } from '../runs/index.ts';
import { partsOf, readableSchedule, scheduleRows } from '../schedules/index.ts';
import { TaskRecord } from './stored/index.ts';

/** Why a task is here, on this day: each step from the rule to the date, as a sentence. */
export async function whyHere(scope: Scope, id: string): Promise<string[]> {
  const task = await scope.one(TaskRecord, id, 'task');
  const made = `Made ${await madeBy(scope, task)}, ${sayMoment(scope, task.madeAt)}.`;
  if (task.scheduleId === null || task.nominalDate === null) return [made];
  const [row] = await scheduleRows(scope, { ids: [task.scheduleId] });
  if (!row) return [made];
  const calendar = await scope.calendar();
  const { day: today } = scope.now;
  const schedule = readableSchedule(scope, row);
  if (!schedule) return ['The rule of its schedule can’t be read any more.', made];
  const nominal = dayOfIso(task.nominalDate);
  const said = [
    `The rule “${writePhrase(revisionOn(schedule, task.nominalDate).recurrence, { start: 'unsaid', yearStarts: scope.workspace.yearStarts })}” gives ${sayDate(nominal)}, a ${weekdayName(weekdayOf(nominal))}.`,
  ];
  const around = 62;
  const occurrence = planDays(schedule, calendar, nominal - around, nominal + around).find(
    (one) => one.nominal === nominal,
  );
  if (!occurrence)
    said.push('The schedule has been changed since: it no longer gives this date, and this task was left as it was.');
  else if (!isDated(occurrence))
    said.push(`By now it would be left out (${occurrence.because}); this task was there before.`);
  else {
    if (occurrence.isAdded) said.push('It was added by hand, beside the rule.');
    if (occurrence.moved === 'by hand') said.push(`It was moved by hand to ${sayDate(occurrence.on)}.`);
    if (occurrence.moved === 'day off') {
      const holiday = calendar.holidayName(nominal);
      said.push(`${holiday ?? 'That'} is a day off, so it is worked on ${sayDate(occurrence.on)}.`);
    }
    const part = partsOf(row).find(({ key }) => key === task.stepKey);
    if (task.stepKey !== '') {
      said.push(
        part
          ? `This is a task of its own in the set: ${sayOffset(part.offset)} (${sayDate(dayOfIso(task.workOn))}).`
          : 'The template no longer has this step.',
      );
    }
  }
  if (task.edited.includes('workOn'))
    said.push(`Somebody gave it another day by hand: ${sayDate(dayOfIso(task.workOn))}.`);
  said.push(`It is seen from ${sayDay(dayOfIso(task.appearsOn), today)} on.`, made);
  return said;
}

async function madeBy(scope: Scope, { runId, scheduleId }: TaskRecord): Promise<string> {
  if (scheduleId === null) return 'by hand';
  if (runId === null) return 'when its schedule was saved';
  const [run] = await scope.find(Run, { id: runId });
  const words = {
    daily: 'by the daily run',
    startup: 'when the server started',
    byHand: 'by a run by hand',
    fill: 'by a fill',
  };
  return run ? words[run.why] : 'by a run';
}

function sayMoment(scope: Scope, at: Date): string {
  const [date = '', time = ''] = scope.moment(at).split('T');
  return `${sayNear(dayOfIso(date), scope.now.day)} at ${time}`;
}
