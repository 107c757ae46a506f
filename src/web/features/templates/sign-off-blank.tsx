import type { Person } from '../../../contract/index.ts';
import { mayAll, reachOf, type SignOff } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';

interface SignOffBlankProps {
  readonly label: string;
  readonly signOff: SignOff | null;
  readonly onChange: (signOff: SignOff | null) => void;
}

/** Who signs finished work off, or nobody. */
export function SignOffBlank({ label, signOff, onChange }: SignOffBlankProps) {
  const { staff: people, roles: listed } = useWorkspace();
  const roles = [...new Set([...listed, ...people.flatMap((person) => person.roles)])].sort();
  const alone = onlySigner(signOff, people);
  return (
    <>
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
      {alone !== null && (
        <span className="block text-note leading-4.25" role="status">
          {alone === ''
            ? 'Nobody here could sign it, so it would wait for ever.'
            : `Only ${alone} can sign it, and nobody signs their own work: what ${alone} does would wait for ever.`}
        </span>
      )}
    </>
  );
}

/** The one person who could sign, by name; empty where nobody could, null where there are several or it needs none. */
function onlySigner(signOff: SignOff | null, people: readonly Person[]): string | null {
  if (signOff === null) return null;
  const signers = people.filter(
    ({ id, roles, access }) =>
      mayAll(access, 'sign') ||
      (reachOf(access, 'sign') === 'own' &&
        (signOff.by === 'person' ? signOff.personId === id : signOff.by === 'role' && roles.includes(signOff.role))),
  );
  if (signers.length > 1) return null;
  return signers[0]?.name ?? '';
}
