import { dayOfIso } from '../../../../core/index.ts';
import { useToday, useWorkspace } from '../../../app/shell/workspace.tsx';
import { NotAll } from '../../../kit/states.tsx';
import { sayDay, sayShortDay } from '../../../kit/ways.ts';
import { useNoticesOf } from '../../visits/api.ts';
import { paperOfNotices } from '../../visits/paper-of-notices.ts';

/** What was written to a client to announce visits, the newest first. */
export function ClientNotices({ clientId }: { readonly clientId: string }) {
  const { visits } = useWorkspace();
  const today = useToday();
  const { notices, isHere, isMore, more, error, again } = useNoticesOf({ client: clientId });
  if (!isHere && error) return <NotAll error={error} retry={again} />;
  if (!isHere || (notices.length === 0 && visits.terms.length === 0)) return null;
  return (
    <section className="border-t border-line-2 px-5 py-2.5 max-[720px]:px-4">
      <h2 className="text-body leading-5.5 text-primary">Notices</h2>
      {notices.length === 0 && <p className="text-row leading-5 text-ink-2">none was written yet</p>}
      <ul className="text-row leading-5">
        {notices.map(({ id, subject, way, reason, sentOn, visitOn, isReplaced, mail }) => (
          <li key={id} className="border-b border-line py-1 last:border-b-0">
            {subject === null ? (
              <span>none needed: {reason}</span>
            ) : (
              <a className="link-line" href={paperOfNotices({ notice: id })} target="_blank" rel="noreferrer">
                {subject}
              </a>
            )}
            <span className="block text-note leading-4.5 text-ink-2">
              for {sayShortDay(dayOfIso(visitOn))}
              {way !== null &&
                `, ${sentOn === null ? 'not sent yet' : `sent ${sayDay(dayOfIso(sentOn), today)}`}, ${way}`}
              {isReplaced && ', another took its place'}
              {mail?.state === 'refused' && <span className="text-late">, the mail did not arrive</span>}
            </span>
          </li>
        ))}
      </ul>
      {error && <NotAll error={error} retry={again} />}
      {isMore && (
        <button type="button" className="link-line text-note" onClick={more}>
          Show more
        </button>
      )}
    </section>
  );
}
