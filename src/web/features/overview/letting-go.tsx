import { Link } from 'react-router';
import { retentionAddresses } from '../../../contract/addresses-later.ts';
import { dayOfIso, plural, RETENTION_GRACE_DAYS } from '../../../core/index.ts';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import { sayDate, sayDay } from '../../kit/ways.ts';

/** What will be let go within days, as long as it can still be kept. */
export function LettingGo() {
  const { may } = useWorkspace();
  const today = useToday();
  const query = { withinDays: String(RETENTION_GRACE_DAYS) };
  const next = useAnswer(retentionAddresses.next, may('settings') ? { query } : null).data?.next;
  if (!next || next.tasks === 0) return null;
  return (
    <p className="mt-1.5 border-l-2 border-accent pl-2.5 text-row">
      {sayDay(dayOfIso(next.on), today)}: {plural(next.tasks, 'finished task')} due before{' '}
      {sayDate(dayOfIso(next.before))} {next.tasks === 1 ? 'is' : 'are'} let go for good, as the{' '}
      <Link className="link-line" to="/settings">
        settings
      </Link>{' '}
      have it.
    </p>
  );
}
