import type { LeaveImpact } from '../../../../contract/index.ts';
import { type LeaveCover, sayHours, TURN_COVERS, type TurnCoverChoice } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { Picker, type PickerOption } from '../../../kit/picker.tsx';

/** Who takes over while somebody is away, and a way to choose it. */
export interface ChosenCover {
  /** Whoever is away. */
  readonly of: string;
  /** Null where it is as the work itself says. */
  readonly chosen: LeaveCover | null;
  readonly onChoose: (cover: LeaveCover | null) => void;
}

interface CoverLineProps extends ChosenCover {
  readonly kind: keyof LeaveCover;
  readonly impact: Pick<LeaveImpact, 'deputy' | 'peers'>;
  readonly busy: boolean;
}

const AS_SAID = 'as said';
const NEITHER: LeaveCover = { turns: null, name: null };

/** Who has what somebody has by turn, or by name, while they are away: as each piece of work says, or chosen for this leave. */
export function CoverLine({ kind, of, chosen, onChoose, impact: { deputy, peers }, busy }: CoverLineProps) {
  const { staff } = useWorkspace();
  const cover = chosen ?? NEITHER;
  const ofRole = new Set(peers.map(({ person }) => person.id));
  const options: PickerOption[] = [
    { key: AS_SAID, name: 'as the work says' },
    ...(kind === 'turns'
      ? [
          { key: 'next', name: 'the next in turn' },
          { key: 'exchange', name: 'the next, in exchange', detail: 'for a later turn' },
        ]
      : []),
    ...(deputy === null ? [] : [{ key: 'deputy', name: deputy.name, detail: 'takes over as a rule' }]),
    { key: 'nobody', name: 'nobody', detail: 'for a planner to give' },
    ...peers.map(({ person, minutes, capacity }) => ({
      key: person.id,
      name: person.name,
      detail: `${sayHours(minutes)} of ${sayHours(capacity)} h in those weeks`,
      group: 'of the same role',
    })),
    ...staff
      .filter(({ id }) => id !== of && !ofRole.has(id))
      .map(({ id, name }) => ({ key: id, name, group: 'others' })),
  ];
  const current = cover[kind];
  const key = current === null ? AS_SAID : typeof current === 'string' ? current : current.personId;
  const choose = (next: string) => {
    const named = TURN_COVERS.find((one) => one === next);
    const choice: TurnCoverChoice | null = next === AS_SAID ? null : (named ?? { personId: next });
    const both = { ...cover, [kind]: choice };
    onChoose(both.turns === null && both.name === null ? null : both);
  };
  return (
    <div
      className={`flex min-h-8 items-center gap-1.5 border-b max-[720px]:px-4 border-line py-1 text-row ${busy ? 'text-ink-2' : ''}`}
      aria-busy={busy}
    >
      then with{' '}
      <Picker
        label={kind === 'turns' ? 'Who takes the turns' : 'Who takes what is given by name'}
        chosen={key}
        options={options}
        onChoose={choose}
      />
    </div>
  );
}
