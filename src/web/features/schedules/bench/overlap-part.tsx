import type { Overlap } from '../../../../core/index.ts';
import { ChoiceBlank, NumberBlank, Part } from '../../../kit/blanks.tsx';

const LIMIT_AT_FIRST = 5;
const EFFECT: Readonly<Record<Overlap['kind'], string>> = {
  add: 'both stand beside each other',
  lapse: 'on the day of the next, what was not begun is closed as lapsed',
  wait: 'one at a time: the next is made when the last one is over',
};

/** What is done when the next comes while the last one is still open, and what that leads to. */
export function OverlapPart({
  overlap,
  onChange,
}: {
  readonly overlap: Overlap;
  readonly onChange: (overlap: Overlap) => void;
}) {
  return (
    <Part name="If late" aside="and the next one comes">
      <ChoiceBlank
        label="If the last one is still open"
        value={overlap.kind}
        options={[
          ['add', 'add the next anyway'],
          ['lapse', 'let the old one lapse'],
          ['wait', 'wait until the old one is over'],
        ]}
        onChange={(kind) => onChange(kind === 'wait' ? { kind, limitDays: LIMIT_AT_FIRST } : { kind })}
      />
      {overlap.kind === 'wait' && (
        <>
          , and say so after{' '}
          <NumberBlank
            label="Days it may wait"
            value={overlap.limitDays}
            least={1}
            most={366}
            onChange={(limitDays) => onChange({ kind: 'wait', limitDays })}
          />{' '}
          days
        </>
      )}
      <p className="text-note leading-5 text-ink-2">{EFFECT[overlap.kind]}</p>
    </Part>
  );
}
