import { X } from 'lucide-react';
import { dayOfIso } from '../../../../core/index.ts';
import { useToday, useWorkspace } from '../../../app/shell/workspace.tsx';
import { Part } from '../../../kit/blanks.tsx';
import { sayDay, sayTime } from '../../../kit/ways.ts';
import type { FormPartProps } from './form-part.tsx';

/** Single dates and pauses that were changed by hand, each to be taken back. */
export function ByHandPart({ draft, onChange }: FormPartProps) {
  const today = useToday();
  const { people } = useWorkspace();
  const say = (date: string) => sayDay(dayOfIso(date), today);
  const lines = [
    ...draft.exceptions.map((exception) => {
      const { date } = exception;
      const words = {
        skip: () => 'skipped',
        move: () => `moved to ${exception.kind === 'move' ? say(exception.to) : ''}`,
        add: () => 'added',
        change: () => {
          const change = exception.kind === 'change' ? exception.change : {};
          const parts = [
            change.startTime !== undefined &&
              (change.startTime === null ? 'at any time' : `starts ${sayTime(change.startTime)}`),
            change.dueTime !== undefined &&
              (change.dueTime === null ? 'due by the end of the day' : `due by ${sayTime(change.dueTime)}`),
            change.assigneeId !== undefined &&
              `${people.find(({ id }) => id === change.assigneeId)?.name ?? 'nobody yet'} does it`,
          ].filter((part): part is string => part !== false);
          return parts.join(', ');
        },
      }[exception.kind]();
      return {
        key: `${date} ${exception.kind}`,
        words: `${say(date)} ${words}`,
        drop: { ...draft, exceptions: draft.exceptions.filter((other) => other !== exception) },
      };
    }),
    ...draft.pauses.map((pause) => ({
      key: `pause ${pause.from}`,
      words: `paused from ${say(pause.from)}${pause.to === null ? '' : ` until ${say(pause.to)}`}`,
      drop: { ...draft, pauses: draft.pauses.filter((other) => other !== pause) },
    })),
  ];
  if (lines.length === 0) return null;
  return (
    <Part name="By hand">
      <ul className="leading-6">
        {lines.map(({ key, words, drop }) => (
          <li key={key} className="flex items-baseline gap-2">
            {words}
            <button
              type="button"
              className="ml-auto cursor-pointer px-1 text-ink-2 hover:text-ink"
              aria-label={`Take back: ${words}`}
              onClick={() => onChange(drop)}
            >
              <X size={13} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
    </Part>
  );
}
