import { Fragment, type ReactNode, useEffect, useState } from 'react';
import { bringInAddresses } from '../../../contract/addresses.ts';
import { ALIKE_CHOICES, type BringIn, type BringInRow } from '../../../contract/index.ts';
import { dayOfIso, ENTRY_FATES, type EntryFate } from '../../../core/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { ask } from '../../kit/api.ts';
import { Band } from '../../kit/band.tsx';
import { ChoiceBlank } from '../../kit/blanks.tsx';
import { sayDate } from '../../kit/ways.ts';
import type { Settling } from './api.ts';

interface RowsProps {
  readonly bringIn: BringIn;
  readonly isOpen: boolean;
  readonly onSettle: (input: Settling) => Promise<boolean>;
}

/** The lines by what becomes of them: those that are left, to be mended; those that are like something; those that are new. */
export function Rows({ bringIn, isOpen, onSettle }: RowsProps) {
  const { counts, left, alike, fresh, fates, id } = bringIn;
  const alikeCount = [...fates].filter((fate) => fate === 'u' || fate === 'e').length;
  return (
    <>
      {counts.left > 0 && (
        <Band
          name="left"
          count={counts.left}
          isLate
          asides={isOpen && bringIn.kind !== 'calendar' ? ['mend them here'] : []}
          deed={
            <a
              className="link-line mt-1 block w-fit font-sans text-note font-normal text-ink"
              href={`/api/bring-ins/${id}/left`}
            >
              As a file
            </a>
          }
        >
          <Lines bringIn={bringIn} which="left" first={left}>
            {(row) => <Left key={row.number} row={row} kind={bringIn.kind} isOpen={isOpen} onSettle={onSettle} />}
          </Lines>
        </Band>
      )}
      {alike.length > 0 && (
        <Band name="you have" count={Math.max(alikeCount, alike.length)} asides={['look alike']}>
          <Lines bringIn={bringIn} which="alike" first={alike}>
            {(row) => <Alike key={row.number} row={row} kind={bringIn.kind} isOpen={isOpen} onSettle={onSettle} />}
          </Lines>
        </Band>
      )}
      {fresh.length > 0 && (
        <Band name="new" count={counts.new}>
          <Lines bringIn={bringIn} which="fresh" first={fresh}>
            {(row) => (
              <Line key={row.number} row={row} beside={becoming(bringIn.kind, { row, isOpen, onSettle })}>
                {row.why && <span className="text-ink-2">{row.why}</span>}
              </Line>
            )}
          </Lines>
        </Band>
      )}
    </>
  );
}

interface LinesProps {
  readonly bringIn: BringIn;
  readonly which: 'left' | 'alike' | 'fresh';
  readonly first: readonly BringInRow[];
  readonly children: (row: BringInRow) => ReactNode;
}

/** The first lines, and more of them as they are asked for. */
function Lines({ bringIn, which, first, children }: LinesProps) {
  const [more, setMore] = useState<readonly BringInRow[]>([]);
  const [isAll, setAll] = useState(false);
  // What was fetched of another reading of the file is not that of this one.
  // biome-ignore lint/correctness/useExhaustiveDependencies: whenever the file is read anew
  useEffect(() => {
    setMore([]);
    setAll(false);
  }, [bringIn.version, first]);
  const rows = [...first, ...more];
  const isMore = !isAll && first.length > 0 && rows.length % first.length === 0 && rows.length >= 20;
  const fetchMore = () =>
    ask(bringInAddresses.rows, {
      params: { bringInId: bringIn.id },
      query: { which, after: rows.at(-1)?.number ?? 0 },
    }).then((page) => {
      setMore([...more, ...page.rows]);
      if (page.rows.length === 0) setAll(true);
    }, sayTrouble);
  return (
    <ul>
      {rows.map(children)}
      {isMore && (
        <li className="py-1.5 text-row max-[720px]:px-4">
          <button type="button" className="link-line" onClick={() => void fetchMore()}>
            Show more
          </button>
        </li>
      )}
    </ul>
  );
}

function Line({
  row,
  beside,
  children,
}: {
  readonly row: BringInRow;
  readonly beside?: ReactNode;
  readonly children?: ReactNode;
}) {
  return (
    <li className="grid grid-cols-[40px_minmax(0,1fr)] gap-x-2 border-b border-line py-1.5 pr-5 text-row leading-5 last:border-b-0 max-[720px]:px-4">
      <span className="text-ink-2">{row.number.toLocaleString('en-GB')}</span>
      <div className="min-w-0">
        <div className="flex items-baseline gap-x-3">
          <span className="flex min-w-0 flex-1 flex-wrap items-baseline gap-x-3">
            <span className="min-w-0 truncate font-semibold">
              {row.title || <span className="font-normal text-ink-2">no name</span>}
            </span>
            <span className="min-w-0 text-ink-2">{row.about}</span>
          </span>
          {beside && <span className="flex flex-none gap-3">{beside}</span>}
        </div>
        {children && <div className="leading-5.5">{children}</div>}
      </div>
    </li>
  );
}

