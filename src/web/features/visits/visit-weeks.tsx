import type { VisitWeek } from '../../../contract/index.ts';
import { dayOfIso, mondayOf, NOTICE_STATES, type NoticeState } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { sayDayOfMonth } from '../../kit/ways.ts';
import { NoticeSheet } from './notice-sheet.tsx';

/** Up to so many of a week are drawn one by one. */
const DRAWN = 15;

/** One sheet a visit, week by week. */
export function VisitWeeks({ weeks }: { readonly weeks: readonly VisitWeek[] }) {
  const today = useToday();
  const monday = mondayOf(today);
  return (
    <section
      aria-label="Notices by the week"
      className="flex flex-none border-b border-line-2 max-[720px]:hidden print:hidden"
    >
      <h2 className="w-[152px] flex-none py-1.5 pr-2 pl-5 text-row leading-4.5">
        <b className="block font-head text-body font-[650]">Notices</b>
        <span className="font-sans text-note font-normal text-ink-2">one sheet a visit</span>
      </h2>
      <ol
        className="grid min-w-0 flex-1 overflow-x-auto"
        style={{ gridTemplateColumns: `repeat(${weeks.length}, minmax(84px, 1fr))` }}
      >
        {weeks.map((week) => {
          const count = week.made + week.foreseen;
          const isThis = dayOfIso(week.monday) === monday;
          return (
            <li key={week.monday} className={`border-l border-line px-1.5 pt-1 pb-1.5 ${isThis ? 'bg-chosen' : ''}`}>
              <span className="flex justify-between text-note leading-5">
                <span className={isThis ? 'font-semibold' : 'text-ink-2'}>{sayDayOfMonth(dayOfIso(week.monday))}</span>
                {count > 0 && <b className="font-head text-row font-[650]">{count}</b>}
              </span>
              <WeekSheets week={week} />
            </li>
          );
        })}
      </ol>
    </section>
  );
}

const STATE_WORDS: Readonly<Record<NoticeState, string>> = {
  tooLate: 'too late',
  refused: 'did not arrive',
  elsewhere: 'for another day',
  notWritten: 'not written',
  written: 'written',
  onItsWay: 'on its way',
  received: 'received',
  notNeeded: 'not needed',
};

/** Names for as many that are all alike. */
const named = (what: string, count: number): string[] => Array.from({ length: count }, (_, i) => `${what} ${i}`);

function WeekSheets({ week: { states, made, foreseen } }: { readonly week: VisitWeek }) {
  if (made + foreseen === 0) return <span className="text-note leading-5 text-ink-2">none</span>;
  const parts = NOTICE_STATES.flatMap((state) => (states[state] ? [{ state, count: states[state] }] : []));
  const words = [
    ...parts.map(({ state, count }) => `${count} ${STATE_WORDS[state]}`),
    ...(foreseen > 0 ? [`${foreseen} not made yet`] : []),
  ].join(', ');
  return (
    <span role="img" aria-label={words} title={words} className="flex flex-wrap gap-x-0.5 gap-y-px">
      {made + foreseen <= DRAWN
        ? [
            ...parts.flatMap(({ state, count }) =>
              named(state, count).map((key) => <NoticeSheet key={key} state={state} />),
            ),
            ...named('mast', foreseen).map((key) => <NoticeSheet key={key} state="notWritten" isForeseen />),
          ]
        : [
            ...parts.map(({ state, count }) => (
              <span key={state} className="mr-1 inline-flex items-center text-note leading-4">
                <NoticeSheet state={state} />
                {count}
              </span>
            )),
            ...(foreseen > 0
              ? [
                  <span key="mast" className="inline-flex items-center text-note leading-4">
                    <NoticeSheet state="notWritten" isForeseen />
                    {foreseen}
                  </span>,
                ]
              : []),
          ]}
    </span>
  );
}
