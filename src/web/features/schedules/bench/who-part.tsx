import { ASSIGNMENT_KINDS, type AssignmentRule, givenTo } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { Part } from '../../../kit/blanks.tsx';
import { type BenchProblem, type FormPartProps, Wrong } from './form-part.tsx';
import { ListBlanks } from './list-blanks.tsx';
import { TurnBlanks, type TurnsAround } from './turn-blanks.tsx';
import { CoverBlank, DaysOffBlank, GroupBlank, PersonPicker } from './who-pickers.tsx';
import { KIND_WORDS, ofKind } from './who-rules.ts';

interface WhoPartProps extends FormPartProps, TurnsAround {
  /** Under which name what is being typed is kept. */
  readonly place: string;
  readonly problem: BenchProblem | null;
}

/** Who does it, as a sentence: one of a few rules, and the blanks of the one that is chosen. */
export function WhoPart(props: WhoPartProps) {
  const { draft, onChange } = props;
  const { today, me, staff, roles } = useWorkspace();
  const { assignment: rule } = draft;
  const set = (assignment: AssignmentRule) => onChange({ ...draft, assignment });
  const around = { today, roles, staff, meId: me.id };
  const kinds = ASSIGNMENT_KINDS.filter(
    (kind) => (kind !== 'usualPerson' && kind !== 'client') || draft.clientId !== null || rule.kind === kind,
  );
  return (
    <Part name="Who">
      <fieldset className="flex flex-wrap items-baseline gap-x-2.5 gap-y-0 leading-6.5">
        <legend className="sr-only">Who does it</legend>
        {kinds.map((kind) => (
          <label
            key={kind}
            className="cursor-pointer border-b border-line-2 text-ink-2 hover:text-ink has-checked:border-b-2 has-checked:border-accent has-checked:font-semibold has-checked:text-ink has-focus-visible:outline-2 has-focus-visible:outline-accent"
          >
            <input
              type="radio"
              name="who"
              className="sr-only"
              checked={rule.kind === kind}
              onChange={() => set(ofKind(kind, rule, around))}
            />
            {KIND_WORDS[kind]}
          </label>
        ))}
      </fieldset>
      <RuleBlanks {...props} rule={rule} set={set} />
      <Wrong problem={props.problem} under="assignment" />
    </Part>
  );
}

interface BlanksProps extends WhoPartProps {
  readonly rule: AssignmentRule;
  readonly set: (rule: AssignmentRule) => void;
}

function RuleBlanks(props: BlanksProps) {
  const { rule, set, draft } = props;
  switch (rule.kind) {
    case 'nobody':
      return (
        <div>
          <PersonPicker
            label="Who does it"
            id={null}
            none="nobody yet"
            onChoose={(personId: string | null) => set(givenTo(personId))}
          />{' '}
          does it: give it to someone before the first date
        </div>
      );
    case 'person':
      return (
        <div>
          <PersonPicker
            label="Who does it"
            id={rule.personId}
            onChoose={(personId: string) => set({ ...rule, personId })}
          />{' '}
          does it, <NamedRest rule={rule} set={set} />
        </div>
      );
    case 'usualPerson':
      return (
        <div>
          whoever looks after the client, and{' '}
          <PersonPicker
            label="Who does it where the client has nobody"
            id={rule.otherwiseId}
            none="nobody yet"
            onChoose={(otherwiseId: string | null) => set({ ...rule, otherwiseId })}
          />{' '}
          where nobody does, <NamedRest rule={rule} set={set} />
        </div>
      );
    case 'client':
      return (
        <div>
          {draft.clientId === null ? (
            'choose a client: it is theirs to do'
          ) : (
            <>
              the first contact of the client who has a mail address is asked by mail when it appears, with a link to a
              page for it; no account is needed
            </>
          )}
        </div>
      );
    case 'anyOf':
      return (
        <div>
          any one of <GroupBlank group={rule.group} onChange={(group) => set({ ...rule, group })} />: it stands with all
          of them until one takes it
        </div>
      );
    case 'eachOf':
      return (
        <div>
          each of <GroupBlank group={rule.group} onChange={(group) => set({ ...rule, group })} /> has one of their own,{' '}
          <DaysOffBlank daysOffToo={rule.daysOffToo} onChange={(daysOffToo) => set({ ...rule, daysOffToo })} />; whoever
          is away has none, and who joins has theirs from the first day on
        </div>
      );
    case 'leastToDo':
      return (
        <div>
          whoever of <GroupBlank group={rule.group} onChange={(group) => set({ ...rule, group })} /> has the least to do
          in that week, for their hours
        </div>
      );
    case 'inTurn':
      return <TurnBlanks {...props} rule={rule} />;
    case 'listed':
      return <ListBlanks place={props.place} rule={rule} set={set} />;
  }
}

type NamedRule = Extract<AssignmentRule, { kind: 'person' | 'usualPerson' }>;

/** Days off, and who takes over, of somebody who is named. */
function NamedRest({ rule, set }: { readonly rule: NamedRule; readonly set: (rule: AssignmentRule) => void }) {
  return (
    <>
      <DaysOffBlank daysOffToo={rule.daysOffToo} onChange={(daysOffToo) => set({ ...rule, daysOffToo })} />; who is away
      is covered by{' '}
      <CoverBlank cover={rule.cover} covers={['deputy', 'nobody']} onChange={(cover) => set({ ...rule, cover })} />
    </>
  );
}
