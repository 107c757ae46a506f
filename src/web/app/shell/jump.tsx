import { Command } from 'cmdk';
import { useNavigate } from 'react-router';
import { scheduleEndpoints } from '../../../contract/index.ts';
import { useTemplates } from '../../features/templates/api.ts';
import { useAnswer } from '../../kit/answer.ts';
import { Dialog } from '../../kit/dialog.tsx';
import { useShell } from './shell-context.ts';
import { PLACES } from './top-bar.tsx';
import { useWorkspace } from './workspace.tsx';

/** Jumps to anything by name. */
export function Jump({ onClose }: { readonly onClose: () => void }) {
  const navigate = useNavigate();
  const { people, subjects } = useWorkspace();
  const { capture, startNow } = useShell();
  const templates = useTemplates().templates ?? [];
  const schedules = useAnswer(scheduleEndpoints.list, {}).data?.schedules ?? [];
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
      <span className="truncate">{name}</span>
      <span className="truncate text-[13px] text-ink-2">{detail}</span>
    </Command.Item>
  );
  const item = (key: string, name: string, detail: string, to: string) =>
    act(key, name, detail, () => void navigate(to));
  return (
    <Dialog label="Jump to" className="w-[560px]" onClose={onClose}>
      <Command
        label="Jump to"
        className="popover !static !border-0 !shadow-none"
        filter={(_, search, words = []) =>
          search
            .trim()
            .toLowerCase()
            .split(/\s+/)
            .every((word) => words.join(' ').toLowerCase().includes(word))
            ? 1
            : 0
        }
      >
        <Command.Input autoFocus placeholder="a template, a schedule, a person, a place" aria-label="Jump to" />
        <Command.List>
          <Command.Empty>Nothing of that name.</Command.Empty>
          <Command.Group heading="do">
            {act('capture', 'Capture', 'a task in one line', capture)}
            {item('account', 'Your account', 'password, where you are signed in', '/account')}
            {item('fill', 'Fill a period', 'and the run log', '/fill')}
            {act('start-now', 'Start now', 'a template, by hand', () => startNow())}
          </Command.Group>
          <Command.Group heading="places">
            {PLACES.flatMap(({ places }) => places.map(({ name, to }) => item(to, name, '', to)))}
          </Command.Group>
          <Command.Group heading="people">
            {people.map(({ id, name, role }) => item(id, name, `day sheet, ${role}`, `/day-sheet/${id}`))}
          </Command.Group>
          <Command.Group heading="templates">
            {templates.map(({ id, name, category }) => item(id, name, category ?? 'template', `/templates/${id}`))}
          </Command.Group>
          <Command.Group heading="clients">
            {subjects
              .filter(({ clientId, assetId }) => clientId !== null && assetId === null)
              .map(({ clientId, name }) =>
                act(`client-${clientId}`, name, 'start something for', () => startNow({ clientId })),
              )}
          </Command.Group>
          <Command.Group heading="schedules">
            {schedules.map(({ id, template, client, asset, phrase }) =>
              item(
                id,
                [template.name, asset?.name ?? client?.name].filter(Boolean).join(', '),
                phrase,
                `/schedules/${id}`,
              ),
            )}
          </Command.Group>
        </Command.List>
      </Command>
    </Dialog>
  );
}
