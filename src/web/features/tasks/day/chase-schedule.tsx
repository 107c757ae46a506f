import { useState } from 'react';
import { messageAddresses } from '../../../../contract/addresses-later.ts';
import { MOST_NUDGED } from '../../../../contract/index.ts';
import { plural } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { useAnswer } from '../../../kit/answer.ts';
import { useTaskActions } from '../api.ts';
import { People } from './chase-list.tsx';
import { NudgeSentence } from './nudge-sentence.tsx';

/** Of what a schedule has made and is due by today who has not done it, and a word to all of them; nothing where it is done. */
export function ChaseSchedule({ scheduleId }: { readonly scheduleId: string }) {
  const { may } = useWorkspace();
  const { data, mutate } = useAnswer(
    messageAddresses.chaseOfSchedule,
    may('nudge') ? { params: { scheduleId } } : null,
  );
  const { nudge } = useTaskActions();
  const [busy, setBusy] = useState(false);
  const tasks = (data?.people ?? []).flatMap((one) => one.tasks.map(({ id }) => id));
  if (!data || tasks.length === 0) return null;
  return (
    <section className="mt-4 border-t border-line-2 pt-2.5">
      <h2 className="text-body leading-5.5 text-primary">
        Due, and not done: {tasks.length === MOST_NUDGED && 'the first '}
        {plural(tasks.length, 'task')}
      </h2>
      <People people={data.people} />
      <NudgeSentence
        count={tasks.length}
        busy={busy}
        onNudge={async (text) => {
          setBusy(true);
          await nudge(tasks, { text });
          await mutate();
          setBusy(false);
        }}
      />
    </section>
  );
}
