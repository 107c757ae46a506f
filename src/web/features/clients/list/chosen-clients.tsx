import { useNavigate } from 'react-router';
import { type ClientLine, MOST_PUT_ON } from '../../../../contract/index.ts';
import { plural } from '../../../../core/index.ts';
import { ChosenFoot } from '../../../kit/chosen-foot.tsx';

interface ChosenClientsProps {
  readonly chosen: readonly ClientLine[];
  readonly onClear: () => void;
}

/** What can be done with chosen clients. */
export function ChosenClients({ chosen, onClear }: ChosenClientsProps) {
  const navigate = useNavigate();
  if (chosen.length === 0) return null;
  const without = chosen.filter(({ plan }) => plan === null).length;
  const idle = chosen.filter(({ next }) => next === null).length;
  return (
    <ChosenFoot
      label="The chosen clients"
      words={[
        `${plural(chosen.length, 'client')} chosen`,
        ...(without > 0 ? [`${without} on no plan`] : []),
        ...(idle > 0 ? [`${idle} with nothing coming`] : []),
      ].join(', ')}
      deeds={[['putOn', `Put ${chosen.length} on a plan`]]}
      doing={null}
      busy={false}
      note={chosen.length > MOST_PUT_ON ? `${MOST_PUT_ON} at once, at the most` : null}
      onDeed={() =>
        void navigate('/plans/put-on', {
          state: { clients: chosen.slice(0, MOST_PUT_ON).map(({ id, name }) => ({ id, name })) },
        })
      }
      onClear={onClear}
    >
      {null}
    </ChosenFoot>
  );
}
