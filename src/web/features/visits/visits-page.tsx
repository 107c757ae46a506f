import { Fragment, useMemo } from 'react';
import { Link, Outlet, useLocation, useNavigate } from 'react-router';
import type { VisitFilter, VisitLine, VisitWeek } from '../../../contract/index.ts';
import { dayOfIso, groupBy, isToSend, mondayOf, type NoticeState, plural, visitTimes } from '../../../core/index.ts';
import { type TideControl, useTide } from '../../app/shell/shell-context.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useAddressFilter } from '../../kit/address-filter.ts';
import { moveThroughRows } from '../../kit/arrow-rows.ts';
import { useChosen } from '../../kit/chosen.ts';
import { DateBlock } from '../../kit/date-block.tsx';
import { FilterChoice } from '../../kit/filter-choice.tsx';
import { FilterOff } from '../../kit/filter-off.tsx';
import { Empty, NotAll, Skeleton, Trouble } from '../../kit/states.tsx';
import { sayNear, sayShortDay } from '../../kit/ways.ts';
import { useVisits, useVisitWeeks } from './api.ts';
import { ChosenVisits } from './chosen-visits.tsx';
import { NoticeSheet } from './notice-sheet.tsx';
import { sayHours, sayNotice, saySum, sumOfStates } from './notice-words.ts';
import { VisitWeeks } from './visit-weeks.tsx';

/** Visits at clients' in the coming weeks, with how far the notice of each is. */
export function VisitsPage() {
  const { today, visits: rules, people, may } = useWorkspace();
  const { search, set } = useAddressFilter();
  const filter: VisitFilter = {
    ...(search.get('type') ? { workType: search.get('type') ?? '' } : {}),
    ...(search.get('person') ? { person: search.get('person') ?? '' } : {}),
    ...(search.get('notice') === 'toSend' ? { toSend: 'yes' as const } : {}),
    ...(/^\d{1,3}$/.test(search.get('within') ?? '') ? { sendWithin: Number(search.get('within')) } : {}),
  };
  const { data: sums, error, mutate } = useVisitWeeks(filter);
  const list = useVisits(filter);
  const days = useMemo(
    () =>
      list.lines.flatMap(({ standing: { state, sendBy } }) => (isToSend(state) && sendBy ? [dayOfIso(sendBy)] : [])),
    [list.lines],
  );
  useTide(
    useMemo<TideControl>(() => ({ chosen: null, spans: false, marks: { days, label: 'notice to send by' } }), [days]),
  );
  const hasRules = rules.terms.length > 0;
  return (
    <div className="flex min-h-0 flex-1">
      <div className="@container flex min-w-0 flex-1 flex-col">
        <title>Visits · Jolly Rota</title>
        <div className="page-head">
          <h1>Visits</h1>
          <span className="text-row text-ink-2">
            {sums ? `${sums.weeks.length} weeks from ${sayShortDay(mondayOf(today))}` : ''}
          </span>
          <FilterChoice
            label="Type of work"
            value={search.get('type') ?? ''}
            options={[['', 'every type'], ...rules.terms.map(({ type }) => [type, type] as const)]}
            onChange={(type) => set({ type })}
          />
          <FilterChoice
            label="Who comes"
            value={search.get('person') ?? ''}
            options={[['', 'any person'], ...people.map(({ id, name }) => [id, name] as const)]}
            onChange={(person) => set({ person })}
          />
          <FilterChoice
            label="Notices"
            value={search.get('notice') ?? ''}
            options={[
              ['', 'every notice'],
              ['toSend', 'notice to send'],
            ]}
            onChange={(notice) => set({ notice, within: '' })}
          />
          {filter.sendWithin !== undefined && (
            <FilterOff words={`within ${plural(filter.sendWithin, 'day')}`} onOff={() => set({ within: '' })} />
          )}
          <span className="ml-auto text-row whitespace-nowrap text-ink-2" role="status">
            {sums && saySum(sumOfStates(sums.weeks))}
          </span>
          {may('plan') && (
            <Link className="btn" to="/tasks/visits/letters">
              Letters
            </Link>
          )}
        </div>
        {error && !sums && <Trouble error={error} retry={() => void mutate()} />}
        {!error && !sums && <Skeleton rows={14} />}
        {sums && !hasRules && <NothingAnnounced />}
        {sums && hasRules && (
          <>
            <VisitWeeks weeks={sums.weeks} />
            <VisitTable key={JSON.stringify(filter)} weeks={sums.weeks} list={list} isNarrowed={search.size > 0} />
          </>
        )}
      </div>
      <Outlet />
    </div>
  );
}

