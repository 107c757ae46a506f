import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { PlanItemInput, PlanLook, ServicePlan } from '../../../contract/index.ts';
import {
  dayOfIso,
  estimatesOf,
  isCounted,
  isoOfDay,
  MAIN_PART,
  MOST_DELAY,
  plural,
  withTimes,
  writePhrase,
} from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank, DateBlank, NumberBlank } from '../../kit/blanks.tsx';
import { PhraseBox } from '../schedules/rule/phrase-box.tsx';
import { DefaultWho } from '../templates/default-who.tsx';
import { ItemEstimates, SetMinutes } from './item-estimates.tsx';
import { MonthFigures } from './month-figures.tsx';

/** What is known of the template of an item, from the plan as it is kept or from the list of templates. */
export type ItemTemplate = ServicePlan['items'][number]['template'];

interface ItemRowProps {
  readonly item: PlanItemInput;
  readonly template: ItemTemplate;
  readonly look: PlanLook | null;
  readonly isNew: boolean;
  readonly wrong: string | undefined;
  /** Null where it can't be changed. */
  readonly onChange: ((item: PlanItemInput) => void) | null;
  readonly onMove: (by: -1 | 1) => void;
  readonly onOut: () => void;
}

/** One item of a plan: what, when, who and how long as a sentence, and the months of all who have it. */
export function ItemRow(props: ItemRowProps) {
  const { item, template, look, isNew, wrong, onChange } = props;
  const each = look?.each.find(({ key }) => key === item.key);
  const months = look?.items.find(({ key }) => key === item.key);
  return (
    <li className="grid grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)] border-b border-line max-[1000px]:grid-cols-1">
      <div className="group px-5 py-2 text-row leading-7.5 max-[720px]:px-4">
        <div className="flex items-baseline gap-3 leading-6">
          <h3 className="min-w-0 truncate text-body">
            <Link className="hover:underline" to={`/templates/${template.id}`}>
              {template.name}
            </Link>
          </h3>
          <span className="text-note whitespace-nowrap text-ink-2">
            {template.tasks > 1 && `a set of ${template.tasks} tasks`}
            {template.isArchived && ' in the archive'}
          </span>
          <span className="ml-auto text-note whitespace-nowrap text-ink-2">{each && `${each.tasks} a year each`}</span>
          {onChange && <Tools {...props} />}
        </div>
        {onChange ? <Sentence {...props} onChange={onChange} /> : <Told item={item} template={template} />}
        {wrong && (
          <p role="alert" className="field-error">
            {wrong}
          </p>
        )}
      </div>
      <div className="border-l border-line px-4 py-2 max-[1000px]:border-l-0 max-[1000px]:pb-3">
        {months && <MonthFigures before={months.before} after={months.after} isNew={isNew} />}
      </div>
    </li>
  );
}

function Tools({ template, onMove, onOut }: ItemRowProps) {
  const tool =
    'grid h-6 w-6 cursor-pointer place-items-center rounded-field text-ink-2 hover:bg-base-200 hover:text-ink max-[720px]:h-11 max-[720px]:w-9';
  return (
    <span className="-mr-1.5 flex self-center">
      <button type="button" className={tool} aria-label={`${template.name} earlier`} onClick={() => onMove(-1)}>
        <ArrowUp size={14} aria-hidden />
      </button>
      <button type="button" className={tool} aria-label={`${template.name} later`} onClick={() => onMove(1)}>
        <ArrowDown size={14} aria-hidden />
      </button>
      <button type="button" className={tool} aria-label={`Take ${template.name} out`} onClick={onOut}>
        <X size={14} aria-hidden />
      </button>
    </span>
  );
}

/** The same for whoever only reads. */
function Told({ item, template }: Pick<ItemRowProps, 'item' | 'template'>) {
  const { yearStarts } = useWorkspace();
  return (
    <p className="leading-5.5">
      {writePhrase(item.recurrence, { start: 'unsaid', yearStarts })}
      <span className="text-ink-2">
        , <SetMinutes template={template} estimates={estimatesOf(item)} />
      </span>
    </p>
  );
}

const UNITS = ['day', 'week', 'month'] as const;

