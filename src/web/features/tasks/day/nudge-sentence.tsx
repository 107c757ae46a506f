import { useState } from 'react';
import { MOST_NUDGED } from '../../../../contract/index.ts';
import { DeedSentence } from '../../../kit/chosen-foot.tsx';

interface NudgeSentenceProps {
  /** How many tasks it is about. */
  readonly count: number;
  readonly busy: boolean;
  readonly onNudge: (text: string) => void;
}

/** A word to those who have some tasks. */
export function NudgeSentence({ count, busy, onNudge }: NudgeSentenceProps) {
  const [text, setText] = useState('');
  return (
    <DeedSentence
      problem={count > MOST_NUDGED ? `${MOST_NUDGED} at once at most.` : null}
      busy={busy}
      words="Nudge"
      onLook={() => onNudge(text.trim())}
    >
      Remind those who have them, saying{' '}
      <input
        className="blank w-[320px]"
        aria-label="What the nudge says"
        placeholder="nothing more"
        maxLength={300}
        value={text}
        onChange={({ target }) => setText(target.value)}
      />
    </DeedSentence>
  );
}
