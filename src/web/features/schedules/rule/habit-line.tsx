import { joinAnd, PHRASE_HABITS, type PhraseHabits } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { useTrying } from '../../../kit/use-trying.ts';
import { useSettingsActions } from '../../settings/api.ts';
import { sayHabit } from '../../settings/settings-changes.ts';

interface HabitLineProps {
  /** What was just chosen of how people speak; empty where nothing was. */
  readonly habits: PhraseHabits;
  readonly onDone: () => void;
}

/** Offers to read a word so from now on, for everybody here; the settings can take it back. */
export function HabitLine({ habits, onDone }: HabitLineProps) {
  const { may } = useWorkspace();
  const { settle } = useSettingsActions();
  const { busy, trying } = useTrying();
  const said = joinAnd(
    PHRASE_HABITS.filter((habit) => habits[habit] !== undefined).map((habit) => sayHabit(habit, habits[habit])),
  );
  if (said === '' || !may('settings')) return null;
  const remember = () =>
    trying(async () => {
      await settle(habits, `${said}, for everybody here.`);
      onDone();
    });
  return (
    <p className="mt-1 text-note leading-5" role="status">
      {said}.{' '}
      <button type="button" className="link-line" disabled={busy} onClick={() => void remember()}>
        Read it so for everybody from now on
      </button>
    </p>
  );
}
