import type { PlanLine, Workspace } from '../../../contract/index.ts';
import type { FieldTest, OwnField, PoolCondition } from '../../../core/index.ts';
import { testsOf } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank, NumberBlank } from '../../kit/blanks.tsx';
import { SomeBlank } from '../../kit/some-blank.tsx';

type Plans = readonly Pick<PlanLine, 'id' | 'name'>[];

interface ConditionBlanksProps {
  readonly condition: PoolCondition;
  readonly plans: Plans;
  readonly onChange: (condition: PoolCondition) => void;
}

/** One condition of a pool as a sentence with blanks. */
export function ConditionBlanks({ condition, plans, onChange }: ConditionBlanksProps) {
  const { staffWith, clientFields } = useWorkspace();
  switch (condition.kind) {
    case 'plans':
      return (
        <>
          on{' '}
          <SomeBlank
            label="Service plan"
            chosen={condition.ids}
            options={plans.map(({ id, name }) => [id, name] as const)}
            join="or"
            gone="a plan that is gone"
            onChange={(ids) => onChange({ kind: 'plans', ids })}
          />
        </>
      );
    case 'usualPeople':
      return (
        <>
          looked after by{' '}
          <SomeBlank
            label="Looked after by"
            chosen={condition.ids}
            options={staffWith(...condition.ids).map(({ id, name }) => [id, name] as const)}
            join="or"
            gone="somebody who is gone"
            onChange={(ids) => onChange({ kind: 'usualPeople', ids })}
          />
        </>
      );
    case 'notRungFor':
      return (
        <>
          not rung for{' '}
          <NumberBlank
            label="Days since the last call"
            value={condition.days}
            least={1}
            most={3660}
            onChange={(days) => onChange({ kind: 'notRungFor', days })}
          />{' '}
          {condition.days === 1 ? 'day' : 'days'}
        </>
      );
    case 'neverRung':
      return <>never rung</>;
    case 'field': {
      const field = clientFields.find(({ key }) => key === condition.key);
      if (!field) return <span className="text-late">a field that is gone</span>;
      return (
        <>
          {field.name}{' '}
          <ChoiceBlank
            label={`What is asked of ${field.name}`}
            value={condition.test.kind}
            options={testsOf(field.kind).map((kind) => [kind, TEST_WORDS[kind]] as const)}
            onChange={(kind) => onChange({ ...condition, test: newTest(kind, field) })}
          />{' '}
          <TestBlank field={field} test={condition.test} onChange={(test) => onChange({ ...condition, test })} />
        </>
      );
    }
  }
}

const TEST_WORDS: Readonly<Record<FieldTest['kind'], string>> = {
  isOneOf: 'is',
  within: 'within',
  atLeast: 'at least',
  atMost: 'at most',
  isSaid: 'is said',
  isUnsaid: 'is not said',
};

function TestBlank({
  field,
  test,
  onChange,
}: {
  readonly field: OwnField;
  readonly test: FieldTest;
  readonly onChange: (test: FieldTest) => void;
}) {
  switch (test.kind) {
    case 'isOneOf':
      return (
        <ChoiceBlank
          label={field.name}
          value={test.values[0] ?? ''}
          options={field.choices.map((choice) => [choice, choice] as const)}
          onChange={(value) => onChange({ kind: 'isOneOf', values: [value] })}
        />
      );
    case 'within':
      return (
        <>
          <NumberBlank
            label={`Days until ${field.name}`}
            value={test.days}
            least={0}
            most={3660}
            onChange={(days) => onChange({ kind: 'within', days })}
          />{' '}
          {test.days === 1 ? 'day' : 'days'}
        </>
      );
    case 'atLeast':
    case 'atMost':
      return (
        <NumberBlank
          label={field.name}
          value={test.value}
          least={0}
          most={99_999}
          onChange={(value) => onChange({ ...test, value })}
        />
      );
    case 'isSaid':
    case 'isUnsaid':
      return null;
  }
}

function newTest(kind: FieldTest['kind'], field: OwnField): FieldTest {
  switch (kind) {
    case 'isOneOf':
      return { kind, values: field.choices.slice(0, 1) };
    case 'within':
      return { kind, days: 90 };
    case 'atLeast':
    case 'atMost':
      return { kind, value: 0 };
    case 'isSaid':
    case 'isUnsaid':
      return { kind };
  }
}

/** What a condition begins with that was just added; null where there is nothing to ask for. */
export function newCondition(
  chosen: string,
  {
    plans,
    staff,
    clientFields,
  }: Pick<Workspace, 'clientFields'> & {
    readonly plans: Plans;
    readonly staff: readonly Workspace['people'][number][];
  },
): PoolCondition | null {
  switch (chosen) {
    case 'plans':
      return plans[0] ? { kind: 'plans', ids: [plans[0].id] } : null;
    case 'usualPeople':
      return staff[0] ? { kind: 'usualPeople', ids: [staff[0].id] } : null;
    case 'notRungFor':
      return { kind: 'notRungFor', days: 30 };
    case 'neverRung':
      return { kind: 'neverRung' };
    default: {
      const field = clientFields.find(({ key }) => chosen === `field ${key}`);
      const [test] = field ? testsOf(field.kind) : [];
      return field && test ? { kind: 'field', key: field.key, test: newTest(test, field) } : null;
    }
  }
}
