import { useCallback, useId, useMemo } from 'react';
import * as z from 'zod/mini';
import {
  type AssignmentRule,
  dayOfIso,
  goesOnAfter,
  isoOfDay,
  joinAnd,
  type Listed,
  type ListFault,
  type ListReading,
  lastListed,
  mondayOf,
  NOT_HERE,
  plural,
  readList,
  sayList,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ChoiceBlank } from '../../../kit/blanks.tsx';
import { useDraft } from '../../../kit/draft.ts';
import { sayDay } from '../../../kit/ways.ts';
import { OrderCover } from './who-pickers.tsx';

type ListedRule = Extract<AssignmentRule, { kind: 'listed' }>;

interface ListBlanksProps {
  readonly place: string;
  readonly rule: ListedRule;
  readonly set: (rule: ListedRule) => void;
}

/** What was typed, and on which list: of another one it says nothing. */
const typedSchema = z.nullable(z.object({ text: z.string(), holds: z.enum(['day', 'week']), on: z.string() }));
type Typed = z.infer<typeof typedSchema>;
type Text = Pick<NonNullable<Typed>, 'text' | 'holds'>;

const FAULTS_SHOWN = 4;
const SAID_DAYS = 56;

/** Who has which days, as lines that are typed or copied from a spreadsheet; and what comes after the last of them. */
export function ListBlanks({ place, rule, set }: ListBlanksProps) {
  const { today, people, phraseHabits } = useWorkspace();
  const { draft: typed, change, forget } = useDraft<Typed>(`list.${place}`, null, typedSchema);
  const helpId = useId();
  const habit = phraseHabits['day and month'];
  const dayFirst = habit === undefined ? null : habit === 0;
  // What is over is not written on any more.
  const [past, coming] = useMemo(() => {
    const monday = isoOfDay(mondayOf(today));
    const isOver = ({ to }: Listed) => to < monday;
    return [rule.list.filter(isOver), rule.list.filter((line) => !isOver(line))];
  }, [rule.list, today]);
  const said = useMemo(() => sayList(coming, people), [coming, people]);
  const asSaid: Text = { text: said, holds: 'day' };
  const now: Text = typed ?? asSaid;
  const read = useCallback(
    ({ text, holds }: Text) => readAfter(past, text, { today, people, holds, dayFirst }),
    [past, today, people, dayFirst],
  );
  const { text: typedText, holds: typedHolds } = now;
  const reading = useMemo(() => read({ text: typedText, holds: typedHolds }), [read, typedText, typedHolds]);
  const isEmpty = now.text.trim() === '';
  // What was typed and can be read is in the rule; what can't stands on the list as it was. Where that is another by now, it is
  // of no more use.
  const isRead = !isEmpty && reading.faults.length === 0;
  const isOld = typed !== null && (isRead ? !isSame(reading.list, coming) : typed.on !== JSON.stringify(coming));
  const shown = isOld ? asSaid : now;
  const faults = isOld
    ? []
    : isEmpty
      ? [{ line: 1, message: 'A list needs one line at least.', suggestion: null }]
      : reading.faults;
  const take = (next: Text) => {
    const found = read(next);
    change({ ...next, on: JSON.stringify(coming) });
    if (found.faults.length > 0 || found.list.length === 0) return;
    const list = [...past, ...found.list];
    set({ ...rule, list, goesOn: rule.goesOn && goesOnAfter(list) });
  };
  return (
    <>
      <textarea
        className="blank mt-1 h-auto w-full max-w-[430px] px-2 py-1 font-mono text-note leading-5 whitespace-pre"
        style={{ tabSize: 2, fieldSizing: 'content', minHeight: 92, maxHeight: 210 } as React.CSSProperties}
        aria-label="Who has which days"
        aria-invalid={faults.length > 0}
        aria-describedby={helpId}
        data-unread={faults.length > 0 || undefined}
        spellCheck={false}
        placeholder={'Mon 30 Nov 2026\tKit\nMon 7 Dec 2026\tNadia'}
        value={shown.text}
        onChange={({ target }) => take({ holds: shown.holds, text: target.value })}
      />
      <div id={helpId} className="text-note leading-4.5 text-ink-2">
        A day and a name in each line, or copied from a spreadsheet: two columns, or a grid of days and people.
        {past.length > 0 &&
          ` ${plural(past.length, 'line')} of weeks that are over ${past.length === 1 ? 'is' : 'are'} kept.`}
      </div>
      {faults.length === 0 ? (
        <div role="status" className="my-1 leading-5">
          {saySpan(coming, today)}
        </div>
      ) : (
        <Faults faults={faults} text={shown.text} onText={(text) => take({ ...shown, text })} onBack={forget} />
      )}
      {reading.mayBeWeeks && !isOld && (
        <div>
          a line with one day holds{' '}
          <ChoiceBlank
            label="What a line with one day holds"
            value={shown.holds}
            options={[
              ['day', 'that day'],
              ['week', 'the week from it'],
            ]}
            onChange={(holds) => take({ ...shown, holds })}
          />
        </div>
      )}
      <div>
        after its last day{' '}
        <ChoiceBlank
          label="After the last day of the list"
          value={rule.goesOn === null ? 'nobody' : 'turns'}
          options={[
            ['nobody', 'nobody has it'],
            ['turns', 'turns go on'],
          ]}
          onChange={(after) => set({ ...rule, goesOn: after === 'turns' ? goesOnAfter(rule.list) : null })}
        />
        {rule.goesOn !== null && `: ${sayTurns(rule.goesOn.rosters[0]?.people ?? [], rule.goesOn.length.per, people)}`}
      </div>
      {rule.goesOn === null && lastListed(rule.list) <= today + SAID_DAYS && (
        <p className="field-note text-note leading-4.5" role="status">
          {lastListed(rule.list) < today
            ? `The list ended on ${sayDay(lastListed(rule.list), today)}: nobody has what comes.`
            : `The list ends on ${sayDay(lastListed(rule.list), today)}: nobody has what comes after that.`}
        </p>
      )}
      <div>
        <OrderCover cover={rule.cover} onChange={(cover) => set({ ...rule, cover })} />
      </div>
    </>
  );
}

