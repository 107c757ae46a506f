import { useState } from 'react';
import { plural } from '../../../../core/index.ts';
import { ChoiceBlank } from '../../../kit/blanks.tsx';
import { DeedSentence } from '../../../kit/chosen-foot.tsx';
import { useTrying } from '../../../kit/use-trying.ts';
import { usePlan, usePlanActions, usePlans } from '../../plans/api.ts';

interface GatherFormProps {
  readonly ids: readonly string[];
  readonly onDone: () => void;
}

/** Takes schedules that are there as those of an item of a plan; nothing of them changes. */
export function GatherForm({ ids, onDone }: GatherFormProps) {
  const { data } = usePlans();
  const plans = data?.plans.filter(({ isArchived, items }) => !isArchived && items.length > 0) ?? [];
  const [planId, setPlan] = useState<string | null>(null);
  const chosenId = planId ?? plans[0]?.id ?? null;
  const { data: plan } = usePlan(chosenId);
  const [key, setKey] = useState<string | null>(null);
  const { gather } = usePlanActions();
  const { busy, trying } = useTrying();
  const item = plan?.items.find((one) => one.key === key) ?? plan?.items[0];
  if (data && plans.length === 0)
    return <p className="mt-2 text-row">There is no plan with anything in it yet: write one first.</p>;
  if (!plan || !item) return null;
  return (
    <DeedSentence
      problem={null}
      busy={busy}
      words={`Gather ${plural(ids.length, 'schedule')}`}
      onLook={() =>
        void trying(async () => {
          await gather(plan.id, { version: plan.version, item: item.key, schedules: [...ids] }, plan.name);
          onDone();
        })
      }
    >
      Take them as{' '}
      <ChoiceBlank
        label="Item"
        value={item.key}
        options={plan.items.map((one) => [one.key, one.template.name] as const)}
        onChange={setKey}
      />{' '}
      of the plan{' '}
      <ChoiceBlank
        label="Plan"
        value={plan.id}
        options={plans.map(({ id, name }) => [id, name] as const)}
        onChange={(id) => {
          setPlan(id);
          setKey(null);
        }}
      />
      , and put their clients on it. No task changes; what they say otherwise stays their own.
    </DeedSentence>
  );
}
