import { messageAddresses } from '../../../../contract/addresses-later.ts';
import { type Chased, MOST_NUDGED } from '../../../../contract/index.ts';
import { type CivilDay, dayOfIso, plural } from '../../../../core/index.ts';
import { useToday } from '../../../app/shell/workspace.tsx';
import { ask } from '../../../kit/api.ts';
import { useLook } from '../../../kit/look.ts';
import { sayDay } from '../../../kit/ways.ts';

/** So many people are told one by one. */
const SHOWN = 6;

const useChased = (tasks: readonly string[]) =>
  useLook(tasks.length === 0 || tasks.length > MOST_NUDGED ? null : { tasks: [...tasks] }, (body) =>
    ask(messageAddresses.chase, { body }),
  );

/** Who has not done some tasks, since when the first of theirs is due, and how often they were told. */
export function ChaseList({ tasks }: { readonly tasks: readonly string[] }) {
  const { look: looked } = useChased(tasks);
  return looked && looked.people.length > 0 ? <People people={looked.people} /> : null;
}

/** Each with their tasks, since when and how often told; of many the first. */
export function People({ people }: Chased) {
  const today = useToday();
  const rest = people.length - SHOWN;
  return (
    <ul
      className={`max-w-[1000px] gap-x-6 text-row leading-5.5 max-[900px]:columns-1 ${people.length > 1 ? 'columns-2' : ''}`}
      aria-label="Who has not done them"
    >
      {people.slice(0, SHOWN).map(({ id, name, tasks: theirs }) => (
        <li key={id} className="flex break-inside-avoid flex-wrap gap-x-3">
          <b className="font-semibold">{name}</b>
          <span>{plural(theirs.length, 'task')}</span>
          <span className="text-ink-2">{sayChased(theirs, today)}</span>
        </li>
      ))}
      {rest > 0 && <li className="text-ink-2">and {plural(rest, 'more person', 'more people')}</li>}
    </ul>
  );
}

/** The same of one task, in a few words; nothing where it is done, or nobody's. */
export function ToldOften({ taskId }: { readonly taskId: string }) {
  const today = useToday();
  const { look: looked } = useChased([taskId]);
  const [task] = looked?.people[0]?.tasks ?? [];
  if (!task) return null;
  return (
    <>
      {task.told === 0 ? 'not yet' : sayTold([task], today)}
      <span className="text-ink-2">, theirs since {sayDay(dayOfIso(task.since.slice(0, 10)), today)}</span>
    </>
  );
}

type Tasks = Chased['people'][number]['tasks'];

/** "the first due Fri 20 Nov, told 3 times, last yesterday" */
export function sayChased(tasks: Tasks, today: CivilDay): string {
  const [first] = tasks;
  if (!first) return '';
  const due = `${tasks.length > 1 ? 'the first ' : ''}due ${sayDay(dayOfIso(first.dueOn), today)}`;
  return `${due}, ${sayTold(tasks, today)}`;
}

const OFTEN: Readonly<Record<number, string>> = { 1: 'once', 2: 'twice' };

function sayTold(tasks: Tasks, today: CivilDay): string {
  const times = tasks.reduce((sum, { told }) => sum + told, 0);
  const last =
    tasks
      .map(({ toldAt }) => toldAt ?? '')
      .sort()
      .at(-1) ?? '';
  if (times === 0) return 'never told';
  const when = dayOfIso(last.slice(0, 10));
  const on = when === today ? 'today' : when === today - 1 ? 'yesterday' : sayDay(when, today);
  return `told ${OFTEN[times] ?? `${times} times`}, last ${on}`;
}