function NothingAnnounced() {
  const { may } = useWorkspace();
  return (
    <Empty title="No visit has to be announced yet.">
      Say which types of work are announced to a client, how many days before and by which way:{' '}
      {may('settings') ? (
        <Link className="link-line" to="/settings">
          in the settings, under Visits
        </Link>
      ) : (
        'a manager does that in the settings, under Visits'
      )}
      . Work of such a type for a client then stands here.
    </Empty>
  );
}

interface VisitTableProps {
  readonly weeks: readonly VisitWeek[];
  readonly list: ReturnType<typeof useVisits>;
  readonly isNarrowed: boolean;
}

/** A visit that is made, which can be chosen. */
type MadeVisit = VisitLine & { readonly id: string };

function VisitTable({ weeks, list, isNarrowed }: VisitTableProps) {
  const { may, today } = useWorkspace();
  const { lines, isHere, isMore, more, error, again } = list;
  const made = useMemo(
    () => lines.flatMap((line): MadeVisit[] => (line.taskId === null ? [] : [{ ...line, id: line.taskId }])),
    [lines],
  );
  const { chosen, choose, clear } = useChosen(made);
  const places = useMemo(() => new Map(made.map(({ id }, i) => [id, i])), [made]);
  const mayPlan = may('plan');
  if (error && !isHere) return <Trouble error={error} retry={again} />;
  if (!isHere) return <Skeleton rows={12} />;
  if (lines.length === 0)
    return isNarrowed ? (
      <Empty title="No visit fits.">Take a word out above.</Empty>
    ) : (
      <Empty title="No visit in the coming weeks.">
        Work of a type that is announced stands here as soon as it is planned for a client.
      </Empty>
    );
  const thisWeek = mondayOf(today);
  const byWeek = [...groupBy(lines, ({ on }) => Math.max(thisWeek, mondayOf(dayOfIso(on))))];
  return (
    <>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: arrows go through the rows of the table within */}
      <div className="min-h-0 flex-1 overflow-y-auto" onKeyDown={moveThroughRows}>
        <table className="w-full table-fixed border-collapse text-row">
          <colgroup>
            <col className="w-[152px] @max-[640px]:hidden" />
            <col className="w-8 @max-[640px]:w-11" />
            <col className="w-[108px]" />
            <col className="w-[96px] @max-[1080px]:hidden" />
            <col />
            <col className="w-[84px] @max-[840px]:hidden" />
            <col className="w-[92px] @max-[840px]:hidden" />
            <col className="w-[124px] @max-[960px]:hidden" />
            <col className="w-[210px] @max-[640px]:hidden" />
            <col className="w-[112px] @max-[640px]:hidden" />
            <col className="w-[92px] @max-[960px]:hidden" />
          </colgroup>
          <thead className="sticky top-0 z-1 bg-base-100 text-left text-note text-ink-2">
            <tr className="[&>th]:py-1 [&>th]:font-normal">
              <th scope="col" className="@max-[640px]:hidden" aria-label="Week" />
              <th scope="col" aria-label="Choose" />
              <th scope="col">visit</th>
              <th scope="col" className="@max-[1080px]:hidden" aria-label="Hours" />
              <th scope="col">vessel and client</th>
              <th scope="col" className="@max-[840px]:hidden">
                place
              </th>
              <th scope="col" className="@max-[840px]:hidden">
                type
              </th>
              <th scope="col" className="@max-[960px]:hidden">
                who comes
              </th>
              <th scope="col" className="@max-[640px]:hidden">
                notice
              </th>
              <th scope="col" className="@max-[640px]:hidden">
                send by
              </th>
              <th scope="col" className="@max-[960px]:hidden">
                next one
              </th>
            </tr>
          </thead>
          <tbody>
            {byWeek.map(([monday, of]) => {
              const week = weeks.find((one) => dayOfIso(one.monday) === monday);
              return (
                <Fragment key={monday}>
                  {of.map((line, i) => (
                    <VisitRow
                      key={line.taskId ?? `${line.scheduleId} ${line.on}`}
                      line={line}
                      isFirst={i === 0}
                      week={i === 0 ? (week ?? null) : null}
                      rows={of.length}
                      isChosen={chosen.some(({ taskId }) => taskId === line.taskId)}
                      onChoose={
                        mayPlan && line.taskId !== null
                          ? (how) => choose(places.get(line.taskId ?? '') ?? 0, how)
                          : null
                      }
                    />
                  ))}
                </Fragment>
              );
            })}
          </tbody>
        </table>
        {error && <NotAll error={error} retry={again} />}
        {isMore && (
          <button type="button" className="link-line mx-5 my-2 text-note" onClick={more}>
            Show more
          </button>
        )}
      </div>
      {chosen.length > 0 && <ChosenVisits chosen={chosen} onClear={clear} />}
    </>
  );
}

