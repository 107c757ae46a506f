import { useNavigate, useParams } from 'react-router';
import type { Clocking, Leave, Member } from '../../../../contract/index.ts';
import {
  callNames,
  dayOfIso,
  groupBy,
  hasLeftBy,
  isHereOn,
  isoOfDay,
  minutesAWeek,
  ordinal,
  type Shift,
  sayDayHours,
  sayRoles,
  weekInPattern,
} from '../../../../core/index.ts';
import { useToday, useWorkspace } from '../../../app/shell/workspace.tsx';
import { sayDay, sayDayOfMonth, sayNear } from '../../../kit/ways.ts';
import { sayOn } from '../clock/clock-line.tsx';
import { sayCount, sayLeaveDays } from '../leave/leave-words.ts';
import { sayShifts, shiftsOf } from './shift-words.ts';
import type { Grouping } from './team-page.tsx';
import { WeekBars } from './week-bars.tsx';

interface TeamTableProps {
  readonly members: readonly Member[];
  /** The Mondays of the two weeks whose load is shown. */
  readonly weeks: readonly string[];
  readonly grouping: Grouping;
  /** Leave that is not over, by person. */
  readonly leave: ReadonlyMap<string, readonly Leave[]>;
  /** Who is on now, by person. */
  readonly onNow: ReadonlyMap<string, Clocking>;
}

/** As many columns as the table has room for beside an open sheet. */
const COLUMNS =
  'grid grid-cols-[92px_minmax(140px,1.1fr)_92px_52px_92px_92px_minmax(90px,0.8fr)_minmax(150px,1.1fr)_minmax(110px,0.8fr)_minmax(150px,1.1fr)] items-center gap-x-3 pr-5 @max-[1180px]:grid-cols-[92px_minmax(140px,1.1fr)_92px_52px_92px_92px_minmax(90px,0.8fr)_minmax(150px,1.1fr)_minmax(150px,1.1fr)] @max-[1060px]:grid-cols-[92px_minmax(140px,1.1fr)_92px_52px_92px_92px_minmax(90px,0.8fr)_minmax(150px,1.1fr)] @max-[920px]:grid-cols-[92px_minmax(140px,1.1fr)_92px_52px_92px_92px_minmax(130px,1.1fr)] @max-[660px]:grid-cols-[minmax(0,1fr)_100px] @max-[660px]:px-4';
/** Where it is widest. */
const WIDEST = '@max-[1180px]:hidden';
const WIDE = '@max-[1060px]:hidden';
const ROOMY = '@max-[920px]:hidden';
const MIDDLE = '@max-[660px]:hidden';

/** People in groups, a line each; those who have left stand at the end. */
export function TeamTable({ members, weeks, grouping, leave, onNow }: TeamTableProps) {
  const today = useToday();
  const here = members.filter((member) => !hasLeftBy(member, today));
  const left = members.filter((member) => hasLeftBy(member, today));
  const groups = [...groupBy(here, groupOf(grouping))].sort(
    ([a], [b]) => Number(a === '') - Number(b === '') || a.localeCompare(b),
  );
  return (
    <div className="@container min-h-0 flex-1 overflow-y-auto border-t border-line-2 max-[720px]:flex-none max-[720px]:overflow-visible">
      <div
        className={`${COLUMNS} sticky top-0 z-1 h-7 border-b border-line-2 bg-base-100 text-note text-ink-2`}
        aria-hidden
      >
        <span className={MIDDLE} />
        <span>name, access</span>
        <span className={MIDDLE}>M T W T F S S</span>
        <span className={`${MIDDLE} text-right`}>hours</span>
        {weeks.map((monday, i) => (
          <span key={monday} className={`text-right ${i > 0 ? MIDDLE : ''}`}>
            {i === 0 ? 'this week' : sayDayOfMonth(dayOfIso(monday))}
          </span>
        ))}
        <span className={ROOMY}>team</span>
        <span className={MIDDLE}>away next, covered by</span>
        <span className={WIDEST}>next turn, place</span>
        <span className={WIDE}>telephone and mail</span>
      </div>
      {groups.map(([name, people]) => (
        <Group key={name} name={name || 'none yet'} people={people} leave={leave} onNow={onNow} />
      ))}
      <Sum members={here} />
      {left.length > 0 && <Group name="left" people={left} leave={leave} onNow={onNow} />}
    </div>
  );
}

