import {
  ESCALATED_TO,
  ESCALATED_WORDS,
  type EscalatedTo,
  type Escalation,
  MOST_LATE_HOURS,
  USUAL_ESCALATION,
} from '../../../core/index.ts';
import { ChoiceBlank, NumberBlank } from '../../kit/blanks.tsx';

interface LateLinesProps {
  readonly escalation: Escalation;
  readonly onChange: (escalation: Escalation) => void;
}

/** Who is told of late work, one after the other: of a workspace, or of one template. */
export function LateLines({ escalation, onChange }: LateLinesProps) {
  const set = (to: EscalatedTo, hours: number | null) => onChange({ ...escalation, [to]: hours });
  return ESCALATED_TO.map((to) => (
    <span key={to} className="block">
      {ESCALATED_WORDS[to]}{' '}
      <ChoiceBlank
        label={`Whether late work is told to ${ESCALATED_WORDS[to]}`}
        value={escalation[to] === null ? 'no' : 'yes'}
        options={[
          ['yes', to === 'answering' ? 'are told' : 'is told'],
          ['no', to === 'answering' ? 'are not told' : 'is not told'],
        ]}
        onChange={(value) => set(to, value === 'no' ? null : USUAL_ESCALATION[to])}
      />
      {escalation[to] !== null && (
        <>
          {' '}
          after{' '}
          <NumberBlank
            label={`Hours until late work is told to ${ESCALATED_WORDS[to]}`}
            value={escalation[to]}
            least={1}
            most={MOST_LATE_HOURS}
            onChange={(hours) => set(to, hours)}
          />{' '}
          {escalation[to] === 1 ? 'hour' : 'hours'}
        </>
      )}
    </span>
  ));
}
