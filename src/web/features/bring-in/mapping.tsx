import type { ReactNode } from 'react';
import { type BringIn, SAME_BY } from '../../../contract/index.ts';
import {
  BRING_WORDS,
  DAY_ORDERS,
  isNewField,
  NEW_FIELDS,
  type NewField,
  plural,
  sayDuration,
} from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank } from '../../kit/blanks.tsx';
import { PersonBlank } from '../people/person-blank.tsx';
import type { Settling } from './api.ts';

interface MappingProps {
  readonly bringIn: BringIn;
  readonly onSettle: (input: Settling) => Promise<boolean>;
}

/** Kinds of which each takes its time. */
const TAKES: Readonly<Partial<Record<BringIn['kind'], true>>> = { tasks: true, templates: true, history: true };

/** Minutes that are offered. */
const LENGTHS = [5, 10, 15, 20, 30, 45, 60, 90, 120, 180, 240, 480];

const OUT = '';

const NEW_FIELD_WORDS = (Object.keys(NEW_FIELDS) as NewField[]).map(
  (key) => [key, `new ${NEW_FIELDS[key].of === 'asset' ? 'asset field' : 'field'}, ${NEW_FIELDS[key].kind}`] as const,
);
const GRID =
  'grid grid-cols-[minmax(90px,1fr)_minmax(120px,1.4fr)_minmax(140px,1.3fr)_minmax(80px,0.9fr)] items-center gap-x-3 px-5 max-[720px]:grid-cols-[minmax(0,1fr)_minmax(140px,1.2fr)] max-[720px]:px-4';

/** What each column becomes, and what has to be told of the file as a whole. */
export function Mapping({ bringIn, onSettle }: MappingProps) {
  const { columns, fields, kind, sameBy, dates, dayOrder, names, people } = bringIn;
  const canAdd = useWorkspace().may('settings');
  const newFields = kind === 'clients' ? NEW_FIELD_WORDS : [];
  const set = (place: number, key: string) => {
    const next = columns.map(({ becomes }, i) =>
      i === place ? key || null : becomes === key && !isNewField(key) ? null : becomes,
    );
    void onSettle({ columns: next });
  };
  const hasDates = columns.some(({ becomes }) =>
    fields.some(({ key, value }) => key === becomes && (value === 'date' || value === 'moment')),
  );
  return (
    <>
      <div className={`${GRID} h-7 border-b border-line-2 text-note text-ink-2`} aria-hidden>
        <span>in the file</span>
        <span className="max-[720px]:hidden">first two lines</span>
        <span>becomes</span>
      </div>
      <ul>
        {columns.map(({ name, becomes, samples, empty, unread }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: columns never move, and two may have one name
          <li key={i} className={`${GRID} min-h-[31px] border-b border-line py-px text-row`}>
            <span
              className={`truncate font-semibold ${becomes === null ? 'text-ink-2 line-through' : ''}`}
              title={name}
            >
              {name}
            </span>
            <span className="truncate text-ink-2 max-[720px]:hidden" title={samples.join(' · ')}>
              {samples.filter(Boolean).join(' · ')}
            </span>
            <ChoiceBlank
              label={`What “${name}” becomes`}
              value={becomes ?? OUT}
              options={[
                [OUT, 'left out'],
                ...fields.map(({ key, name: said }) => [key, said] as const),
                ...newFields.filter(([key]) => canAdd || key === becomes),
              ]}
              onChange={(key) => set(i, key)}
            />
            <span className="truncate text-note max-[720px]:hidden">
              {becomes !== null && unread > 0 ? (
                <b className="font-semibold text-late">{unread} not readable</b>
              ) : (
                <span className="text-ink-2">{sayEmpty(empty, bringIn.rowCount)}</span>
              )}
            </span>
          </li>
        ))}
      </ul>
      {names.example !== null && (
        <Part name="Names">
          {plural(names.count, 'name')} like “{names.example}” {names.count === 1 ? 'is' : 'are'} read{' '}
          <ChoiceBlank
            label="How such names are read"
            value={names.isTurned ? 'turned' : 'written'}
            options={[
              ['written', 'as written'],
              ['turned', `first name first: ${names.turned}`],
            ]}
            onChange={(how) => void onSettle({ turnsNames: how === 'turned' })}
          />
        </Part>
      )}
      {hasDates && (
        <Part name="Dates">
          read{' '}
          <ChoiceBlank
            label="Order of dates"
            value={dayOrder}
            options={DAY_ORDERS.map((order) => [order, order] as const)}
            onChange={(order) => void onSettle({ dayOrder: order })}
          />
          {sayDates(dates, dayOrder)}
        </Part>
      )}
      <PeopleMeant people={people} onSettle={onSettle} />
      {kind in TAKES && <UsualTime bringIn={bringIn} onSettle={onSettle} />}
      <Part name="Same one">
        is a line with the same{' '}
        {SAME_BY[kind].length === 1 ? (
          sameBy
        ) : (
          <ChoiceBlank
            label="The same one"
            value={sameBy}
            options={SAME_BY[kind].map(
              (by) => [by, by.replace('asset, mail or name', 'asset, or mail, or name')] as const,
            )}
            onChange={(by) => void onSettle({ sameBy: by })}
          />
        )}{' '}
        as a {BRING_WORDS[kind].one} you have
      </Part>
    </>
  );
}