function groupOf(grouping: Grouping): (member: Member) => string {
  switch (grouping) {
    case 'role':
      return ({ roles }) => roles[0] ?? '';
    case 'team':
      return ({ team }) => team ?? '';
    case 'access':
      return ({ access }) => access;
  }
}

function Group({
  name,
  people,
  leave,
  onNow,
}: Pick<TeamTableProps, 'leave' | 'onNow'> & { readonly name: string; readonly people: readonly Member[] }) {
  return (
    <section aria-label={name} className="border-b border-line-2">
      {people.map((member, i) => (
        <Line
          key={member.id}
          member={member}
          leave={leave.get(member.id) ?? []}
          now={onNow.get(member.id)}
          group={i === 0 ? name : null}
        />
      ))}
    </section>
  );
}

function Line({
  member,
  leave,
  now,
  group,
}: {
  readonly member: Member;
  readonly leave: readonly Leave[];
  readonly now: Clocking | undefined;
  readonly group: string | null;
}) {
  const { today, people, workingCalendar } = useWorkspace();
  const navigate = useNavigate();
  const { personId } = useParams();
  const isOpen = member.id === personId;
  const { name, weeks, weeksFrom, roles, team, telephone, email, nextTurn } = member;
  const [, ...others] = roles;
  const away = awayNext(leave);
  const shifts = shiftsOf(member, leave, today, workingCalendar.holidayName(today) !== undefined);
  // Chosen for the leave that is next, else as a rule.
  const chosen = away?.cover?.name ?? 'deputy';
  const covers = typeof chosen === 'string' ? member.deputyId : chosen.personId;
  const cover = chosen === 'nobody' ? 'nobody' : callNames(people).get(covers ?? '');
  return (
    <>
      {group !== null && <h2 className="hidden px-4 pt-2 text-row text-primary @max-[660px]:block">{group}</h2>}
      <div
        className={`${COLUMNS} relative min-h-[37px] text-row ${isOpen ? 'bg-chosen shadow-[inset_3px_0_0_var(--color-accent)]' : 'hover:bg-base-200'}`}
      >
        <span
          className={`${MIDDLE} self-start pt-1.5 pl-5 font-head text-row leading-4 font-[650] text-primary font-stretch-[86%]`}
        >
          {group ?? ''}
        </span>
        <span className="min-w-0 py-0.5 leading-4">
          <button
            type="button"
            className="block max-w-full cursor-pointer truncate text-left font-semibold before:absolute before:inset-0 before:content-['']"
            aria-current={isOpen || undefined}
            onClick={() => void navigate(isOpen ? '/team' : `/team/${member.id}`)}
          >
            {name}
          </button>
          <span className="block truncate text-note leading-4 text-ink-2">
            {sayStanding(member, now, shifts, today)}
          </span>
        </span>
        <span className={MIDDLE}>
          <WeekBars week={weeks[weekInPattern({ weeks, from: weeksFrom }, today)] ?? []} />
        </span>
        <span className={`${MIDDLE} text-right`}>
          {sayDayHours(Math.round(minutesAWeek({ weeks }))) || '0'}
          {weeks.length > 1 && <span className="block text-note leading-3.5 text-ink-2">2 weeks</span>}
        </span>
        {member.loads.map((load, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: this week and the next, which never move
          <Load key={i} {...load} className={i > 0 ? MIDDLE : ''} />
        ))}
        <span className={`${ROOMY} min-w-0 leading-4`}>
          <span className="block truncate">{team ?? ''}</span>
          {others.length > 0 && <span className="block truncate text-note text-ink-2">{sayRoles(others)}</span>}
        </span>
        <span className={`${MIDDLE} min-w-0 leading-4`}>
          <span className={`block truncate ${isAwayOn(away, today) ? 'font-semibold' : ''}`}>
            {away ? sayLeaveDays(away, today) : ''}
          </span>
          <span className="block truncate text-note text-ink-2">
            {[
              away ? (away.state === 'asked' ? 'asked for' : sayCount(away.days)) : '',
              cover ? `covered by ${cover}` : '',
            ]
              .filter(Boolean)
              .join(', ')}
          </span>
        </span>
        <span className={`${WIDEST} min-w-0 leading-4`}>
          {nextTurn && (
            <>
              <span className="block truncate">{sayNear(dayOfIso(nextTurn.on), today)}</span>
              <span className="block truncate text-note text-ink-2" title={nextTurn.work}>
                {ordinal(nextTurn.place)}, {nextTurn.work}
              </span>
            </>
          )}
        </span>
        <span className={`${WIDE} min-w-0 leading-4`}>
          <span className="block truncate">{telephone}</span>
          <span className="block truncate text-note text-ink-2">{email}</span>
        </span>
      </div>
    </>
  );
}

