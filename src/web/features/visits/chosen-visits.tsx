import { useState } from 'react';
import { useNavigate } from 'react-router';
import { MOST_NOTICES_AT_ONCE, MOST_STOPS, type TaskDeed, type VisitLine } from '../../../contract/index.ts';
import { type CivilDay, dayOfIso, isoOfDay, isToSend, plural } from '../../../core/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { DateBlank, WordsBlank } from '../../kit/blanks.tsx';
import { ChosenFoot, DeedSentence } from '../../kit/chosen-foot.tsx';
import { useLookedAt } from '../impact/looked-at.tsx';
import { useTaskActions } from '../tasks/api.ts';
import { DeedForm } from '../tasks/day/chosen-tasks.tsx';
import { useNoticeActions } from './api.ts';
import { RoundForm } from './round-form.tsx';

type Deed = 'write' | 'mail' | 'gone' | 'none' | 'round' | 'give' | 'move';

interface Asked {
  readonly what: string;
  readonly deed: TaskDeed;
  /** In words, after "3 visits". */
  readonly done: string;
}

interface ChosenVisitsProps {
  readonly chosen: readonly (VisitLine & { readonly id: string })[];
  readonly onClear: () => void;
}

/** What can be done with the notices of chosen visits. */
export function ChosenVisits({ chosen, onClear }: ChosenVisitsProps) {
  const { today, visits } = useWorkspace();
  const { send, mail, needNone } = useNoticeActions();
  const { impactOfSeveral, changeSeveral } = useTaskActions();
  const navigate = useNavigate();
  const [doing, setDoing] = useState<Deed | null>(null);
  const [busy, setBusy] = useState(false);
  const [on, setOn] = useState<CivilDay>(today);
  const [reason, setReason] = useState('');
  const isMail = (way: string | null) => visits.ways.some(({ name, kind }) => name === way && kind === 'mail');
  /** Written for the day that the visit has, and not gone. */
  const waiting = chosen.flatMap(({ notice, on: day }) =>
    notice && notice.way !== null && notice.sentOn === null && notice.visitOn === day ? [notice] : [],
  );
  const byMail = waiting.filter(({ way }) => isMail(way));
  const onPaper = waiting.filter(({ way }) => !isMail(way));
  const going = chosen.filter(({ standing: { state } }) => isToSend(state));
  const toSend = going.length;
  const days = new Set(chosen.map(({ on: day }) => day));
  const {
    look,
    busy: looking,
    dialog,
  } = useLookedAt<Asked>({
    impactOf: ({ deed }) => impactOfSeveral(chosen, deed),
    save: ({ deed, done }) => changeSeveral(chosen, deed, (changed) => `${plural(changed, 'visit')} ${done}.`),
    hasReach: false,
    onSaved: onClear,
    onRefused: sayTrouble,
  });
  const lookAt = (deed: TaskDeed, done: string) =>
    look({ what: `${plural(chosen.length, 'visit')} ${done}`, deed, done });
  const late = going.filter(({ standing: { sendBy } }) => sendBy !== null && dayOfIso(sendBy) < today).length;
  const deeds: (readonly [Deed, string])[] = [
    ['write', `Write ${plural(chosen.length, 'notice')}`],
    ...(byMail.length > 0 ? [['mail', `Mail ${byMail.length} now`] as const] : []),
    ...(onPaper.length > 0 ? [['gone', `${onPaper.length} on paper went …`] as const] : []),
    ['none', chosen.length === 1 ? 'It needs none …' : 'They need none …'],
    ...(days.size === 1 && chosen.length > 1 && chosen.length <= MOST_STOPS
      ? [['round', 'Order the round …'] as const]
      : []),
    ['give', 'Give to …'],
    ['move', 'Move …'],
  ];
  const doIt = (work: () => Promise<void>) => {
    setBusy(true);
    work()
      .then(onClear, sayTrouble)
      .finally(() => setBusy(false));
  };
  const start = (deed: Deed) => {
    if (deed === 'write') {
      const ids = chosen.slice(0, MOST_NOTICES_AT_ONCE).map(({ id }) => id);
      void navigate(`/tasks/visits/write?of=${ids.join(',')}`);
    } else if (deed === 'mail') {
      doIt(() =>
        mail(
          byMail.map(({ id }) => id),
          isoOfDay(today),
        ),
      );
    } else setDoing(doing === deed ? null : deed);
  };
  return (
    <ChosenFoot
      label="The chosen visits"
      words={[
        `${plural(chosen.length, 'visit')} chosen`,
        ...(toSend > 0 ? [`${plural(toSend - late, 'notice')} in time`] : []),
        ...(late > 0 ? [`${late} too late`] : []),
      ].join(', ')}
      deeds={deeds}
      doing={doing}
      busy={busy}
      note={chosen.length > MOST_NOTICES_AT_ONCE ? `the first ${MOST_NOTICES_AT_ONCE} are written at once` : null}
      onDeed={start}
      onClear={onClear}
    >
      {doing === 'gone' && (
        <DeedSentence
          problem={on > today ? 'That day is still to come.' : null}
          busy={busy}
          words="Put it on record"
          onLook={() =>
            doIt(() =>
              send(
                onPaper.map(({ id }) => id),
                isoOfDay(on),
              ),
            )
          }
        >
          {plural(onPaper.length, 'notice')} on paper went on{' '}
          <DateBlank label="The day on which they went" value={on} onChange={setOn} />
        </DeedSentence>
      )}
      {doing === 'none' && (
        <DeedSentence
          problem={reason === '' ? 'Say why, for the record.' : null}
          busy={busy}
          words="Put it on record"
          onLook={() =>
            doIt(() =>
              needNone(
                chosen.map(({ id }) => id),
                reason,
              ),
            )
          }
        >
          {chosen.length === 1 ? 'It needs no notice:' : `${chosen.length} visits need no notice:`}{' '}
          <WordsBlank
            label="Why none is needed"
            shown={reason}
            placeholder="settled by telephone"
            wrong="200 characters at most"
            read={(text) => (text.trim().length > 200 ? undefined : text.trim())}
            onChange={setReason}
          />
        </DeedSentence>
      )}
      {doing === 'round' && days.size === 1 && (
        <RoundForm visits={chosen} busy={looking} onLook={(deed) => lookAt(deed, 'put in order with their times')} />
      )}
      {(doing === 'give' || doing === 'move') && (
        <DeedForm key={doing} doing={doing} busy={looking} count={chosen.length} onLook={lookAt} />
      )}
      {dialog}
    </ChosenFoot>
  );
}