interface VisitRowProps {
  readonly line: VisitLine;
  readonly isFirst: boolean;
  /** What stands in the margin; null for what does not begin a week. */
  readonly week: VisitWeek | null;
  readonly rows: number;
  readonly isChosen: boolean;
  /** Null for what can't be chosen. */
  readonly onChoose: ((how: 'one' | 'range') => void) | null;
}

const LATE_STATES: ReadonlySet<NoticeState> = new Set(['tooLate', 'refused', 'elsewhere']);

function VisitRow({ line, isFirst, week, rows, isChosen, onChoose }: VisitRowProps) {
  const { today, visits } = useWorkspace();
  const navigate = useNavigate();
  const { taskId, scheduleId, on, client, asset, workType, who, standing, notice, next } = line;
  const times = visitTimes(line, visits, workType);
  const day = dayOfIso(on);
  const isLate = LATE_STATES.has(standing.state) && taskId !== null;
  const { search } = useLocation();
  const to = taskId === null ? `/schedules/${scheduleId}` : `/tasks/visits/task/${taskId}${search}`;
  const sum = week && sumOfStates([week]);
  const name = asset?.name ?? client.name;
  const told = (
    <span className="inline-flex max-w-full items-center gap-1.5 align-middle">
      <NoticeSheet state={standing.state} isForeseen={taskId === null} isWritten={notice?.way != null} />
      <span className="truncate">{sayNotice(line, today)}</span>
    </span>
  );
  return (
    <tr
      data-row
      tabIndex={-1}
      className={`border-t align-middle ${isFirst ? 'border-line-2' : 'border-line'} ${isChosen ? 'bg-chosen' : ''} focus:outline-none focus-visible:shadow-[inset_0_0_0_2px_var(--color-primary)]`}
      onKeyDown={(event) => {
        if (event.target !== event.currentTarget) return;
        if (event.key === ' ' && onChoose) {
          event.preventDefault();
          onChoose(event.shiftKey ? 'range' : 'one');
        } else if (event.key === 'Enter') void navigate(to);
      }}
    >
      {isFirst && (
        <th
          scope="rowgroup"
          rowSpan={rows}
          className="bg-base-100 pt-1 pr-2 pl-5 text-left align-top font-normal @max-[640px]:hidden"
        >
          <DateBlock day={Math.max(mondayOf(today), mondayOf(day))} />
          {sum && (
            <span className="block text-note leading-4 text-ink-2">
              {plural(sum.visits, 'visit')}
              {sum.toSend > 0 ? `, ${sum.toSend} to send` : ''}
            </span>
          )}
        </th>
      )}
      <td className="h-7 @max-[640px]:h-12 @max-[640px]:pl-4">
        {onChoose && (
          <input
            type="checkbox"
            className="check block"
            aria-label={`Choose ${name}, ${sayShortDay(day)}`}
            checked={isChosen}
            onChange={(event) => onChoose((event.nativeEvent as MouseEvent).shiftKey ? 'range' : 'one')}
          />
        )}
      </td>
      <td>
        <DateBlock day={day} {...(day < today ? { look: 'late' as const } : {})} />
      </td>
      <td className="text-note whitespace-nowrap text-ink-2 @max-[1080px]:hidden">
        {sayHours(times.startTime, times.dueTime)}
      </td>
      <td className="truncate">
        <Link className="hover:underline" to={to}>
          <b className="font-semibold">{name}</b>
        </Link>{' '}
        {asset && <span className="text-ink-2">{client.name}</span>}
        {/* Where there is no room for columns it stands below. */}
        <span className={`hidden truncate text-note @max-[640px]:block ${isLate ? 'text-late' : 'text-ink-2'}`}>
          {told}
        </span>
      </td>
      <td className="truncate @max-[840px]:hidden">{asset?.place}</td>
      <td className="truncate @max-[840px]:hidden">{workType}</td>
      <td className={`truncate @max-[960px]:hidden ${who === null ? 'text-ink-2' : ''}`}>{who ?? 'nobody yet'}</td>
      <td className={`truncate @max-[640px]:hidden ${isLate ? 'font-semibold text-late' : ''}`}>{told}</td>
      <td
        className={`@max-[640px]:hidden ${isLate ? 'text-late' : isToSend(standing.state) && taskId !== null ? '' : 'text-ink-2'}`}
      >
        {standing.sendBy !== null && sayNear(dayOfIso(standing.sendBy), today)}
      </td>
      <td className="whitespace-nowrap text-ink-2 @max-[960px]:hidden">
        {next === null ? 'none' : sayShortDay(dayOfIso(next))}
      </td>
    </tr>
  );
}
