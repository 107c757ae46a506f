import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { z } from 'zod';
import { type Settings, settingsSchema } from '../../../contract/index.ts';
import { plural, USUAL_ASKING } from '../../../core/index.ts';
import { useKeys } from '../../app/shell/keys.tsx';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import type { ProblemError } from '../../kit/api.ts';
import { useDraft } from '../../kit/draft.ts';
import { MeanwhileLine } from '../../kit/meanwhile-line.tsx';
import { NotAllowed, Skeleton, Trouble } from '../../kit/states.tsx';
import { goToUnread } from '../../kit/unread.ts';
import { useLookedAt } from '../impact/looked-at.tsx';
import { useSettings, useSettingsActions } from './api.ts';
import { sayChanges } from './settings-changes.ts';
import { SettingsForm } from './settings-form.tsx';
import { YearOfWork } from './year-of-work.tsx';

/** A draft that was kept before there was this to be set says nothing of it: it is as a workspace begins. */
const keptSchema = z.preprocess(
  (kept) =>
    typeof kept === 'object' && kept !== null
      ? { keepYears: null, visits: { ways: [], terms: [] }, asking: USUAL_ASKING, ...kept }
      : kept,
  settingsSchema,
);

/** What holds for the whole workspace. */
export function SettingsPage() {
  const { may } = useWorkspace();
  const { data, error, mutate } = useSettings(may('settings'));
  if (!may('settings'))
    return <NotAllowed right="settings" what="change the settings" to="/" back="Back to the work" />;
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  return data ? <SettingsEditor settings={data} /> : <Skeleton rows={12} />;
}

function SettingsEditor({ settings }: { readonly settings: Settings }) {
  const today = useToday();
  const { save, impact } = useSettingsActions();
  const { draft, base, isChanged, change, rebase, forget } = useDraft('settings', settings, keptSchema);
  const [refusal, setRefusal] = useState<ProblemError | null>(null);
  const read = useMemo(() => settingsSchema.safeParse(draft), [draft]);
  const problems = useMemo(() => {
    const found = new Map<string, string>();
    for (const { path, message } of refusal?.problem.errors ?? []) found.set(path.split('.')[0] ?? '', message);
    for (const { path, message } of read.error?.issues ?? []) found.set(String(path[0]), message);
    return found;
  }, [read, refusal]);
  const { look, busy, dialog } = useLookedAt<{ readonly what: string; readonly settings: Settings }>({
    impactOf: (asked) => impact(asked.settings),
    save: async (asked) => {
      await save(asked.settings);
      forget();
    },
    hasReach: false,
    onRefused: (problem) => {
      setRefusal(problem);
      sayTrouble(problem);
    },
  });
  const changes = sayChanges(settings, draft, today);
  const submit = () => {
    if (!isChanged || !read.success || busy || goToUnread()) return;
    setRefusal(null);
    look({ what: changes.join('; '), settings: read.data });
  };
  useKeys([{ key: 'Mod+Enter', says: 'Save', run: submit }]);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>Settings · Jolly Rota</title>
      {dialog}
      {isChanged && (
        <MeanwhileLine
          base={base}
          mine={draft}
          now={settings}
          onMerge={(next) => {
            setRefusal(null);
            rebase(next);
          }}
        />
      )}
      <div className="page-head min-h-[52px]">
        <h1>Settings</h1>
        <Link className="link-line text-note" to="/settings/lists">
          Lists
        </Link>
        <Link className="link-line text-note" to="/settings/backups">
          Backups
        </Link>
        <Link className="link-line text-note" to="/settings/webhooks">
          Webhooks
        </Link>
        <Link className="link-line text-note" to="/post">
          Post tray
        </Link>
        <span className={`ml-auto text-right text-note leading-4 ${refusal ? 'text-late' : ''}`} role="status">
          {refusal?.message ?? (isChanged ? `${plural(changes.length, 'change')}, not saved.` : '')}
        </span>
        {isChanged && (
          <button
            type="button"
            className="btn"
            onClick={() => {
              forget();
              setRefusal(null);
            }}
          >
            Put back
          </button>
        )}
        <button
          type="button"
          className="btn btn-primary"
          disabled={busy || !isChanged || !read.success}
          onClick={submit}
        >
          See impact and save
        </button>
      </div>
      <div className="grid min-h-0 flex-1 grid-cols-[520px_minmax(0,1fr)] border-t border-line-2 max-[1000px]:block max-[1000px]:overflow-y-auto">
        <SettingsForm
          draft={draft}
          saved={settings}
          at={(path) => problems.get(path)}
          onChange={(next) => {
            setRefusal(null);
            change(next);
          }}
        />
        <YearOfWork saved={settings} draft={draft} />
      </div>
    </div>
  );
}