interface FaultsProps {
  readonly faults: readonly ListFault[];
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly onBack: () => void;
}

/** What can't be read, by its line, with what may have been meant; nothing of it is saved before it can. */
function Faults({ faults, text, onText, onBack }: FaultsProps) {
  const lines = text.split('\n');
  const rest = faults.length - FAULTS_SHOWN;
  return (
    <div role="alert" className="field-error leading-4.5">
      {faults.slice(0, FAULTS_SHOWN).map(({ line, message, suggestion }) => {
        const wrong = /“(.+?)”/.exec(message)?.[1] ?? '';
        const mended = suggestion === null ? null : lines[line - 1]?.replace(wrong, suggestion);
        return (
          <p key={`${line} ${message}`}>
            Line {line}: {message}{' '}
            {suggestion !== null && mended !== undefined && mended !== null && (
              <button
                type="button"
                className="link-line"
                onClick={() => onText(lines.map((one, i) => (i === line - 1 ? mended : one)).join('\n'))}
              >
                {suggestion} instead
              </button>
            )}
          </p>
        );
      })}
      {rest > 0 && <p>and {plural(rest, 'more line')} like that.</p>}
      <button type="button" className="link-line" onClick={onBack}>
        Back to the list as it was
      </button>
    </div>
  );
}

/** "26 lines, 4 people, Mon 30 Nov to Sun 30 May 2027" */
function saySpan(list: readonly Listed[], today: number): string {
  const people = new Set(list.map(({ personId }) => personId)).size;
  const first = list[0];
  if (!first) return 'Nothing is listed from this week on.';
  const days = `, ${sayDay(dayOfIso(first.from), today)} to ${sayDay(lastListed(list), today)}`;
  return `${plural(list.length, 'turn')} of ${plural(people, 'person', 'people')}${days}`;
}

const PER = { occurrence: 'each time the next', week: 'by the week', month: 'by the month' } as const;

function sayTurns(
  ids: readonly string[],
  per: keyof typeof PER,
  people: readonly { readonly id: string; readonly name: string }[],
): string {
  const names = ids.map((id) => people.find((one) => one.id === id)?.name ?? NOT_HERE);
  return `${joinAnd(names)}, ${PER[per]}`;
}

/** What is typed for this week on; what is over stays as it was. */
function readAfter(past: readonly Listed[], text: string, context: Parameters<typeof readList>[1]): ListReading {
  const found = readList(text, context);
  const [before, first] = [past.at(-1), found.list[0]];
  if (!before || !first || first.from > before.to) return found;
  const message = `${first.from} lies among the days that are over, which stay as they were.`;
  return { ...found, faults: [...found.faults, { line: 1, message, suggestion: null }] };
}

const isSame = (one: readonly Listed[], other: readonly Listed[]) => JSON.stringify(one) === JSON.stringify(other);
