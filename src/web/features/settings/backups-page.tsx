import { Link } from 'react-router';
import { backupAddresses } from '../../../contract/addresses-later.ts';
import { BACKUP_TIMES, type Backup, type Backups, type BackupTimes, MOST_BACKUPS } from '../../../contract/index.ts';
import { dayOfIso, plural } from '../../../core/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import { ask } from '../../kit/api.ts';
import { ChoiceBlank, NumberBlank } from '../../kit/blanks.tsx';
import { NotAllowed, Skeleton, Trouble } from '../../kit/states.tsx';
import { SureButton } from '../../kit/sure-button.tsx';
import { useTrying } from '../../kit/use-trying.ts';
import { sayDay, timeOf } from '../../kit/ways.ts';
import { sayBytes } from '../files/upload.ts';

const TIMES: Readonly<Record<BackupTimes, string>> = {
  never: 'never by itself',
  day: 'every night',
  week: 'once a week',
};

/** The whole workspace as archives: written now or by itself, fetched, dropped. */
export function BackupsPage() {
  const { may } = useWorkspace();
  const { data, error, mutate } = useAnswer(backupAddresses.list, may('settings') ? {} : null);
  if (!may('settings')) return <NotAllowed right="settings" what="see backups" to="/" back="Back to the work" />;
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Skeleton rows={8} />;
  return <Page {...data} onNews={(news) => mutate(news, { revalidate: false })} />;
}

interface PageProps extends Backups {
  readonly onNews: (news: Backups) => Promise<unknown>;
}

function Page({ plan, backups, folder, onNews }: PageProps) {
  const { name } = useWorkspace();
  const { busy, trying } = useTrying();
  const isWriting = backups.some(({ state }) => state === 'asked');
  const say = (next: Partial<Backups['plan']>) =>
    void trying(async () => {
      await onNews(await ask(backupAddresses.plan, { body: { ...plan, ...next } }));
      sayDone('Saved.');
    });
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>Backups · Jolly Rota</title>
      <div className="page-head">
        <h1>Backups</h1>
        <Link className="link-line text-note" to="/settings">
          Settings
        </Link>
        <span className="ml-auto text-note text-ink-2" role="status">
          {isWriting && 'One is being written.'}
        </span>
        <button
          type="button"
          className="btn btn-primary"
          disabled={busy || isWriting}
          onClick={() => void trying(async () => void (await onNews(await ask(backupAddresses.make, {}))))}
        >
          Back up now
        </button>
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto border-t border-line-2 px-5 pb-8 max-[720px]:px-4">
        <p className="mt-3 max-w-[720px] text-row leading-7">
          {name} is backed up{' '}
          <ChoiceBlank
            label="How often it is backed up"
            value={plan.every}
            options={BACKUP_TIMES.map((every) => [every, TIMES[every]] as const)}
            onChange={(every) => say({ every })}
          />
          {plan.every !== 'never' && (
            <>
              , after 02:00, and the last{' '}
              <NumberBlank
                label="How many are kept"
                value={plan.keep}
                least={1}
                most={MOST_BACKUPS}
                onChange={(keep) => say({ keep })}
              />{' '}
              {plan.keep === 1 ? 'one of these is' : 'of these are'} kept
            </>
          )}
          .
        </p>
        <p className="max-w-[720px] text-note leading-4.5 text-ink-2">
          A backup holds everything: people and how they sign in, clients, schedules, tasks, files, mails. Keep it as
          you would keep the keys. It lies in {folder} on the server; one that is to outlive the server belongs
          elsewhere too.
          <code className="ml-1 font-mono">npm run restore -- FILE</code> puts it into another installation.
        </p>
        {backups.length === 0 ? (
          <p className="mt-5 text-row text-ink-2">None is written yet.</p>
        ) : (
          <ul className="mt-4 max-w-[900px] border-t border-line">
            {backups.map((backup) => (
              <Line key={backup.id} backup={backup} onNews={onNews} />
            ))}
          </ul>
        )}
      </div>
    </div>
  );
}

function Line({ backup, onNews }: { readonly backup: Backup; readonly onNews: PageProps['onNews'] }) {
  const { id, state, askedAt, by, name, rows, files, bytes, missing, trouble } = backup;
  const today = useToday();
  const { busy, trying } = useTrying();
  const when = `${sayDay(dayOfIso(askedAt.slice(0, 10)), today)}, ${timeOf(askedAt)}`;
  return (
    <li className="grid grid-cols-[150px_minmax(0,1fr)_auto] items-baseline gap-x-4 border-b border-line py-2 text-row leading-5.5 max-[720px]:grid-cols-1">
      <span>{when}</span>
      <span className="min-w-0">
        {state === 'asked' && `being written, ${plural(rows, 'row')} so far`}
        {state === 'done' && (
          <>
            {plural(rows, 'row')}, {plural(files, 'file')}
            {bytes !== null && `, ${sayBytes(bytes)}`}
          </>
        )}
        {state === 'failed' && <span className="text-late">not written: {trouble}</span>}
        <span className="ml-3 text-ink-2">{by === null ? 'by itself' : `by ${by}`}</span>
        {missing.length > 0 && (
          <span className="block text-note text-late">
            The bytes of {plural(missing.length, 'file')} are gone from the server: {missing.slice(0, 5).join(', ')}
          </span>
        )}
        <span className="block truncate font-mono text-note text-ink-2">{name}</span>
      </span>
      <span className="flex gap-4">
        {state === 'done' && (
          <a className="link-line" href={`/api/backups/${id}/file`} download aria-label={`Fetch the backup of ${when}`}>
            Fetch
          </a>
        )}
        {state !== 'asked' && (
          <SureButton
            words="Drop"
            question="For good?"
            label={`Drop the backup of ${when}`}
            disabled={busy}
            onSure={() =>
              void trying(async () => {
                await onNews(await ask(backupAddresses.drop, { params: { backupId: id } }));
                sayDone('Dropped: it is gone from the server.');
              })
            }
          />
        )}
      </span>
    </li>
  );
}