interface OneProps {
  readonly row: BringInRow;
  readonly isOpen: boolean;
  readonly onSettle: (input: Settling) => Promise<boolean>;
}

const AS_FOR_ALL = 'as for all';

/** What an entry of a calendar becomes, where it is otherwise than for all. */
function becoming(kind: BringIn['kind'], { row: { number, title, becomes }, isOpen, onSettle }: OneProps): ReactNode {
  if (kind !== 'calendar') return null;
  if (!isOpen) return becomes;
  return (
    <ChoiceBlank<EntryFate | typeof AS_FOR_ALL>
      label={`What ${title} becomes, entry ${number}`}
      value={becomes ?? AS_FOR_ALL}
      options={[AS_FOR_ALL, ...ENTRY_FATES].map((fate) => [fate, fate] as const) as [EntryFate, string][]}
      onChange={(fate) => void onSettle({ mended: [{ number, column: 0, text: fate === AS_FOR_ALL ? '' : fate }] })}
    />
  );
}

function Left({ row, kind, isOpen, onSettle }: OneProps & { readonly kind: BringIn['kind'] }) {
  return (
    <Line row={row} beside={becoming(kind, { row, isOpen, onSettle })}>
      {row.why && <p>{row.why}</p>}
      {row.faults.map((fault) => (
        <p key={fault.column} className="flex flex-wrap items-baseline justify-between gap-x-3 gap-y-1">
          <span>
            {fault.name}: {fault.message}
          </span>
          {isOpen && fault.offers.length > 0 && (
            <span className="w-full">
              For this and every line like it:{' '}
              {fault.offers.map((text, i) => (
                <Fragment key={text}>
                  {i > 0 && ' or '}
                  <button
                    type="button"
                    className="link-line"
                    onClick={() => {
                      const mended = { number: row.number, column: fault.column, text, isForAll: true };
                      void onSettle({ mended: [mended] });
                    }}
                  >
                    {text}
                  </button>
                </Fragment>
              ))}
            </span>
          )}
          {isOpen && (
            <Mend
              fault={fault}
              number={row.number}
              onMend={(text) => onSettle({ mended: [{ number: row.number, column: fault.column, text }] })}
            />
          )}
        </p>
      ))}
    </Line>
  );
}

interface MendProps {
  readonly fault: BringInRow['faults'][number];
  readonly number: number;
  readonly onMend: (text: string) => Promise<boolean>;
}

/** A cell, to be written as it should have been. */
function Mend({ fault, number, onMend }: MendProps) {
  const [text, setText] = useState(fault.text);
  const mend = () => {
    if (text !== fault.text) void onMend(text);
  };
  return (
    <input
      className="blank font-mono"
      aria-label={`${fault.name} of line ${number}`}
      placeholder="write it here"
      value={text}
      size={Math.max(15, Math.min(30, text.length + 2))}
      onChange={({ target }) => setText(target.value)}
      onBlur={mend}
      onKeyDown={({ key }) => {
        if (key === 'Enter') mend();
        if (key === 'Escape') setText(fault.text);
      }}
    />
  );
}

/** Dates as they are read. */
const said = (value: string): string => (/^\d{4}-\d{2}-\d{2}$/.test(value) ? sayDate(dayOfIso(value)) : value);

function Alike({ row, kind, isOpen, onSettle }: OneProps & { readonly kind: BringIn['kind'] }) {
  const chosen = row.fate === 'new' ? 'add' : row.fate;
  return (
    <Line
      row={row}
      beside={ALIKE_CHOICES[kind].map((choice) => (
        <button
          key={choice}
          type="button"
          className={`cursor-pointer border-b-2 ${choice === chosen ? 'border-accent font-semibold' : 'border-line-2'}`}
          aria-pressed={choice === chosen}
          aria-label={`${choice} ${row.title}, line ${row.number}`}
          disabled={!isOpen}
          onClick={() => void onSettle({ choices: [{ number: row.number, choice }] })}
        >
          {choice}
        </button>
      ))}
    >
      <span className="text-ink-2">{row.why}</span>
      {chosen === 'update' &&
        row.diffs.map(({ name, from, to }) => (
          <span key={name} className="ml-3 inline-block">
            {name} {from && <s className="text-ink-2">{said(from)}</s>} {from && '→'} {said(to)}
          </span>
        ))}
    </Line>
  );
}
