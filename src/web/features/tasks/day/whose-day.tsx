import { useNavigate } from 'react-router';
import type { TogetherOf } from '../../../../contract/index.ts';
import { type CivilDay, isoOfDay } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { NarrowBy } from '../../task-list/narrow-by.tsx';

/** Whose day is shown: one person's, or one that several have together. */
export type WhoseDay = Readonly<Partial<Record<'person' | keyof TogetherOf, string>>>;

/** The address of somebody's day, or of several people's. */
export function addressOfDay(whose: WhoseDay, day: CivilDay, today: CivilDay, taskId?: string): string {
  const { person, ...of } = whose;
  const search = new URLSearchParams(Object.entries(of)).toString();
  const date = day === today ? '' : `date=${isoOfDay(day)}`;
  const asked = [search, date].filter(Boolean).join('&');
  const task = taskId === undefined ? '' : `/task/${taskId}`;
  return `/day-sheet/${person ?? 'together'}${task}${asked === '' ? '' : `?${asked}`}`;
}

interface WhoseDayChoiceProps {
  readonly whose: WhoseDay;
  /** How it is called, where it is not among those to choose from. */
  readonly name: string;
  readonly day: CivilDay;
}

/** Whose day is shown, as a word in its head: a person's, a team's, a role's, everyone's on shift, or that of one thing. */
export function WhoseDayChoice({ whose, name, day }: WhoseDayChoiceProps) {
  const { today, staffWith, roles, teams } = useWorkspace();
  const navigate = useNavigate();
  const [[kind = '', value = ''] = []] = Object.entries(whose);
  const go = (of: string, which: string) => void navigate(addressOfDay({ [of]: which }, day, today));
  return (
    <>
      <label className="max-w-[70%] flex-none truncate max-[720px]:max-w-full">
        <span className="sr-only">Whose day sheet</span>
        <select
          className="filter-word text-body font-semibold"
          value={`${kind} ${value}`}
          onChange={({ target }) => {
            const at = target.value.indexOf(' ');
            go(target.value.slice(0, at), target.value.slice(at + 1));
          }}
        >
          {(kind === 'asset' || kind === 'site') && <option value={`${kind} ${value}`}>{name}</option>}
          {staffWith(kind === 'person' ? value : '').map((one) => (
            <option key={one.id} value={`person ${one.id}`}>
              {one.name}
            </option>
          ))}
          <optgroup label="together">
            <option value="shift on">everyone on shift</option>
            {teams.map((team) => (
              <option key={team} value={`team ${team}`}>
                team {team}
              </option>
            ))}
            {roles.map((role) => (
              <option key={role} value={`role ${role}`}>
                role {role}
              </option>
            ))}
          </optgroup>
        </select>
      </label>
      <span className="order-last flex-none whitespace-nowrap max-[720px]:hidden">
        <NarrowBy
          by={AT}
          hasNone={false}
          words="at an asset or a site"
          onChoose={(values) => {
            const [[of, which] = ['', '']] = Object.entries(values);
            go(of, which);
          }}
        />
      </span>
    </>
  );
}

const AT = ['asset', 'site'] as const;
