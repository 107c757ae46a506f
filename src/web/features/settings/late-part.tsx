import type { Escalation } from '../../../core/index.ts';
import { Part } from '../../kit/blanks.tsx';
import { FieldError } from '../../kit/field-error.tsx';
import { LateLines } from '../templates/late-lines.tsx';

interface LatePartProps {
  readonly escalation: Escalation;
  readonly wrong: string | undefined;
  readonly onChange: (escalation: Escalation) => void;
}

/** Who is told of late work, unless its template says so itself. */
export function LatePart({ escalation, wrong, onChange }: LatePartProps) {
  return (
    <Part name="Late work">
      <LateLines escalation={escalation} onChange={onChange} />
      <span className="block text-ink-2">
        A template may say so itself. Each hears of it where they choose to, on their page of messages.
      </span>
      {wrong && <FieldError message={wrong} />}
    </Part>
  );
}
