import { useState } from 'react';
import { MOST_SUBJECTS } from '../../../../contract/index.ts';
import { Picker } from '../../../kit/picker.tsx';
import { useSubjects } from '../../clients/api.ts';

interface AddClientProps {
  readonly chosen: readonly string[];
  readonly onAdd: (client: { readonly id: string; readonly name: string }) => void;
}

/** One more client, looked up by name. */
export function AddClient({ chosen, onAdd }: AddClientProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const { data: found, isLoading, error } = useSubjects(typed);
  const clients = new Map(
    (found?.subjects ?? []).flatMap(({ clientId, assetId, name }) =>
      clientId === null || assetId !== null || chosen.includes(clientId) ? [] : [[clientId, name] as const],
    ),
  );
  return (
    <div className="flex-none border-b border-line px-5 py-2 max-[720px]:px-4">
      <Picker
        label="Add a client"
        look="button"
        chosen=""
        placeholder="Add a client"
        options={[...clients].map(([key, name]) => ({ key, name }))}
        onType={setTyped}
        isLooking={isLoading}
        trouble={error?.message}
        below={found?.isMore ? `The first ${MOST_SUBJECTS}: type more of the name for others.` : undefined}
        onChoose={(id) => onAdd({ id, name: clients.get(id) ?? '' })}
      />
    </div>
  );
}
