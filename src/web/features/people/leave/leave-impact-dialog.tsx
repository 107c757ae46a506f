import { ArrowLeftRight, X } from 'lucide-react';
import { Fragment, type ReactNode, useLayoutEffect, useRef, useState } from 'react';
import type { Covered, LeaveImpact } from '../../../../contract/index.ts';
import { callNames, dayOfIso, groupBy, plural, sayDuration, sayHours } from '../../../../core/index.ts';
import { useToday, useWorkspace } from '../../../app/shell/workspace.tsx';
import { Band } from '../../../kit/band.tsx';
import { Dialog } from '../../../kit/dialog.tsx';
import { HoursBar } from '../../../kit/hours-bar.tsx';
import { Pennant } from '../../../kit/pennant.tsx';
import { sayDayOfMonth } from '../../../kit/ways.ts';
import { sayTurn } from '../../swaps/swap-words.ts';
import { type ChosenCover, CoverLine } from './cover-line.tsx';
import { sayDayList } from './leave-words.ts';

interface LeaveImpactDialogProps {
  /** "Nadia Orme is away from Tue 1 to Fri 4 Dec" */
  readonly title: string;
  /** How long that is: "4 working days". */
  readonly span: string;
  readonly impact: LeaveImpact;
  /** Who takes over, where that may be chosen. */
  readonly cover?: ChosenCover | null;
  /** What saving it is called. */
  readonly words: string;
  readonly busy: boolean;
  readonly onSave: () => void;
  readonly onClose: () => void;
}

/** Work as whoever is away has it; what is begun stays. */
const BANDS = ['turns', 'name', 'other', 'stays'] as const;
type BandOf = (typeof BANDS)[number];
const BAND_WORDS: Readonly<Record<BandOf, readonly [one: string, several: string]>> = {
  turns: ['by turn', 'by turn'],
  name: ['by name', 'by name'],
  other: ['as one of several', 'as one of several'],
  stays: ['stays', 'stay'],
};
const bandOf = ({ fate, how }: Covered): BandOf => (fate === 'stays' ? 'stays' : how);
/** What stands where the name of whoever gets it would. */
const FATE_WORDS: Readonly<Record<Covered['fate'], string>> = {
  ...{ goes: '', offered: 'to take', nobody: 'nobody', dropped: 'not done', stays: '' },
};

/** Which work goes to whom while somebody is away, and what that makes of the weeks of those who get it. */
export function LeaveImpactDialog({
  title,
  span,
  impact,
  cover = null,
  words,
  busy,
  onSave,
  onClose,
}: LeaveImpactDialogProps) {
  const confirm = useRef<HTMLButtonElement>(null);
  useLayoutEffect(() => confirm.current?.focus(), []);
  const { counts, items, receivers } = impact;
  const all = counts.goes + counts.offered + counts.nobody + counts.dropped + counts.stays;
  const countOf: Readonly<Record<BandOf, number>> = {
    ...{ turns: counts.turns, name: counts.name, stays: counts.stays },
    other: all - counts.turns - counts.name - counts.stays,
  };
  return (
    <Dialog label={title} className="mt-9! w-[1016px]" onClose={onClose}>
      <header className="flex items-start px-6 pt-5 pb-3">
        <div>
          <h2 className="text-[24px] leading-7.5">{title}</h2>
          <p className="text-row text-ink-2">{sayWhole(span, impact, all)} Nothing is saved yet.</p>
        </div>
        <button type="button" className="btn btn-text -mr-2 ml-auto" aria-label="Close" onClick={onClose}>
          <X size={16} aria-hidden />
        </button>
      </header>
      <div className="grid grid-cols-[minmax(0,1fr)_292px] border-t border-line-2 max-[820px]:block max-[820px]:max-h-[56vh] max-[820px]:overflow-y-auto">
        <div className="max-h-[56vh] overflow-y-auto max-[820px]:max-h-none">
          {BANDS.map((band) => (
            <WorkBand key={band} band={band} count={countOf[band]} items={items.filter((one) => bandOf(one) === band)}>
              {cover && (band === 'turns' || band === 'name') && (
                <CoverLine kind={band} {...cover} impact={impact} busy={busy} />
              )}
              {band === 'turns' && cover && <Exchanges of={cover.of} exchanges={impact.exchanges} />}
            </WorkBand>
          ))}
          {all === 0 && (
            <p className="px-6 py-4 text-row text-ink-2">No work falls on these days: nothing changes hands.</p>
          )}
        </div>
        <aside className="max-h-[56vh] overflow-y-auto border-l border-line-2 px-5 py-3 max-[820px]:border-t max-[820px]:border-l-0">
          <h3 className="text-body leading-6 text-primary">Who gets it</h3>
          {receivers.length === 0 && <p className="text-row text-ink-2">Nobody gets more to do.</p>}
          {receivers.map((receiver) => (
            <Receiver key={receiver.person.id} receiver={receiver} />
          ))}
          {receivers.length > 0 && (
            <p className="mt-2 text-note leading-4.25 text-ink-2">
              Hours of the week, of the work that is made so far; hatched is what comes by this.
            </p>
          )}
        </aside>
      </div>
      <footer className="flex items-center gap-3 border-t border-line-2 bg-base-100 px-6 py-3.5 max-[720px]:flex-wrap">
        <button ref={confirm} type="button" className="btn btn-primary" disabled={busy} onClick={onSave}>
          {[
            words,
            counts.goes > 0 && plural(counts.goes, 'task') + (counts.goes === 1 ? ' changes hands' : ' change hands'),
            counts.nobody > 0 && `${counts.nobody} ${counts.nobody === 1 ? 'is' : 'are'} nobody’s`,
          ]
            .filter(Boolean)
            .join(', ')}
        </button>
        <button type="button" className="btn" onClick={onClose}>
          Go back
        </button>
        <span className="ml-auto max-w-[330px] text-right text-note leading-4 text-ink-2 max-[720px]:text-left">
          One click puts all of it back. Work that is begun meanwhile stays with whoever has begun it.
        </span>
      </footer>
    </Dialog>
  );
}

