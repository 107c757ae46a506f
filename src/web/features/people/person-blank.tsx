import { NOBODY_YET } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank } from '../../kit/blanks.tsx';

const NOBODY = 'nobody';

/** One of the people, or nobody yet, in a sentence. @param nobody what it is called where nobody is named */
export function PersonBlank({
  label,
  personId,
  nobody = NOBODY_YET,
  onChange,
}: {
  readonly label: string;
  readonly personId: string | null;
  readonly nobody?: string;
  readonly onChange: (personId: string | null) => void;
}) {
  const { staffWith } = useWorkspace();
  return (
    <ChoiceBlank
      label={label}
      value={personId ?? NOBODY}
      options={[[NOBODY, nobody], ...staffWith(personId).map(({ id, name }) => [id, name] as const)]}
      onChange={(id) => onChange(id === NOBODY ? null : id)}
    />
  );
}
