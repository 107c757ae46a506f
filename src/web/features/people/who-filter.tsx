import { useWorkspace } from '../../app/shell/workspace.tsx';
import { FilterChoice } from '../../kit/filter-choice.tsx';

const KINDS = ['person', 'role', 'team'] as const;
/** Whose work: at most one of them, as the address says it. */
export type WhoAsked = Readonly<Partial<Record<(typeof KINDS)[number], string | undefined>>>;

interface WhoFilterProps {
  readonly asked: WhoAsked;
  /** What stands for work that is nobody's; left out where that is not asked for. */
  readonly nobody?: string;
  /** All three of them, of which at most one is not empty. */
  readonly onChange: (who: Readonly<Record<(typeof KINDS)[number], string>>) => void;
}

/** Whose work is shown, as a word among the words of a page's head: anybody's, a person's, a role's or a team's. */
export function WhoFilter({ asked, nobody, onChange }: WhoFilterProps) {
  const { people, roles, teams } = useWorkspace();
  const chosen = KINDS.find((kind) => asked[kind]);
  return (
    <FilterChoice
      label="Who"
      value={chosen ? `${chosen} ${asked[chosen]}` : ''}
      onChange={(value) => {
        const [kind, ...rest] = value.split(' ');
        onChange({ person: '', role: '', team: '', ...(kind ? { [kind]: rest.join(' ') } : {}) });
      }}
      options={[
        ['', 'any person'],
        ...(nobody === undefined ? [] : [[`person ${nobody}`, 'nobody yet'] as const]),
        ...people.map(({ id, name }) => [`person ${id}`, name] as const),
        ...roles.map((role) => [`role ${role}`, `role ${role}`] as const),
        ...teams.map((team) => [`team ${team}`, `team ${team}`] as const),
      ]}
    />
  );
}
