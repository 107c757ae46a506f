import { X } from 'lucide-react';
import { MOST_NOTICE_DAYS, MOST_ON_ITS_WAY_DAYS } from '../../../contract/visits.ts';
import {
  countedEnd,
  type DayCount,
  type DeliveryKind,
  type DeliveryWay,
  MOST_REMIND,
  type NoticePeriod,
  USUAL_REMIND,
  type VisitRules,
  type VisitTerms,
  type VisitWindow,
} from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank, NumberBlank, Part, TimeBlank, WordsBlank } from '../../kit/blanks.tsx';
import { FieldError } from '../../kit/field-error.tsx';

interface VisitsPartProps {
  readonly visits: VisitRules;
  readonly wrong: string | undefined;
  readonly onChange: (visits: VisitRules) => void;
}

const UNITS = [
  ['day', 'days'],
  ['workingDay', 'working days'],
] as const satisfies readonly (readonly [DayCount['unit'], string])[];

/** As what a letter goes by a way: what is a mail is sent from here. */
const KINDS = [
  ['post', 'on paper, by post'],
  ['hand', 'on paper, handed over'],
  ['mail', 'as a mail from here'],
  ['other', 'otherwise'],
] as const satisfies readonly (readonly [DeliveryKind, string])[];

/** Which ends of a notice count as one of its days. */
const COUNTED = [
  ['neither', 'neither is counted'],
  ['receipt', 'that of the letter is counted'],
  ['visit', 'that of the visit is counted'],
  ['both', 'both are counted'],
] as const;

const FRESH_WAY: DeliveryWay = { name: '', kind: 'hand', onItsWay: { days: 0, unit: 'day' } };
const FRESH_WINDOW: VisitWindow = { from: '09:00', to: '16:00' };
const FRESH_PERIOD: NoticePeriod = { days: 7, unit: 'day', countsReceipt: false, countsVisit: false };

