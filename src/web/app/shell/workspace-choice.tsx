import { workspaceAddresses } from '../../../contract/addresses.ts';
import { useAnswer } from '../../kit/answer.ts';
import { ask } from '../../kit/api.ts';
import { sayTrouble } from './toast.tsx';
import { useWorkspace } from './workspace.tsx';

/** Of an account that belongs to several workspaces: which one is looked at. */
export default function WorkspaceChoice() {
  const { me } = useWorkspace();
  const { data } = useAnswer(workspaceAddresses.workspaces, {});
  if (!data || data.workspaces.length < 2) return null;
  const change = (personId: string) => {
    ask(workspaceAddresses.changeWorkspace, { body: { personId } })
      // Nothing of the one stays in the other.
      .then(() => window.location.assign('/'))
      .catch(sayTrouble);
  };
  return (
    <select
      className="h-8 max-w-[150px] cursor-pointer rounded-field bg-bar px-1.5 text-bar-text max-[720px]:hidden"
      aria-label="Workspace"
      value={me.id}
      onChange={({ target }) => change(target.value)}
    >
      {data.workspaces.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );
}
