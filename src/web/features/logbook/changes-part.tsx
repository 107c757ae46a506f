import { Link, useLocation } from 'react-router';
import type { LOGGED_CHANGES, LogFilter, LoggedChange } from '../../../contract/index.ts';
import { dayOfIso } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { Empty, NotAll, Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDay, sayShortDay, timeOf } from '../../kit/ways.ts';
import { paperOfNotices } from '../visits/paper-of-notices.ts';
import { useLoggedChanges } from './api.ts';

interface ChangesPartProps {
  readonly filter: LogFilter;
  readonly what: (typeof LOGGED_CHANGES)[number];
}

const WORDS = {
  deleted: {
    ...{ label: 'What was deleted', told: 'who had it' },
    none: 'No task was deleted then and stayed so.',
  },
  given: {
    ...{ label: 'What was given on', told: 'from whom to whom' },
    none: 'No task was given to somebody else then.',
  },
  announced: {
    ...{ label: 'Notices that went', told: 'by which way, when, for which day' },
    none: 'No notice of a visit went then.',
  },
} as const satisfies Record<ChangesPartProps['what'], object>;

/** Tasks that were deleted, given to another or announced, by when that was done: by whom, and who had them. */
export function ChangesPart({ filter, what }: ChangesPartProps) {
  const { changes, isHere, isMore, more, again, error } = useLoggedChanges(filter, what);
  if (error && !isHere) return <Trouble error={error} retry={again} />;
  if (!isHere) return <Skeleton rows={10} />;
  if (changes.length === 0) return <Empty title="Nothing stands here.">{WORDS[what].none}</Empty>;
  return (
    <>
      {/* Wider than a phone: it is moved to the side by the keys, too. */}
      <section
        aria-label={WORDS[what].label}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: see above
        tabIndex={0}
        className="overflow-x-auto"
      >
        <table className="tt" style={{ minWidth: 900 }}>
          <colgroup>
            <col style={{ width: 176 }} />
            <col />
            <col style={{ width: 120 }} />
            <col style={{ width: 300 }} />
            <col style={{ width: 168 }} />
          </colgroup>
          <thead>
            <tr>
              <th scope="col" className="pl-5">
                when
              </th>
              <th scope="col">task and for whom</th>
              <th scope="col">was due</th>
              <th scope="col">{WORDS[what].told}</th>
              <th scope="col">by</th>
            </tr>
          </thead>
          <tbody>
            {changes.map((change) => (
              <Row key={change.id} change={change} what={what} />
            ))}
          </tbody>
        </table>
      </section>
      {error && <NotAll error={error} retry={again} />}
      {isMore && (
        <p className="px-5 py-3">
          <button type="button" className="btn" onClick={more}>
            Earlier ones
          </button>
        </p>
      )}
    </>
  );
}

function Row({ change, what }: { readonly change: LoggedChange; readonly what: ChangesPartProps['what'] }) {
  const today = useToday();
  const { search } = useLocation();
  const { at, title, about, dueOn, from, to, by, taskId, notice } = change;
  return (
    <tr className="cursor-default!">
      <td className="pl-5 text-ink-2">
        {sayShortDay(dayOfIso(at.slice(0, 10)))}, {timeOf(at)}
      </td>
      <td>
        {taskId === null ? (
          <b className="font-semibold">{title}</b>
        ) : (
          <Link className="font-semibold hover:underline" to={`/logbook/task/${taskId}${search}`}>
            {title}
          </Link>
        )}{' '}
        {about && <span className="ml-1 text-ink-2">{about}</span>}
      </td>
      <td>{sayDay(dayOfIso(dueOn), today)}</td>
      <td>
        {what === 'deleted' && (from ?? 'nobody yet')}
        {what === 'given' && `${from ?? 'nobody yet'} → ${to ?? 'nobody yet'}`}
        {notice && (
          <>
            <a className="link-line" href={paperOfNotices({ notice: notice.id })} target="_blank" rel="noreferrer">
              {notice.way}
            </a>{' '}
            on {sayShortDay(dayOfIso(notice.sentOn))}, for {sayShortDay(dayOfIso(notice.visitOn))}
          </>
        )}
      </td>
      <td>{by ?? 'Jolly Rota'}</td>
    </tr>
  );
}