function Sentence({ item, template, onChange }: ItemRowProps & { readonly onChange: (item: PlanItemInput) => void }) {
  const { yearStarts } = useWorkspace();
  const [isOpen, setOpen] = useState(false);
  const [isMore, setMore] = useState(false);
  const set = (change: Partial<PlanItemInput>) => onChange({ ...item, ...change });
  const phrase = writePhrase(item.recurrence, { start: 'unsaid', yearStarts });
  const { after, timing } = item;
  return (
    <>
      {isOpen ? (
        <div className="pt-1">
          <PhraseBox
            recurrence={item.recurrence}
            onChange={(recurrence, times) =>
              set({ recurrence: { ...recurrence, start: item.recurrence.start }, timing: withTimes(timing, times) })
            }
          />
          <button type="button" className="link-line leading-5" onClick={() => setOpen(false)}>
            Done with the rule
          </button>
        </div>
      ) : (
        <button
          type="button"
          className="blank h-auto max-w-full cursor-text py-px text-left whitespace-normal"
          aria-label={`When, ${template.name}: ${phrase}`}
          onClick={() => setOpen(true)}
        >
          {phrase}
        </button>
      )}
      {isCounted(item.recurrence) && (
        <>
          {' '}
          counted from{' '}
          <ChoiceBlank
            label={`Counted from, ${template.name}`}
            value={item.counts}
            options={[
              ['joining', 'the day they join'],
              ['plan', 'a day of the plan'],
            ]}
            onChange={(counts) => set({ counts })}
          />{' '}
          {item.counts === 'plan' && (
            <DateBlank
              label={`Day that ${template.name} is counted from`}
              value={dayOfIso(item.recurrence.start)}
              onChange={(day) => set({ recurrence: { ...item.recurrence, start: isoOfDay(day) } })}
            />
          )}
        </>
      )}
      <br />
      by{' '}
      <DefaultWho
        label={`Who does ${template.name}`}
        rule={item.assignment}
        onChange={(assignment) => set({ assignment })}
      />
      {item.assignment.kind === 'person' && (
        <NamedForAll template={template} onUsual={() => set({ assignment: USUAL })} />
      )}{' '}
      <ItemEstimates
        label={`Estimate of ${template.name}`}
        template={template}
        estimates={estimatesOf(item)}
        onChange={(key, minutes, ofTemplate) => set(withEstimate(item, key, minutes === ofTemplate ? null : minutes))}
      />
      {template.notice && <span className="text-ink-2"> notice {template.notice}</span>}
      {more(item) && <span className="text-ink-2">, {more(item)}</span>}{' '}
      <button
        type="button"
        className="link-line text-note leading-5 text-ink-2"
        aria-expanded={isMore}
        aria-label={`More of ${template.name}`}
        onClick={() => setMore(!isMore)}
      >
        {isMore ? 'less' : 'more'}
      </button>
      {isMore && (
        <div>
          the first{' '}
          <NumberBlank
            label={`Earliest after joining, ${template.name}`}
            value={after.amount}
            least={0}
            most={MOST_DELAY}
            onChange={(amount) => set({ after: { ...after, amount } })}
          />{' '}
          <ChoiceBlank
            label={`Unit of that, ${template.name}`}
            value={after.unit}
            options={UNITS.map((unit) => [unit, after.amount === 1 ? unit : `${unit}s`] as const)}
            onChange={(unit) => set({ after: { ...after, unit } })}
          />{' '}
          after joining at the earliest,
          <br />
          seen{' '}
          <NumberBlank
            label={`Appears days before, ${template.name}`}
            value={-timing.appears.amount}
            least={0}
            most={366}
            onChange={(days) =>
              set({ timing: { ...timing, appears: { ...timing.appears, amount: days === 0 ? 0 : -days } } })
            }
          />{' '}
          <ChoiceBlank
            label={`Which days, ${template.name}`}
            value={timing.appears.unit}
            options={[
              ['day', 'days'],
              ['workingDay', 'working days'],
            ]}
            onChange={(unit) => set({ timing: { ...timing, appears: { ...timing.appears, unit } } })}
          />{' '}
          before, one for{' '}
          <ChoiceBlank
            label={`One for what, ${template.name}`}
            value={item.each}
            options={[
              ['client', 'the client'],
              ['asset', 'each of their assets'],
            ]}
            onChange={(each) => set({ each })}
          />
        </div>
      )}
    </>
  );
}

/** The item with another estimate of one of its tasks; null as the template says. */
function withEstimate(
  { stepMinutes = {} }: PlanItemInput,
  key: string,
  minutes: number | null,
): Partial<PlanItemInput> {
  if (key === MAIN_PART) return { estimateMinutes: minutes };
  const { [key]: _was, ...others } = stepMinutes;
  return { stepMinutes: minutes === null ? others : { ...others, [key]: minutes } };
}

const USUAL: PlanItemInput['assignment'] = {
  ...{ v: 1, kind: 'usualPerson', otherwiseId: null, daysOffToo: true, cover: 'deputy' },
};

/** A person by name would get the work of every client: asked, so that nobody does by accident. */
function NamedForAll({ template, onUsual }: { readonly template: ItemTemplate; readonly onUsual: () => void }) {
  return (
    <span className="block text-note leading-5">
      <b className="font-semibold">Every client’s {template.name} then goes to one person</b>, whoever looks after the
      client.{' '}
      <button type="button" className="link-line" onClick={onUsual}>
        The usual person instead
      </button>
    </span>
  );
}

/** What of the rest is not as usual, in short. */
function more({ after, timing, each }: PlanItemInput): string {
  const { amount, unit } = timing.appears;
  return [
    ...(after.amount === 0 ? [] : [`first ${plural(after.amount, after.unit)} after joining`]),
    ...(amount === -1 && unit === 'workingDay'
      ? []
      : [amount === 0 ? 'seen on its day' : `seen ${plural(-amount, unit === 'day' ? 'day' : 'working day')} before`]),
    ...(each === 'asset' ? ['one for each asset'] : []),
  ].join(', ');
}
