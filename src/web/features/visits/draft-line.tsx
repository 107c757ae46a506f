import type { NoticeDraft } from '../../../contract/index.ts';
import { type CivilDay, dayOfIso, isoOfDay, plural } from '../../../core/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { sayDay, sayNear, sayShortDay } from '../../kit/ways.ts';
import { useLookedAt } from '../impact/looked-at.tsx';
import { useTaskActions } from '../tasks/api.ts';
import { DaysStrip } from './days-strip.tsx';
import { sayHours } from './notice-words.ts';

interface DraftLineProps {
  readonly number: number;
  readonly draft: NoticeDraft;
  readonly way: string;
  readonly isShown: boolean;
  /** Whether it goes although it is too late. */
  readonly isLateAllowed: boolean;
  readonly wrong: string | undefined;
  readonly onShow: () => void;
  readonly onWay: (way: string) => void;
  readonly onEvenLate: (evenLate: boolean) => void;
  readonly onMoved: () => void;
  /** Null where it is the only one. */
  readonly onLeave: (() => void) | null;
}

/** One visit whose notice is about to be written: until when it has to go, and how it does. */
export function DraftLine(props: DraftLineProps) {
  const { number, draft, way, isShown, isLateAllowed, wrong, onShow, onWay, onEvenLate, onMoved, onLeave } = props;
  const { today } = useWorkspace();
  const { client, asset, on, startTime, dueTime, who, ways, email } = draft;
  const name = asset?.name ?? client.name;
  const day = dayOfIso(on);
  const chosen = ways.find((one) => one.name === way);
  const sendBy = chosen ? dayOfIso(chosen.sendBy) : day;
  const isLate = sendBy < today;
  const hours = sayHours(startTime, dueTime);
  return (
    <li
      className={`grid grid-cols-[24px_minmax(130px,1fr)_minmax(150px,1.3fr)_88px_190px_98px] gap-x-3 border-b border-l-4 border-line px-4 py-2.5 text-row leading-5 max-[1180px]:grid-cols-[24px_minmax(130px,1fr)_88px_190px_98px] max-[720px]:grid-cols-[24px_minmax(0,1fr)] ${isShown ? 'border-l-accent bg-chosen' : 'border-l-transparent'}`}
    >
      <b className="font-head text-[17px] leading-5">{number}</b>
      <div>
        <button
          type="button"
          className="cursor-pointer text-left hover:underline"
          aria-current={isShown}
          onClick={onShow}
        >
          <b className="font-semibold">{name}</b>
        </button>
        <span className="block text-note leading-4.5 text-ink-2">
          {[asset ? client.name : null, asset?.place].filter(Boolean).join(', ')}
        </span>
        <span className="block">
          <span className="whitespace-nowrap">{sayShortDay(day)}</span>
          {hours !== '' && (
            <>
              , <span className="whitespace-nowrap">{hours}</span>
            </>
          )}
        </span>
        {onLeave && (
          <button type="button" className="link-line text-note" onClick={onLeave} aria-label={`Leave out ${name}`}>
            Leave out
          </button>
        )}
      </div>
      <div className="max-[1180px]:hidden">
        <DaysStrip sendBy={sendBy} visit={day} />
      </div>
      <span className={`max-[720px]:col-start-2 ${who === null ? 'text-ink-2' : ''}`}>{who ?? 'nobody yet'}</span>
      <div className="max-[720px]:col-start-2">
        <fieldset className="inline-flex flex-wrap rounded-field border border-line-2">
          <legend className="sr-only">How the notice of {name} goes</legend>
          {ways.map(({ name: of }) => (
            <label
              key={of}
              className="cursor-pointer border-l border-line-2 px-1.5 text-note leading-6 first:border-l-0 has-checked:bg-accent has-checked:font-semibold has-checked:text-accent-content has-focus-visible:outline-2 has-focus-visible:outline-primary"
            >
              <input
                type="radio"
                className="sr-only"
                name={`way of ${draft.taskId}`}
                checked={of === way}
                onChange={() => onWay(of)}
              />
              {of}
            </label>
          ))}
        </fieldset>
        <span className="block text-note leading-4.5 wrap-anywhere text-ink-2">
          {chosen?.kind === 'mail'
            ? email || 'no mail address is known'
            : chosen?.kind === 'hand'
              ? `at ${asset?.place || client.name}`
              : ''}
        </span>
      </div>
      <div className="max-[720px]:col-start-2">
        <span className={isLate ? 'font-semibold text-late' : ''}>{sayDay(sendBy, today)}</span>
        <span className={`block text-note leading-4.5 ${isLate ? 'font-semibold text-late' : 'text-ink-2'}`}>
          {isLate
            ? `${plural(today - sendBy, 'day')} too late`
            : sendBy === today
              ? 'today'
              : `in ${plural(sendBy - today, 'day')}`}
        </span>
        {!isLate && <OtherWays draft={draft} way={way} today={today} />}
      </div>
      {isLate && chosen && (
        <TooLate
          draft={draft}
          earliest={dayOfIso(chosen.earliest)}
          isAllowed={isLateAllowed}
          onEvenLate={onEvenLate}
          onMoved={onMoved}
        />
      )}
      {wrong !== undefined && (
        <p role="alert" className="col-start-2 -col-end-1 text-note leading-4.5 text-late">
          {wrong}
        </p>
      )}
    </li>
  );
}

