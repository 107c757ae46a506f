import { useState } from 'react';
import { MOST_SUBJECTS } from '../../../contract/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { Picker, type PickerOption } from '../../kit/picker.tsx';
import { type ForWhom, useForWhom, useSubjects } from './api.ts';

/** A key and what it stands for; ids hold no stroke. */
const keyOf = ({ clientId, assetId }: ForWhom) => `${clientId ?? ''}/${assetId ?? ''}`;
const forWhomOf = (key: string): ForWhom => {
  const [clientId = '', assetId = ''] = key.split('/');
  return { clientId: clientId || null, assetId: assetId || null };
};
const OURSELVES = keyOf({ clientId: null, assetId: null });

interface SubjectPickerProps {
  readonly chosen: ForWhom;
  readonly onChoose: (forWhom: ForWhom) => void;
}

/** For whom: the workspace itself, an asset of its own, a client or what is theirs, looked up as it is typed. */
export function SubjectPicker({ chosen, onChoose }: SubjectPickerProps) {
  const { name } = useWorkspace();
  const [typed, setTyped] = useState<string | null>(null);
  const { data: found, isLoading, error } = useSubjects(typed);
  const names = useForWhom(chosen);
  const ourselves = `${name} itself`;
  const options: PickerOption[] = [
    { key: OURSELVES, name: ourselves, detail: 'no client' },
    ...(found?.subjects ?? []).map((subject) => ({
      key: keyOf(subject),
      name: subject.name,
      detail: subject.detail,
      alsoBy: subject.tag === null ? [] : [subject.tag],
      group: subject.clientId === null ? 'our own' : 'clients and what is theirs',
    })),
  ];
  return (
    <Picker
      label="For whom"
      chosen={keyOf(chosen)}
      chosenName={names ? ((names.asset ?? names.client)?.name ?? ourselves) : '…'}
      options={options}
      onType={setTyped}
      isLooking={isLoading}
      trouble={error?.message}
      below={found?.isMore ? `The first ${MOST_SUBJECTS}: type more of the name for others.` : undefined}
      onChoose={(key) => onChoose(forWhomOf(key))}
    />
  );
}