/** Whom the file names, and who is meant. */
export function PeopleMeant({
  people,
  onSettle,
}: {
  readonly people: BringIn['people'];
  readonly onSettle: MappingProps['onSettle'];
}) {
  if (people.length === 0) return null;
  return (
    <Part name="People">
      <ul className="flex flex-wrap gap-x-8">
        {people.map(({ key, name, count, personId, isSure }) => (
          <li key={key} className="flex min-w-0 items-baseline gap-2">
            <b className="flex-none font-head font-[650]">{count}</b>
            <span className="min-w-0 truncate">{name}</span>
            <span aria-hidden>→</span>
            <PersonBlank
              label={`Who is meant by “${name}”`}
              personId={personId}
              onChange={(id) => void onSettle({ people: { [key]: id } })}
            />
            {!isSure && <span className="text-note text-ink-2">asked</span>}
          </li>
        ))}
      </ul>
    </Part>
  );
}

/** How long work takes of which the file does not say it. */
export function UsualTime({ bringIn, onSettle }: MappingProps) {
  return (
    <Part name="Time">
      work of which it does not say so takes{' '}
      <ChoiceBlank
        label="How long work takes of which the file does not say it"
        value={bringIn.usualMinutes}
        options={[...new Set([...LENGTHS, bringIn.usualMinutes])].map(
          (minutes) => [minutes, sayDuration(minutes)] as const,
        )}
        onChange={(usualMinutes) => void onSettle({ usualMinutes })}
      />
    </Part>
  );
}

export function Part({ name, children }: { readonly name: string; readonly children: ReactNode }) {
  return (
    <section className="grid grid-cols-[84px_minmax(0,1fr)] border-b border-line px-5 py-1.5 text-row leading-7 max-[720px]:px-4">
      <h2 className="text-body leading-7 text-primary">{name}</h2>
      <div>{children}</div>
    </section>
  );
}

function sayEmpty(empty: number, all: number): string {
  if (empty === 0) return '';
  return empty === all ? `empty in all ${plural(all, 'line')}` : `${empty} ${empty === 1 ? 'has' : 'have'} none`;
}

/** Why the dates are read so; or that nothing in the file tells. */
function sayDates({ order, example, sure, contrary, either }: BringIn['dates'], dayOrder: BringIn['dayOrder']): string {
  if (sure > 0 && order === dayOrder)
    return ` since ${example}${sure > 1 ? ` and ${plural(sure - 1, 'other')}` : ''} can be nothing else`;
  if (contrary > 0) return `, though ${plural(contrary, 'date')} can’t be read so`;
  return either > 0 ? `: ${plural(either, 'date')} could be either, so look whether that is right` : '';
}
