import { useEffect, useRef, useState } from 'react';
import type { PlannedSchedule, RehearsedLine } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import type { RehearsalAnswer, RehearsalQuestion } from './rehearsal-worker.ts';

export type Rehearsal =
  | { readonly kind: 'working' }
  | { readonly kind: 'plan'; readonly plan: readonly RehearsedLine[] }
  | { readonly kind: 'problem'; readonly message: string };

/** The plan over a span, computed by a worker; the last answer stays until the next is there. */
export function useRehearsal(
  schedule: PlannedSchedule,
  set: RehearsalQuestion['set'],
  from: number,
  to: number,
): Rehearsal {
  const { calendar } = useWorkspace();
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const [answer, setAnswer] = useState<Rehearsal>({ kind: 'working' });
  useEffect(() => {
    const made = new Worker(new URL('./rehearsal-worker.ts', import.meta.url), { type: 'module' });
    made.onmessage = ({ data }: MessageEvent<RehearsalAnswer>) => {
      if (data.asked !== asked.current) return;
      setAnswer('plan' in data ? { kind: 'plan', plan: data.plan } : { kind: 'problem', message: data.problem });
    };
    made.onerror = () =>
      setAnswer({ kind: 'problem', message: 'The rehearsal could not be started. Reload the page.' });
    worker.current = made;
    return () => made.terminate();
  }, []);
  useEffect(() => {
    asked.current += 1;
    const question: RehearsalQuestion = { asked: asked.current, schedule, set, calendar, from, to };
    worker.current?.postMessage(question);
  }, [schedule, set, calendar, from, to]);
  return answer;
}
