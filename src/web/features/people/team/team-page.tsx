import { useMemo } from 'react';
import { Link, Outlet, useNavigate } from 'react-router';
import type { Clocking, Leave, Member } from '../../../../contract/index.ts';
import { hasLeftBy, isoOfDay, plainWords, plural } from '../../../../core/index.ts';
import { useKeys } from '../../../app/shell/keys.tsx';
import { useToday, useWorkspace } from '../../../app/shell/workspace.tsx';
import { useAddressFilter } from '../../../kit/address-filter.ts';
import { FilterChoice } from '../../../kit/filter-choice.tsx';
import { FindWords } from '../../../kit/find-words.tsx';
import { Empty, Skeleton, Trouble } from '../../../kit/states.tsx';
import { ListWays } from '../../bring-in/list-ways.tsx';
import AskedSwaps from '../../swaps/asked-swaps.tsx';
import { useOnNow } from '../clock/api.ts';
import { useLeaveFrom } from '../leave/api.ts';
import { LeaveAsked } from '../leave/leave-asked.tsx';
import { useTeam } from './api.ts';
import { ShiftGaps } from './shift-gaps.tsx';
import { TeamTable } from './team-table.tsx';
import { TicketsEnding } from './tickets-ending.tsx';

const GROUPINGS = [
  ['role', 'by role'],
  ['team', 'by team'],
  ['access', 'by access'],
] as const;
export type Grouping = (typeof GROUPINGS)[number][0];

const NOBODY_ON: ReadonlyMap<string, Clocking> = new Map();
const NO_LEAVE: ReadonlyMap<string, readonly Leave[]> = new Map();

/** Everybody who works here: their weeks, their load, and how they are reached. */
export function TeamPage() {
  const { data, error, mutate } = useTeam();
  const { may } = useWorkspace();
  const today = useToday();
  const navigate = useNavigate();
  const leave = useLeaveFrom(isoOfDay(today));
  const onNow = useOnNow();
  const { search, set } = useAddressFilter();
  const words = search.get('find') ?? '';
  const grouping = GROUPINGS.find(([key]) => key === search.get('by'))?.[0] ?? 'role';
  useKeys(may('people') ? [{ key: 'n', says: 'Add a person', run: () => void navigate('/team/new') }] : []);
  const members = useMemo(() => data?.members.filter((member) => isFound(member, words)) ?? [], [data, words]);
  const here = members.filter((member) => !hasLeftBy(member, today));
  return (
    <div className="flex min-h-0 flex-1">
      <title>Team · Jolly Rota</title>
      <div className="flex min-h-0 min-w-0 flex-1 flex-col max-[720px]:overflow-y-auto">
        <div className="page-head">
          <h1>Team</h1>
          <FindWords label="Find a person" value={words} onChange={(find) => set({ find })} />
          <FilterChoice
            label="Grouped"
            value={grouping}
            options={GROUPINGS}
            onChange={(by) => set({ by: by === 'role' ? '' : by })}
          />
          <span className="ml-auto text-row text-ink-2 max-[720px]:hidden">
            {data ? `${plural(here.length, 'person', 'people')}${words ? ' found' : ''}` : ''}
            {onNow && onNow.size > 0 ? `, ${onNow.size} on now` : ''}
          </span>
          {may('people') && <ListWays list="people" bring="people" />}
          {may('people') && (
            <Link className="btn btn-primary max-[720px]:ml-auto" to="/team/new">
              Add a person
            </Link>
          )}
        </div>
        {error && !data && <Trouble error={error} retry={() => void mutate()} />}
        {!error && !data && <Skeleton rows={14} />}
        {data && members.length === 0 && (
          <Empty title="Nobody of these words.">
            <button type="button" className="link-line" onClick={() => set({ find: '' })}>
              Show everybody
            </button>
          </Empty>
        )}
        {/* However much there is to see to, people stay in sight; on a phone all of it is one page. */}
        <div className="flex-none min-[721px]:max-h-[55%] min-[721px]:overflow-y-auto">
          {may('people') && words === '' && <TicketsEnding members={here} />}
          {may('plan') && words === '' && <ShiftGaps />}
          {may('swap') && <AskedSwaps onlyNods />}
          {may('leave') && leave && <LeaveAsked leave={[...leave.values()].flat()} />}
        </div>
        {data && members.length > 0 && (
          <TeamTable
            members={members}
            weeks={data.weeks}
            grouping={grouping}
            leave={leave ?? NO_LEAVE}
            onNow={onNow ?? NOBODY_ON}
          />
        )}
      </div>
      <Outlet />
    </div>
  );
}

function isFound({ name, roles, team, email, telephone }: Member, words: string): boolean {
  const all = plainWords([name, ...roles, team, email, telephone].join(' ')).join(' ');
  return plainWords(words).every((word) => all.includes(word));
}
