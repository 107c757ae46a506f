import {
  type Assigner,
  type Assignment,
  callNames,
  type DatedOccurrence,
  plural,
  sayHours,
  weekdayOf,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { kindOf } from './who-faces.ts';

interface YearOfPeopleProps {
  readonly dated: readonly DatedOccurrence[];
  readonly whose: Assigner;
  readonly minutes: number;
  readonly chosenId: string | null;
}

interface OfOne {
  readonly personId: string;
  dates: number;
  covers: number;
  weekends: number;
}

/** How a year of it falls to each: dates, those that they cover for others, those at weekends, and hours. */
export function YearOfPeople({ dated, whose, minutes, chosenId }: YearOfPeopleProps) {
  const called = callNames(useWorkspace().people);
  const { all, nobody } = countOf(dated, whose);
  const most = Math.max(1, ...all.map(({ dates }) => dates));
  const sum = (figure: 'dates' | 'covers' | 'weekends') => all.reduce((total, one) => total + one[figure], 0);
  const even = Math.round(sum('dates') / Math.max(1, all.length));
  const hours = (dates: number) => (minutes > 0 ? sayHours(dates * minutes) : '–');
  return (
    <table className="tt is-static mt-1 [&_td]:h-[33px] [&_td]:px-0 [&_th]:px-0">
      <colgroup>
        <col />
        <col style={{ width: 38 }} />
        <col style={{ width: 76 }} />
        <col style={{ width: 48 }} />
        <col style={{ width: 70 }} />
        <col style={{ width: 48 }} />
      </colgroup>
      <thead>
        <tr>
          <th scope="col">a year of it</th>
          <th scope="col" className="text-right">
            dates
          </th>
          <th scope="col">
            <span className="sr-only">as a bar</span>
          </th>
          <th scope="col" className="text-right">
            covers
          </th>
          <th scope="col" className="text-right">
            weekends
          </th>
          <th scope="col" className="text-right">
            hours
          </th>
        </tr>
      </thead>
      <tbody>
        {all.map((one) => (
          <tr key={one.personId} className={one.personId === chosenId ? 'bg-chosen' : ''}>
            <td className={one.personId === chosenId ? 'font-semibold' : ''}>
              {called.get(one.personId) ?? 'not here'}
            </td>
            <td className="text-right">{one.dates}</td>
            <td>
              <span className="mx-2 block h-[9px] bg-petrol-3" aria-hidden>
                <i
                  className={`block h-full ${one.personId === chosenId ? 'bg-primary' : 'bg-petrol-2'}`}
                  style={{ width: `${(100 * one.dates) / most}%` }}
                />
              </span>
            </td>
            <td className="text-right">{one.covers || '·'}</td>
            <td className="text-right">{one.weekends || '·'}</td>
            <td className="text-right">{hours(one.dates)}</td>
          </tr>
        ))}
        {nobody > 0 && (
          <tr className="font-semibold">
            <td>nobody</td>
            <td className="text-right">{nobody}</td>
            <td colSpan={4} />
          </tr>
        )}
        <tr className="font-semibold">
          <td>All {all.length}</td>
          <td className="text-right">{sum('dates')}</td>
          <td className="!pl-2 text-note font-normal text-ink-2">{all.length > 1 && `even: ${even}`}</td>
          <td className="text-right">{sum('covers') || '·'}</td>
          <td className="text-right">{sum('weekends') || '·'}</td>
          <td className="text-right">{hours(sum('dates'))}</td>
        </tr>
      </tbody>
      <caption className="sr-only">{plural(dated.length, 'date')} of the coming year by person</caption>
    </table>
  );
}

function countOf(dated: readonly DatedOccurrence[], whose: Assigner): { all: OfOne[]; nobody: number } {
  const byPerson = new Map<string, OfOne>();
  let nobody = 0;
  for (const occurrence of dated) {
    const assignment: Assignment = whose(occurrence);
    if (assignment.kind !== 'one') {
      nobody++;
      continue;
    }
    const { personId } = assignment;
    const one = byPerson.get(personId) ?? { personId, dates: 0, covers: 0, weekends: 0 };
    one.dates++;
    if (kindOf(assignment) === 'covers') one.covers++;
    if (weekdayOf(occurrence.on) >= 6) one.weekends++;
    byPerson.set(personId, one);
  }
  return { all: [...byPerson.values()].sort((a, b) => b.dates - a.dates), nobody };
}
