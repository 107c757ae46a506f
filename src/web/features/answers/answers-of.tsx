import { SECTION, SectionTitle } from '../../kit/side-sheet.tsx';
import { AnswerLines } from './answer-lines.tsx';

/** What the client wrote back about a task. */
export default function AnswersOfTask({ taskId }: { readonly taskId: string }) {
  return (
    <AnswerLines of={{ task: taskId }}>
      {(lines, count) => (
        <div className={SECTION}>
          <SectionTitle aside={count > 1 ? String(count) : undefined}>Answers by mail</SectionTitle>
          {lines}
        </div>
      )}
    </AnswerLines>
  );
}

/** All that a client wrote back. */
export function AnswersOfClient({ clientId }: { readonly clientId: string }) {
  return (
    <AnswerLines of={{ client: clientId }}>
      {(lines) => (
        <section className="border-t border-line-2 px-5 py-2.5 max-[720px]:px-4">
          <h2 className="text-body leading-5.5 text-primary">Answers by mail</h2>
          {lines}
        </section>
      )}
    </AnswerLines>
  );
}
