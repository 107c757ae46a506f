import type { PlanStart } from '../../../contract/index.ts';
import { type CivilDay, dayOfIso, isoOfDay } from '../../../core/index.ts';
import { DateBlank } from '../../kit/blanks.tsx';
import { Picker } from '../../kit/picker.tsx';
import { useTemplates } from '../templates/api.ts';

interface StartBlankProps {
  readonly start: PlanStart | null;
  /** On which day it is started until another is said. */
  readonly day: CivilDay;
  readonly onChange: (start: PlanStart | null) => void;
}

const NOTHING = 'nothing';

/** A set that is started by hand in the same go: "and start New berth-holder on 1 Dec 2026". */
export function StartBlank({ start, day, onChange }: StartBlankProps) {
  const { templates } = useTemplates();
  return (
    <>
      and start{' '}
      <Picker
        label="Start by hand"
        chosen={start?.templateId ?? NOTHING}
        options={[
          { key: NOTHING, name: 'nothing else' },
          ...(templates ?? [])
            .filter(({ archivedOn }) => archivedOn === null)
            .map(({ id, name, makes }) => ({ key: id, name, detail: makes > 1 ? `a set of ${makes} tasks` : '' })),
        ]}
        onChoose={(key) =>
          onChange(key === NOTHING ? null : { templateId: key, on: start?.on ?? isoOfDay(day), without: [] })
        }
      />
      {start && (
        <>
          {' '}
          on{' '}
          <DateBlank
            label="Started on"
            value={dayOfIso(start.on)}
            onChange={(on) => onChange({ ...start, on: isoOfDay(on) })}
          />
        </>
      )}
    </>
  );
}
