import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank } from '../../kit/blanks.tsx';

const NOBODY = 'nobody';

/** One of the people, or nobody yet, in a sentence. */
export function PersonBlank({
  label,
  personId,
  onChange,
}: {
  readonly label: string;
  readonly personId: string | null;
  readonly onChange: (personId: string | null) => void;
}) {
  const { staffWith } = useWorkspace();
  return (
    <ChoiceBlank
      label={label}
      value={personId ?? NOBODY}
      options={[[NOBODY, 'nobody yet'], ...staffWith(personId).map(({ id, name }) => [id, name] as const)]}
      onChange={(id) => onChange(id === NOBODY ? null : id)}
    />
  );
}