/** Until when it could go by others, where that is another day. */
function OtherWays({
  draft,
  way,
  today,
}: {
  readonly draft: NoticeDraft;
  readonly way: string;
  readonly today: CivilDay;
}) {
  const chosen = draft.ways.find(({ name }) => name === way);
  const other = draft.ways.find(({ sendBy }) => sendBy !== chosen?.sendBy);
  if (!other) return null;
  const by = dayOfIso(other.sendBy);
  return (
    <span className="block text-note leading-4.5 text-ink-2">
      {other.name} {by < today ? 'too late' : sayNear(by, today)}
    </span>
  );
}

interface TooLateProps {
  readonly draft: NoticeDraft;
  readonly earliest: CivilDay;
  readonly isAllowed: boolean;
  readonly onEvenLate: (evenLate: boolean) => void;
  readonly onMoved: () => void;
}

/** What it means that it is too late: the earliest day that a notice of today allows, one press away. */
function TooLate({ draft, earliest, isAllowed, onEvenLate, onMoved }: TooLateProps) {
  const { today } = useWorkspace();
  const { impactOfSeveral, changeSeveral } = useTaskActions();
  const seen = [{ id: draft.taskId, version: draft.version }];
  const to = sayDay(earliest, today);
  const { look, busy, dialog } = useLookedAt<{ readonly what: string }>({
    impactOf: () => impactOfSeveral(seen, { kind: 'moveTo', on: isoOfDay(earliest) }),
    save: async ({ what }) => {
      await changeSeveral(seen, { kind: 'moveTo', on: isoOfDay(earliest) }, () => `${what}.`);
      onMoved();
    },
    hasReach: false,
    onRefused: sayTrouble,
  });
  return (
    <p className="col-start-2 -col-end-1 mt-1 text-note leading-5">
      A notice from today allows <b className="font-semibold">{to}</b> at the earliest.{' '}
      <button
        type="button"
        className="link-line mr-4"
        disabled={busy}
        onClick={() => look({ what: `“${draft.title}” is moved to ${to}` })}
      >
        Move the visit to {to}
      </button>
      <label className="inline-flex items-center gap-1.5">
        <input
          type="checkbox"
          className="check"
          checked={isAllowed}
          onChange={({ target }) => onEvenLate(target.checked)}
        />
        write it all the same
      </label>
      {dialog}
    </p>
  );
}
