import { OVERVIEW_LINES, SEND_SOON_DAYS, type VisitLine } from '../../../contract/index.ts';
import { dayOfIso } from '../../../core/index.ts';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { Band } from '../../kit/band.tsx';
import { sayNear, sayShortDay } from '../../kit/ways.ts';
import { useVisits, useVisitWeeks } from '../visits/api.ts';
import { NoticeSheet } from '../visits/notice-sheet.tsx';
import { sayNotice, sumOfStates } from '../visits/notice-words.ts';
import { Line, MoreLines } from './line.tsx';

const SOON = { toSend: 'yes', sendWithin: SEND_SOON_DAYS } as const;
const TO_ANNOUNCE = `/tasks/visits?notice=toSend&within=${SEND_SOON_DAYS}`;

/** Visits whose notice has to go within days, or had to: how many, and the first of them. */
export function useToAnnounce(): ToAnnounceProps {
  const { visits } = useWorkspace();
  const asked = visits.terms.length === 0 ? null : SOON;
  const { data } = useVisitWeeks(asked);
  const { lines } = useVisits(asked);
  return { count: sumOfStates(data?.weeks ?? []).toSend, lines };
}

interface ToAnnounceProps {
  readonly count: number;
  readonly lines: readonly VisitLine[];
}

export function ToAnnounce({ count, lines }: ToAnnounceProps) {
  const today = useToday();
  if (count === 0) return null;
  return (
    <Band name="to announce" count={count} to={TO_ANNOUNCE}>
      <ul>
        {lines.slice(0, OVERVIEW_LINES).map((line) => {
          const { taskId, asset, client, on, standing } = line;
          return (
            <Line
              key={taskId}
              glyph={<NoticeSheet state={standing.state} isWritten={line.notice?.way != null} />}
              title={asset?.name ?? client.name}
              to={`/overview/task/${taskId}`}
              sub={`${asset ? `${client.name}, ` : ''}${sayShortDay(dayOfIso(on))}`}
              end={
                standing.state === 'notWritten' || standing.state === 'written' ? (
                  standing.sendBy && `send by ${sayNear(dayOfIso(standing.sendBy), today)}`
                ) : (
                  <span className="text-late">{sayNotice(line, today)}</span>
                )
              }
            />
          );
        })}
        <MoreLines count={count} shown={OVERVIEW_LINES} to={TO_ANNOUNCE} />
      </ul>
    </Band>
  );
}