/** "7 working days and 3 holidays. 29 tasks fall in them, 24 h 45: 17 made, 12 not made yet." */
function sayWhole(span: string, { days, counts }: LeaveImpact, all: number): string {
  if (all === 0) return `${span}.`;
  const made = all - counts.notMade;
  const parts = [made > 0 && `${made} made`, counts.notMade > 0 && `${counts.notMade} not made yet`].filter(Boolean);
  return `${span}. ${plural(all, 'task')} ${all === 1 ? 'falls' : 'fall'} in ${days <= 1 ? 'it' : 'them'}, ${sayDuration(counts.minutes)}: ${parts.join(', ')}.`;
}

/** What whoever is away takes for the turns that others have then. */
function Exchanges({ of, exchanges }: Pick<LeaveImpact, 'exchanges'> & Pick<ChosenCover, 'of'>) {
  const { today, people } = useWorkspace();
  const called = callNames(people);
  return exchanges.map(({ scheduleId, work, about, missed, taken }) => (
    <p
      key={`${scheduleId} ${missed.first}`}
      className="grid min-h-8 grid-cols-[22px_minmax(0,1fr)] items-center gap-x-2 border-b border-line py-1 text-row leading-5 max-[720px]:px-4"
    >
      <ArrowLeftRight size={14} aria-hidden className="text-ink-2" />
      <span>
        <b className="font-semibold">{work}</b>
        {about && <span className="ml-2 text-ink-2">{about}</span>}
        <span className="block text-note leading-4 text-ink-2">
          {taken
            ? `${called.get(taken.person.id)} has ${sayTurn(missed, today)}, ${called.get(of)} has ${sayTurn(taken, today)}`
            : `${sayTurn(missed, today)}: no later turn suits both, so the next who is there takes it`}
        </span>
      </span>
    </p>
  ));
}

const SHOWN = 7;

interface WorkBandProps {
  readonly band: BandOf;
  readonly count: number;
  readonly items: readonly Covered[];
  /** Above its lines. */
  readonly children: ReactNode;
}

function WorkBand({ band, count, items, children }: WorkBandProps) {
  const [all, setAll] = useState(false);
  const today = useToday();
  if (count === 0) return null;
  const [one, several] = BAND_WORDS[band];
  // The same work on several days is one line, with all its days.
  const groups = [
    ...groupBy(items, ({ work, about, to, why, state, fate }) =>
      [work, about, to?.name, why, state, fate].join('\n'),
    ).values(),
  ];
  const shown = all ? groups : groups.slice(0, SHOWN);
  const more = groups.length - shown.length;
  return (
    <Band on="dialog" name={count === 1 ? one : several} count={count}>
      {children}
      {shown.map((group) => {
        const first = group[0] as Covered;
        const minutes = group.reduce((sum, one) => sum + one.minutes, 0);
        return (
          <div
            key={`${first.taskId} ${first.scheduleId} ${first.on}`}
            className="grid min-h-8 grid-cols-[22px_minmax(0,1fr)_68px_minmax(0,0.8fr)] items-baseline gap-x-2 border-b border-line py-1 text-row leading-5 last:border-b-0 max-[720px]:px-4"
          >
            <span className="self-center">
              <Pennant state={first.state === 'foreseen' ? 'bare' : first.state} />
            </span>
            <span className="min-w-0">
              <b className="font-semibold">{first.work}</b>
              {first.about && <span className="ml-2 text-ink-2">{first.about}</span>}
              <span className="block text-note leading-4 text-ink-2">
                {sayDayList(
                  group.map(({ on }) => dayOfIso(on)),
                  today,
                )}
              </span>
            </span>
            <span className="text-right">{sayDuration(minutes)}</span>
            <span className="min-w-0">
              <b className="font-semibold">{first.fate === 'goes' ? first.to?.name : FATE_WORDS[first.fate]}</b>
              <span className="block text-note leading-4 text-ink-2">{first.why}</span>
            </span>
          </div>
        );
      })}
      {more > 0 && (
        <p className="py-1.5 text-note text-ink-2">
          and {more} more{' '}
          <button type="button" className="link-line text-ink" onClick={() => setAll(true)}>
            Show all
          </button>
        </p>
      )}
      {count > items.length && (
        <p className="py-1.5 text-note text-ink-2">{count - items.length} further ones are not told one by one.</p>
      )}
    </Band>
  );
}

/** The weeks of somebody before and after, against what they can do in them. */
function Receiver({ receiver: { person, weeks } }: { readonly receiver: LeaveImpact['receivers'][number] }) {
  return (
    <div className="mt-2 border-t border-line pt-1.5">
      <p className="text-row font-semibold">{person.name}</p>
      <div className="mt-0.5 grid grid-cols-[54px_minmax(0,1fr)_auto] items-center gap-x-2 text-note leading-5">
        {weeks.map(({ monday, before, after, capacity }) => {
          const isOver = after > capacity;
          return (
            <Fragment key={monday}>
              <span className="text-ink-2">{sayDayOfMonth(dayOfIso(monday))}</span>
              <HoursBar before={before} after={after} capacity={capacity} />
              <span className="whitespace-nowrap">
                {sayHours(before)} → <b className={isOver ? 'font-bold' : 'font-semibold'}>{sayHours(after)}</b>{' '}
                <span className="text-ink-2">of {sayHours(capacity)}</span>
              </span>
            </Fragment>
          );
        })}
      </div>
    </div>
  );
}
