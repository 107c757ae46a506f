import { X } from 'lucide-react';
import { useLayoutEffect, useRef, useState } from 'react';
import type { Impact, ImpactItem, Reach } from '../../../contract/index.ts';
import { dayOfIso, plural } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { ProblemError } from '../../kit/api.ts';
import { Band } from '../../kit/band.tsx';
import { Dialog } from '../../kit/dialog.tsx';
import { Figure } from '../../kit/figure.tsx';
import { Pennant } from '../../kit/pennant.tsx';
import { Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDay } from '../../kit/ways.ts';
import { figuresOf, groupsOf, type ImpactGroup, type Removal, sayDeed } from './impact-words.ts';
import { YearCompared } from './year-compared.tsx';

interface ImpactDialogProps {
  /** What is being changed: "Payroll run", "Gas and shore power, a template used by 32 schedules". */
  readonly what: string;
  /** What it does to tasks that go. */
  readonly removal?: Removal | undefined;
  /** As it was asked for before the dialog opened, with the plain reach. */
  readonly first: Impact;
  /** Asks again with another reach; null where the change has no other. @throws ProblemError when it is refused */
  readonly ask: ((reach: Reach) => Promise<Impact>) | null;
  /** Whether it can be put back afterwards. */
  readonly canBeUndone?: boolean | undefined;
  /** While it is saved: how far that is, where it is told. */
  readonly saving?: { readonly percent: number | null } | null;
  readonly onSave: (reach: Reach) => void;
  readonly onClose: () => void;
}

const PLAIN: Reach = { open: false, also: [] };

/** What a change adds, changes, takes back and leaves alone, before it is saved; how far it goes can be chosen. */
export function ImpactDialog({
  what,
  removal,
  first,
  ask,
  canBeUndone = true,
  saving = null,
  onSave,
  onClose,
}: ImpactDialogProps) {
  const [reach, setReach] = useState(PLAIN);
  const [impact, setImpact] = useState<Impact | null>(first);
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const latest = useRef(reach);
  const reachFor = (next: Reach) => {
    if (!ask) return;
    latest.current = next;
    setReach(next);
    setImpact(null);
    ask(next).then(
      (answer) => {
        // Of two that were asked for, the later counts.
        if (latest.current === next) setImpact(answer);
      },
      (error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        setProblem(error);
      },
    );
  };
  const confirm = useRef<HTMLButtonElement>(null);
  // Before the next key comes: Enter would press what closes the dialog, which stands first in it.
  useLayoutEffect(() => confirm.current?.focus(), []);
  return (
    <Dialog label="What this changes" className="mt-9! w-[1016px]" onClose={onClose}>
      <header className="flex items-start px-6 pb-3 pt-5">
        <div>
          <h2 className="text-[24px] leading-7.5">What this changes</h2>
          <p className="text-row text-ink-2">{what}. Nothing is saved yet.</p>
        </div>
        <button type="button" className="btn btn-text -mr-2 ml-auto" aria-label="Close" onClick={onClose}>
          <X size={16} aria-hidden />
        </button>
      </header>
      {problem && <Trouble error={problem} />}
      {!problem && impact === null && <Skeleton rows={7} />}
      {impact && (
        <>
          <Figures impact={impact} removal={removal} />
          {impact.years.length > 0 && <YearCompared years={impact.years} />}
          <div className="max-h-[44vh] overflow-y-auto" tabIndex={-1}>
            {groupsOf(impact, removal).map((group) => (
              <Group
                key={group.key}
                group={group}
                also={new Set(reach.also)}
                onAlso={ask && ((taskId) => reachFor({ ...reach, also: [...reach.also, taskId] }))}
                onOpen={ask && group.key === 'keptShowing' ? () => reachFor({ ...reach, open: true }) : null}
              />
            ))}
          </div>
        </>
      )}
      <footer className="sticky bottom-0 flex items-center gap-3 max-[720px]:flex-wrap border-t border-line-2 bg-base-100 px-6 py-3.5">
        <button
          ref={confirm}
          type="button"
          className="btn btn-primary"
          disabled={impact === null || saving !== null}
          onClick={() => onSave(reach)}
        >
          {impact ? sayDeed(impact, removal) : 'Looking …'}
        </button>
        <span className="text-row text-ink-2" role="status">
          {saving && (saving.percent === null ? 'Saving …' : `${saving.percent} % is saved`)}
        </span>
        <button type="button" className="btn" onClick={onClose}>
          Go back
        </button>
        {(reach.open || reach.also.length > 0) && (
          <button type="button" className="link-line text-note" onClick={() => reachFor(PLAIN)}>
            Only what nobody has seen
          </button>
        )}
        <span className="ml-auto max-w-[330px] text-right text-note leading-4 text-ink-2 max-[720px]:text-left">
          {canBeUndone
            ? 'One click puts all of it back: for ten seconds here, later from the history. Work that is started meanwhile stays.'
            : 'What is undone is not done again by a click.'}
        </span>
      </footer>
    </Dialog>
  );
}

