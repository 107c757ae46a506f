import { useState } from 'react';
import { MOST_SUBJECTS } from '../../../contract/index.ts';
import { Picker } from '../../kit/picker.tsx';
import { useSubjects } from './api.ts';

interface ClientPickerProps {
  readonly label: string;
  readonly look: 'button' | 'deed' | 'word';
  /** Clients that are not offered. */
  readonly without?: readonly string[];
  readonly onChoose: (client: { readonly id: string; readonly name: string }) => void;
}

/** A client, looked up by name. */
export function ClientPicker({ label, look, without = [], onChoose }: ClientPickerProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const { data: found, isLoading, error } = useSubjects(typed);
  const clients = new Map(
    (found?.subjects ?? []).flatMap(({ clientId, assetId, name }) =>
      clientId === null || assetId !== null || without.includes(clientId) ? [] : [[clientId, name] as const],
    ),
  );
  return (
    <Picker
      label={label}
      look={look}
      chosen=""
      placeholder={label}
      options={[...clients].map(([key, name]) => ({ key, name }))}
      onType={setTyped}
      isLooking={isLoading}
      trouble={error?.message}
      below={found?.isMore ? `The first ${MOST_SUBJECTS}: type more of the name for others.` : undefined}
      onChoose={(id) => onChoose({ id, name: clients.get(id) ?? '' })}
    />
  );
}
