import { useState } from 'react';
import { MOST_SUBJECTS } from '../../../../contract/index.ts';
import { Picker } from '../../../kit/picker.tsx';
import { useSubjects } from '../../clients/api.ts';

interface TagChoiceProps {
  readonly onChoose: (tag: string) => void;
}

/** A tag from among all there are, where it can be read by eye and is long to type: found by its signs, or by what it hangs on. */
export function TagChoice({ onChoose }: TagChoiceProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const { data: found, isLoading, error } = useSubjects(typed);
  const options = (found?.subjects ?? []).flatMap(({ tag, name, detail }) =>
    tag === null ? [] : [{ key: tag, name: tag, detail: [name, detail].filter(Boolean).join(', ') }],
  );
  return (
    <Picker
      label="Choose the tag"
      look="button"
      placeholder="Choose it"
      chosen=""
      options={options}
      onType={setTyped}
      isLooking={isLoading}
      trouble={error?.message}
      below={found?.isMore ? `Of the first ${MOST_SUBJECTS}: type more of it for others.` : undefined}
      onChoose={onChoose}
    />
  );
}