function Figures({ impact, removal }: { readonly impact: Impact; readonly removal: Removal | undefined }) {
  const { datesBefore, datesAfter } = impact;
  const more = datesAfter - datesBefore;
  return (
    <div className="flex flex-wrap items-end gap-x-5 gap-y-2 border-b border-line-2 px-6 pb-3">
      {figuresOf(impact, removal).map(([count, words]) => (
        <Figure
          key={words}
          words={words}
          isQuiet={count === 0}
          className={`first:border-0 first:pl-0 ${count === 0 ? 'max-[720px]:hidden' : 'max-[720px]:border-0 max-[720px]:pl-0'}`}
        >
          {count}
        </Figure>
      ))}
      {datesAfter + datesBefore > 0 && (
        <p className="ml-auto max-w-[330px] text-row leading-4.75">
          In the coming year {plural(datesAfter, 'task')}
          {more === 0 ? ', as many as now.' : more > 0 ? `, ${more} more than now.` : `, ${-more} fewer than now.`}
        </p>
      )}
    </div>
  );
}

interface GroupProps {
  readonly group: ImpactGroup;
  readonly also: ReadonlySet<string>;
  readonly onAlso: ((taskId: string) => void) | null;
  readonly onOpen: (() => void) | null;
}

const SHOWN = 6;

function Group({ group, also, onAlso, onOpen }: GroupProps) {
  const [all, setAll] = useState(false);
  const items = all ? group.items : group.items.slice(0, SHOWN);
  const more = group.count - items.length;
  return (
    <Band
      on="dialog"
      name={group.word}
      count={group.count}
      asides={group.aside ? [group.aside] : []}
      deed={
        onOpen && (
          <button
            type="button"
            className="link-line mt-1 block text-left font-sans text-note font-normal"
            onClick={onOpen}
          >
            Change them too
          </button>
        )
      }
    >
      {items.map((item, i) => (
        <Item
          key={item.taskId ?? `${item.scheduleId} ${item.on} ${i}`}
          item={item}
          onAlso={
            item.taskId !== null && item.kind === 'kept' && group.key !== 'keptBegun' && !also.has(item.taskId)
              ? onAlso
              : null
          }
        />
      ))}
      {more > 0 && (
        <p className="flex border-b border-line py-1.5 pl-6 pr-6 text-row text-ink-2">
          and {plural(more, 'more task')}
          {!all && group.items.length > SHOWN && (
            <button type="button" className="link-line ml-auto" onClick={() => setAll(true)}>
              Show {group.items.length - SHOWN}
            </button>
          )}
        </p>
      )}
    </Band>
  );
}

function Item({ item, onAlso }: { readonly item: ImpactItem; readonly onAlso: ((taskId: string) => void) | null }) {
  const today = useToday();
  const [first, ...others] = item.fields;
  const change = (field: ImpactItem['fields'][number]) => (
    <>
      <span className="text-ink-2">{field.name}</span>
      <span className={item.kind === 'kept' ? '' : 'text-ink-2 line-through'}>
        {item.kind === 'kept' ? `stays ${field.from}` : field.from}
      </span>
      <span className="font-semibold">{item.kind === 'kept' ? '' : field.to}</span>
    </>
  );
  const columns =
    'grid min-h-[29px] grid-cols-[24px_minmax(0,2fr)_104px_76px_minmax(0,1fr)_minmax(0,1fr)_92px] items-center gap-2 border-b border-line py-0.5 pr-6 text-row leading-4.5 max-[720px]:flex max-[720px]:flex-wrap max-[720px]:gap-x-3 max-[720px]:gap-y-0.5 max-[720px]:py-2 max-[720px]:pl-6';
  return (
    <>
      <div className={columns}>
        <Pennant state={item.state} />
        <span className="truncate max-[720px]:min-w-[80%]">
          <b className="font-semibold">{item.title}</b>
          {item.about && !item.title.includes(item.about) && <span className="ml-2 text-ink-2">{item.about}</span>}
        </span>
        <span>{sayDay(dayOfIso(item.on), today)}</span>
        {first ? change(first) : <span className="col-span-3 text-ink-2">{item.who ?? 'nobody yet'}</span>}
        <span className="text-right max-[720px]:ml-auto">
          {onAlso && (
            <button type="button" className="link-line" onClick={() => onAlso(item.taskId ?? '')}>
              Change it too
            </button>
          )}
        </span>
      </div>
      {others.map((field) => (
        <div key={field.name} className={columns}>
          <span className="col-span-3" />
          {change(field)}
        </div>
      ))}
    </>
  );
}