/** How visits at a client's are announced: the ways a letter goes, and what each type of work asks for. */
export function VisitsPart({ visits, wrong, onChange }: VisitsPartProps) {
  const { workTypes } = useWorkspace();
  const { ways, terms } = visits;
  const areNamed = ways.every(({ name }) => name !== '');
  const free = workTypes.filter((type) => !terms.some((one) => one.type === type));
  const setTerms = (place: number, change: Partial<VisitTerms>) =>
    onChange({ ...visits, terms: terms.map((one, i) => (i === place ? { ...one, ...change } : one)) });
  /** What goes by a way goes by it under its other name too. */
  const setWay = (place: number, next: DeliveryWay | null) => {
    const was = ways[place]?.name;
    const renamed = ({ ways: of, ...rest }: VisitTerms): VisitTerms => ({
      ...rest,
      ways: of.flatMap((name) => (name !== was ? [name] : next === null ? [] : [next.name])),
    });
    onChange({
      ...visits,
      ways: ways.flatMap((way, i) => (i !== place ? [way] : next === null ? [] : [next])),
      terms: terms.map(renamed),
    });
  };
  return (
    <Part name="Visits">
      {ways.length > 0 && 'a letter goes'}
      <ul>
        {ways.map((way, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: names are typed, and two may be the same for a while
          <li key={i} className="flex flex-wrap items-baseline gap-x-1.5">
            <WordsBlank
              label={`Way ${i + 1} a letter goes`}
              shown={way.name}
              placeholder="by hand"
              wrong="40 characters at most"
              read={(text) => (text.trim() === '' || text.trim().length > 40 ? undefined : text.trim())}
              onChange={(name) => setWay(i, { ...way, name })}
            />
            <ChoiceBlank
              label={`As what it goes, ${way.name || `way ${i + 1}`}`}
              value={way.kind}
              options={KINDS}
              onChange={(kind) => setWay(i, { ...way, kind })}
            />
            there after
            <NumberBlank
              label={`Days on its way, ${way.name || `way ${i + 1}`}`}
              value={way.onItsWay.days}
              least={0}
              most={MOST_ON_ITS_WAY_DAYS}
              onChange={(days) => setWay(i, { ...way, onItsWay: { ...way.onItsWay, days } })}
            />
            <ChoiceBlank
              label={`What days on its way are, ${way.name || `way ${i + 1}`}`}
              value={way.onItsWay.unit}
              options={UNITS}
              onChange={(unit) => setWay(i, { ...way, onItsWay: { ...way.onItsWay, unit } })}
            />
            <TakeOut what={way.name || `way ${i + 1}`} onClick={() => setWay(i, null)} />
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="link-line leading-5"
        // Two without a name could not be told from each other.
        disabled={!areNamed}
        onClick={() => onChange({ ...visits, ways: [...ways, FRESH_WAY] })}
      >
        Add a way a letter goes
      </button>
      <ul className="mt-1">
        {terms.map((one, i) => (
          <li key={one.type} className="border-t border-line py-1 first:border-t-0">
            <Terms
              of={one}
              ways={ways}
              onChange={(change) => setTerms(i, change)}
              onTakeOut={() => onChange({ ...visits, terms: terms.filter((other) => other !== one) })}
            />
          </li>
        ))}
      </ul>
      {free.length > 0 && ways.length > 0 && areNamed && (
        <select
          className="filter-word"
          aria-label="Announce a type of work"
          value=""
          onChange={({ target }) => {
            const fresh = {
              type: target.value,
              period: FRESH_PERIOD,
              ways: ways.map(({ name }) => name),
            };
            onChange({ ...visits, terms: [...terms, fresh] });
          }}
        >
          <option value="" disabled>
            announce a type of work
          </option>
          {free.map((type) => (
            <option key={type} value={type}>
              {type}
            </option>
          ))}
        </select>
      )}
      {ways.length > 0 && (
        <>
          <label className="mt-2 block leading-5" htmlFor="letterhead">
            at the head of a letter, below the name
          </label>
          <textarea
            id="letterhead"
            className="writing"
            rows={2}
            placeholder="where you are, how you are reached"
            value={visits.letterhead}
            onChange={({ target }) => onChange({ ...visits, letterhead: target.value })}
          />
          <label className="mt-1 block leading-5" htmlFor="answering">
            if the day does not suit a client, please …
          </label>
          <input
            id="answering"
            className="blank w-full"
            placeholder="ring the office on 01632 960 100"
            value={visits.answering}
            onChange={({ target }) => onChange({ ...visits, answering: target.value })}
          />
        </>
      )}
      <p className="leading-5 text-ink-2">
        Work of such a type for a client is a visit: each task says until when its notice has to go.
      </p>
      {wrong !== undefined && <FieldError message={wrong} />}
    </Part>
  );
}

interface TermsProps {
  readonly of: VisitTerms;
  readonly ways: readonly DeliveryWay[];
  readonly onChange: (change: Partial<VisitTerms>) => void;
  readonly onTakeOut: () => void;
}

/** What one type of work asks for, as a sentence. */
function Terms({
  of: { type, period, ways: chosen, window, remind = USUAL_REMIND },
  ways,
  onChange,
  onTakeOut,
}: TermsProps) {
  const setPeriod = (change: Partial<NoticePeriod>) => onChange({ period: { ...period, ...change } });
  return (
    <>
      <b className="font-semibold">{type}</b> is announced{' '}
      <NumberBlank
        label={`Days of notice, ${type}`}
        value={period.days}
        least={1}
        most={MOST_NOTICE_DAYS}
        onChange={(days) => setPeriod({ days })}
      />{' '}
      <ChoiceBlank
        label={`What days of notice are, ${type}`}
        value={period.unit}
        options={UNITS}
        onChange={(unit) => setPeriod({ unit })}
      />{' '}
      before
      <TakeOut what={`the notice of ${type}`} onClick={onTakeOut} />
      <div>
        of the days of letter and visit{' '}
        <ChoiceBlank
          label={`Which days count, ${type}`}
          value={countedEnd(period)}
          options={COUNTED}
          onChange={(counted) =>
            setPeriod({
              countsReceipt: counted === 'receipt' || counted === 'both',
              countsVisit: counted === 'visit' || counted === 'both',
            })
          }
        />
      </div>
      <div>
        somebody comes{' '}
        <ChoiceBlank
          label={`When somebody comes, ${type}`}
          value={window ? 'between' : 'any'}
          options={[
            ['any', 'as the work says'],
            ['between', 'between'],
          ]}
          onChange={(value) => onChange({ window: value === 'any' ? undefined : FRESH_WINDOW })}
        />
        {window && (
          <>
            {' '}
            <TimeBlank
              label={`From when somebody comes, ${type}`}
              value={window.from}
              placeholder={FRESH_WINDOW.from}
              when="left"
              onChange={(from) => onChange({ window: { ...window, from: from ?? window.from } })}
            />{' '}
            and{' '}
            <TimeBlank
              label={`Until when somebody comes, ${type}`}
              value={window.to}
              placeholder={FRESH_WINDOW.to}
              when="left"
              onChange={(to) => onChange({ window: { ...window, to: to ?? window.to } })}
            />
            , where the work says no time
          </>
        )}
      </div>
      <div>
        reminded{' '}
        <NumberBlank
          label={`Working days of a reminder, ${type}`}
          value={remind}
          least={0}
          most={MOST_REMIND}
          onChange={(days) => onChange({ remind: days === USUAL_REMIND ? undefined : days })}
        />{' '}
        {remind === 1 ? 'working day' : 'working days'} before it has to go
      </div>
      <div className="flex flex-wrap items-center gap-x-4">
        it may go
        {ways.map(({ name }) => (
          <label key={name} className="inline-flex items-center gap-1.5">
            <input
              type="checkbox"
              className="check"
              aria-label={`${type} goes ${name}`}
              checked={chosen.includes(name)}
              onChange={({ target }) =>
                onChange({
                  ways: ways
                    .map((way) => way.name)
                    .filter((way) => (way === name ? target.checked : chosen.includes(way))),
                })
              }
            />
            {name}
          </label>
        ))}
      </div>
    </>
  );
}

function TakeOut({ what, onClick }: { readonly what: string; readonly onClick: () => void }) {
  return (
    <button
      type="button"
      className="inline-grid h-6 w-6 cursor-pointer place-items-center text-ink-2 hover:text-ink"
      aria-label={`Take out ${what}`}
      onClick={onClick}
    >
      <X size={13} aria-hidden />
    </button>
  );
}
