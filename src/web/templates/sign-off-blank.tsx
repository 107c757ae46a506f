import type { SignOff } from '../../core/index.ts';
import { useWorkspace } from '../shell/workspace.tsx';

interface SignOffBlankProps {
  readonly label: string;
  readonly signOff: SignOff | null;
  readonly onChange: (signOff: SignOff | null) => void;
}

/** Who signs finished work off, or nobody. */
export function SignOffBlank({ label, signOff, onChange }: SignOffBlankProps) {
  const { people } = useWorkspace();
  const roles = [...new Set(people.map(({ role }) => role))].sort();
  return (
    <select
      className="blank"
      aria-label={label}
      value={signOff === null ? '' : JSON.stringify(signOff)}
      onChange={({ target }) => onChange(target.value === '' ? null : (JSON.parse(target.value) as SignOff))}
    >
      <option value="">nobody has to sign it off</option>
      <option value={JSON.stringify({ by: 'manager' })}>a manager signs it off</option>
      <optgroup label="a person">
        {people.map(({ id, name }) => (
          <option key={id} value={JSON.stringify({ by: 'person', personId: id })}>
            {name} signs it off
          </option>
        ))}
      </optgroup>
      <optgroup label="a role">
        {roles.map((role) => (
          <option key={role} value={JSON.stringify({ by: 'role', role })}>
            someone of the role {role} signs it off
          </option>
        ))}
      </optgroup>
    </select>
  );
}