/** The first that is given or asked for. */
function awayNext(leave: readonly Leave[]): Leave | null {
  return leave.find(({ state }) => state !== 'refused') ?? null;
}

const isAwayOn = (leave: Leave | null, day: number): boolean =>
  leave?.state === 'given' && dayOfIso(leave.from) <= day && day <= dayOfIso(leave.to);

/** "member, on since 06:55", "member, 07:00–15:00", "planner, invited", "member, comes Sun 6 Dec". */
function sayStanding(
  member: Member,
  now: Clocking | undefined,
  shifts: readonly Shift[] | null,
  today: number,
): string {
  const { access, signsIn, worksFrom, worksUntil } = member;
  const parts: string[] = [access];
  if (worksUntil !== null && hasLeftBy(member, today)) return `left ${sayDay(dayOfIso(worksUntil), today)}`;
  if (worksFrom !== null && !isHereOn(member, today)) parts.push(`comes ${sayDay(dayOfIso(worksFrom), today)}`);
  else if (worksUntil !== null) parts.push(`until ${sayDay(dayOfIso(worksUntil), today)}`);
  else if (now) parts.push(`on since ${sayOn(now.on, isoOfDay(today))}`);
  else if (shifts === null && minutesAWeek(member) > 0) parts.push('off today');
  else if (shifts !== null && shifts.length > 0) parts.push(sayShifts(shifts));
  if (signsIn === 'no') parts.push('does not sign in');
  else if (signsIn !== 'yes') parts.push(signsIn);
  return parts.join(', ');
}

interface LoadProps {
  readonly minutes: number;
  readonly capacity: number;
  readonly className: string;
}

/** Work of a week against what somebody can do in it; what is over stands past the end of the bar. */
function Load({ minutes, capacity, className }: LoadProps) {
  const isOver = minutes > capacity;
  const share = capacity === 0 ? 0 : Math.min(1, minutes / capacity);
  return (
    <span className={`text-right leading-4 whitespace-nowrap ${className}`}>
      <span className={isOver ? 'font-bold' : ''}>{tenths(minutes)}</span>
      <span className="text-note text-ink-2"> of {tenths(capacity)}</span>
      <span className="relative ml-auto block h-1 w-[76px] bg-base-300">
        <i className="absolute inset-y-0 left-0 bg-primary" style={{ width: `${share * 100}%` }} />
        {isOver && <i className="absolute -top-px -right-1 h-1.5 w-1 bg-ink" />}
      </span>
    </span>
  );
}

function Sum({ members }: { readonly members: readonly Member[] }) {
  const hours = members.reduce((sum, { weeks }) => sum + minutesAWeek({ weeks }), 0);
  const of = (week: number, figure: 'minutes' | 'capacity') =>
    members.reduce((sum, { loads }) => sum + (loads[week]?.[figure] ?? 0), 0);
  return (
    <div className={`${COLUMNS} h-9 border-b border-line-2 text-row`}>
      <b className={`${MIDDLE} pl-5 font-semibold`}>All {members.length}</b>
      <b className="hidden font-semibold @max-[660px]:block">All {members.length}</b>
      <span className={MIDDLE} />
      <span className={MIDDLE} />
      <span className={`${MIDDLE} text-right`}>{tenths(hours)}</span>
      <Load minutes={of(0, 'minutes')} capacity={of(0, 'capacity')} className="" />
      <Load minutes={of(1, 'minutes')} capacity={of(1, 'capacity')} className={MIDDLE} />
    </div>
  );
}

/** Hours, to a tenth: what is beside them is told so too. */
function tenths(minutes: number): string {
  return (Math.round(minutes / 6) / 10).toLocaleString('en-GB');
}
