import { Command } from 'cmdk';
import { useNavigate } from 'react-router';
import { findAddresses } from '../../../contract/addresses.ts';
import { plainWords, sayRoles } from '../../../core/index.ts';
import { useAnswer } from '../../kit/answer.ts';
import { Dialog } from '../../kit/dialog.tsx';
import { useEnterWhenFound } from '../../kit/enter-when-found.ts';
import { JUMP_HINT } from './openings.tsx';
import { useShell } from './shell-context.ts';
import { CLIENTS, PLACES, SETTINGS, TEAM } from './top-bar.tsx';
import { useWorkspace } from './workspace.tsx';

/** "start something for Quentin": the client is found by what comes after that. */
const START = /^\s*start(\s+something)?(\s+for)?\s+(?=\S)/i;

const togetherAt = (of: Readonly<Record<string, string>>) => `/day-sheet/together?${new URLSearchParams(of)}`;

interface JumpProps {
  readonly typed: string;
  readonly onType: (typed: string) => void;
  /** Enter came before this was loaded. */
  readonly isAsked: boolean;
  readonly onClose: () => void;
}

/** Jumps to anything by name. */
export default function Jump({ typed, onType, isAsked, onClose }: JumpProps) {
  const navigate = useNavigate();
  const { may, staff, teams, roles } = useWorkspace();
  const {
    data: found,
    isLoading,
    error,
  } = useAnswer(
    findAddresses.find,
    typed.trim() === '' ? null : { query: { q: typed.replace(START, '').slice(0, 100) } },
  );
  const isStart = START.test(typed);
  const { list } = useEnterWhenFound(isLoading, isAsked);
  const of = (kind: keyof NonNullable<typeof found>) => (typed.trim() === '' ? [] : (found?.[kind] ?? []));
  const { capture, startNow } = useShell();
  const act = (key: string, name: string, detail: string, run: () => void) => (
    <Command.Item
      key={key}
      value={key}
      keywords={[name, detail]}
      onSelect={() => {
        onClose();
        run();
      }}
    >
      <span className="max-w-[72%] flex-none truncate">{name}</span>
      <span className="truncate text-note text-ink-2">{detail}</span>
    </Command.Item>
  );
  const item = (key: string, name: string, detail: string, to: string) =>
    act(key, name, detail, () => void navigate(to));
  return (
    <Dialog label="Jump to" className="w-[560px]" onClose={onClose}>
      <Command
        label="Jump to"
        className="popover border-0 shadow-none"
        {...list}
        filter={(_, search, words = []) =>
          plainWords(search).every((word) => plainWords(words.join(' ')).join(' ').includes(word)) ? 1 : 0
        }
      >
        <Command.Input autoFocus placeholder={JUMP_HINT} aria-label="Jump to" value={typed} onValueChange={onType} />
        <Command.List>
          <Command.Empty>{isLoading ? 'Looking …' : (error?.message ?? 'Nothing of that name.')}</Command.Empty>
          <Command.Group heading="do">
            {act('capture', 'Capture', 'a task in one line', capture)}
            {item('account', 'Your account', 'password, where you are signed in', '/account')}
            {item('messages', 'Messages', 'what reaches you by mail', '/messages')}
            {item('fill', 'Fill a period', 'and the run log', '/fill')}
            {act('start-now', 'Start now', 'a template, by hand', () => startNow())}
          </Command.Group>
          <Command.Group heading="places">
            {may('plan') && item('overview', 'The morning page', 'what asks for you', '/overview')}
            {PLACES.flatMap(({ places }) => places.map(({ name, to }) => item(to, name, '', to)))}
            {item(CLIENTS.to, CLIENTS.name, '', CLIENTS.to)}
            {item(TEAM.to, TEAM.name, '', TEAM.to)}
            {may('post') && item('post', 'Post tray', 'every mail that left', '/post')}
            {may('settings') && item(SETTINGS.to, SETTINGS.name, '', SETTINGS.to)}
          </Command.Group>
          <Command.Group heading="people">
            {staff.map(({ id, name, roles }) => item(id, name, `day sheet, ${sayRoles(roles)}`, `/day-sheet/${id}`))}
            {item('on-shift', 'Everyone on shift', 'day sheet', '/day-sheet/together?shift=on')}
            {teams.map((team) => item(`team ${team}`, `Team ${team}`, 'day sheet', togetherAt({ team })))}
            {roles.map((role) => item(`role ${role}`, `Role ${role}`, 'day sheet', togetherAt({ role })))}
          </Command.Group>
          <Command.Group heading="templates">
            {of('templates').map(({ id, name, detail }) => item(id, name, detail, `/templates/${id}`))}
          </Command.Group>
          <Command.Group heading="clients">
            {of('clients').map(({ id, name, detail }) =>
              isStart
                ? act(id, name, 'start something for', () => startNow({ clientId: id }))
                : item(id, name, detail, `/clients/${id}`),
            )}
          </Command.Group>
          <Command.Group heading="sites and assets">
            {of('assets').map(({ id, name, detail }) =>
              item(id, name, detail, `/clients/own?${new URLSearchParams({ q: name })}`),
            )}
          </Command.Group>
          <Command.Group heading="schedules">
            {of('schedules').map(({ id, name, detail }) => item(id, name, detail, `/schedules/${id}`))}
          </Command.Group>
        </Command.List>
      </Command>
    </Dialog>
  );
}
