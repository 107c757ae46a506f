import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { MOST_PUT_ON, type WholeSchedule } from '../../../../contract/index.ts';
import { type CellPlace, plural, sheetCell } from '../../../../core/index.ts';
import { useKeys } from '../../../app/shell/keys.tsx';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import type { ProblemError } from '../../../kit/api.ts';
import { Empty, Skeleton, Trouble } from '../../../kit/states.tsx';
import { usePlans } from '../../plans/api.ts';
import type { ChosenClients } from '../../plans/put-on/put-on-draft.ts';
import { useWholeSchedules } from '../api.ts';
import { FilterWords, useScheduleFilter } from '../list/schedule-filter.tsx';
import { useSchedulesLookedAt } from '../looked-at.tsx';
import { type CellRange, placesOf, spanOf } from './cell-range.ts';
import { COLUMNS } from './columns.ts';
import { ReplaceLine } from './replace-line.tsx';
import { SheetGrid } from './sheet-grid.tsx';
import { editedLine, type JoiningClients, type Sheet, type SheetLine, useSheet, useSheetDraft } from './use-sheet.ts';

/** Schedules as a sheet of cells, for those who have hundreds: many are changed, looked at and saved as one. */
export default function WorksheetPage() {
  const { may } = useWorkspace();
  const filter = useScheduleFilter();
  const draft = useSheetDraft();
  const whole = useWholeSchedules(may('plan') ? filter.filter : null, { also: draft.ids });
  const { schedules, error, retry } = whole;
  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col">
      <title>Worksheet of schedules · Jolly Rota</title>
      {!may('plan') && <Empty title="Only planners and managers change schedules.">The table shows them all.</Empty>}
      {may('plan') && error && !schedules?.length && <Trouble error={error} retry={retry} />}
      {may('plan') && !error && !schedules && <Skeleton rows={14} />}
      {may('plan') && schedules && <Worksheet whole={whole} schedules={schedules} draft={draft} filter={filter} />}
    </div>
  );
}

const FIRST_CELL: CellRange = { at: { row: 0, column: 0 }, to: { row: 0, column: 0 } };

interface WorksheetProps {
  /** Those that fit and are here so far. */
  readonly schedules: readonly WholeSchedule[];
  readonly whole: ReturnType<typeof useWholeSchedules>;
  readonly draft: ReturnType<typeof useSheetDraft>;
  readonly filter: ReturnType<typeof useScheduleFilter>;
}

function Worksheet({ schedules, whole: { count, known, error, retry }, draft, filter }: WorksheetProps) {
  const { data: planList, error: noPlans } = usePlans();
  const plans = useMemo(
    () => planList?.plans.filter(({ isArchived, items }) => !isArchived && items.length > 0) ?? null,
    [planList],
  );
  const sheet = useSheet(draft, known, plans);
  const lines = useMemo(() => schedules.flatMap(({ id }) => sheet.lines.get(id) ?? []), [schedules, sheet.lines]);
  const [range, setRange] = useState(FIRST_CELL);
  const [refusal, setRefusal] = useState<ProblemError | null>(null);
  const { look, busy, dialog } = useSchedulesLookedAt({
    onSaved: () => {
      setRefusal(null);
      sheet.forgetSaved();
    },
    onRefused: setRefusal,
  });
  const { figures } = sheet;
  const isReady = sheet.coming === 0 && figures.problems === 0 && figures.meanwhile === 0 && !busy && !dialog;
  const mayLook = figures.own > 0 && isReady;
  const lookAtIt = () => {
    const changes = sheet.patches();
    if (!mayLook) return;
    setRefusal(null);
    look({
      changes,
      what: `${plural(figures.cells, 'cell')} of ${plural(changes.length, 'schedule')} changed on the worksheet`,
      said: `Saved ${plural(changes.length, 'schedule')}.`,
    });
  };
  useKeys([{ key: 'Mod+Enter', says: 'Look at what the sheet changes', run: lookAtIt }]);
  const textAt = ({ row, column }: CellPlace) => cellOf(sheet, row as SheetLine, column).text;
  const { top, bottom, left, right } = spanOf(range);
  const isSeveral = top !== bottom || left !== right;
  const searched = () =>
    isSeveral
      ? placesOf(lines, range).flat()
      : lines.flatMap((row) => COLUMNS.map(({ name }) => ({ row, column: name })));
  const show = ({ row, column }: CellPlace) => {
    const place = { row: lines.indexOf(row as SheetLine), column: COLUMNS.findIndex(({ name }) => name === column) };
    setRange({ at: place, to: place });
    document.querySelector<HTMLElement>('[role=grid]')?.focus();
  };
  const fillDown = () => {
    const [first = [], ...others] = placesOf(lines, range);
    sheet.put(others.flatMap((line) => line.map((place, i) => ({ ...place, text: textAt(first[i] as CellPlace) }))));
  };
  return (
    <>
      <div className="page-head flex-wrap">
        <h1>Worksheet</h1>
        <FilterWords filter={filter} />
        <span className="ml-auto whitespace-nowrap text-row text-ink-2">
          {lines.length === count ? count : `${lines.length} of ${count} are here`}
          {error && lines.length < count && (
            <>
              {', '}
              <button type="button" className="link-line text-late" onClick={retry}>
                {error.message} Again
              </button>
            </>
          )}
        </span>
        <Link className="btn" to={{ pathname: '/schedules', search: filter.search }}>
          Table
        </Link>
      </div>
      <ReplaceLine
        places={searched}
        isChosen={isSeveral}
        textAt={textAt}
        onFind={show}
        onReplace={(texts) => sheet.put(texts)}
      />
      {count === 0 ? (
        <Empty title="No schedule fits.">
          <button type="button" className="link-line" onClick={filter.clear}>
            Show them all
          </button>
        </Empty>
      ) : (
        <SheetGrid lines={lines} sheet={sheet} range={range} onRange={setRange} />
      )}
      <footer className="print:hidden flex flex-none flex-wrap items-center gap-x-3 gap-y-1 border-t border-line-2 px-5 py-2 text-row">
        <div className="min-w-0 flex-1 leading-4.5" role="status">
          {refusal ? (
            <span className="text-late">{refusal.message}</span>
          ) : (
            <CellWords sheet={sheet} line={lines[range.at.row]} range={range} />
          )}
        </div>
        {top !== bottom && (
          <button type="button" className="btn" onClick={fillDown}>
            Fill down
          </button>
        )}
        {figures.meanwhile > 0 && (
          <>
            <span>{plural(figures.meanwhile, 'cell was', 'cells were')} changed by someone else meanwhile:</span>
            <button type="button" className="btn" onClick={sheet.keepMine}>
              Keep mine
            </button>
            <button type="button" className="btn" onClick={sheet.takeTheirs}>
              Take theirs
            </button>
          </>
        )}
        {figures.cells > 0 && (
          <>
            <span className="whitespace-nowrap">
              {plural(figures.cells, 'cell')} in {plural(figures.schedules, 'schedule')}
              {figures.problems > 0 && `, ${figures.problems} can’t be read`}
              {sheet.gone > 0 && `, ${plural(sheet.gone, 'schedule is', 'schedules are')} gone`}
            </span>
            <button type="button" className="btn" onClick={sheet.forget}>
              Put all back
            </button>
          </>
        )}
        {noPlans && figures.cells > figures.own && <span className="text-late">{noPlans.message}</span>}
        <PutOnPlans joining={sheet.joining} mayPut={isReady} isFirst={figures.own === 0} />
        {(figures.own > 0 || sheet.joining.length === 0) && (
          <button type="button" className="btn btn-primary" disabled={!mayLook} onClick={lookAtIt}>
            Look at what it changes
          </button>
        )}
      </footer>
      {dialog}
    </>
  );
}

interface PutOnPlansProps {
  readonly joining: readonly JoiningClients[];
  readonly mayPut: boolean;
  /** Whether nothing else is to be done on the sheet. */
  readonly isFirst: boolean;
}

/** Leads to where clients are put on the first of the plans; the others stay on the sheet until it is their turn. */
function PutOnPlans({ joining, mayPut, isFirst }: PutOnPlansProps) {
  const navigate = useNavigate();
  const [first] = joining;
  if (!first) return null;
  const chosen: ChosenClients = { clients: first.clients.slice(0, MOST_PUT_ON) };
  const others = joining.length - 1;
  return (
    <>
      <button
        type="button"
        className={isFirst ? 'btn btn-primary' : 'btn'}
        disabled={!mayPut}
        onClick={() => void navigate(`/plans/put-on?plan=${first.plan.id}`, { state: chosen })}
      >
        Put {chosen.clients.length < first.clients.length && 'the first '}
        {plural(chosen.clients.length, 'client')} on {first.plan.name} …
      </button>
      {others > 0 && <span className="whitespace-nowrap">then {plural(others, 'more plan')}</span>}
    </>
  );
}

function cellOf(sheet: Sheet, line: SheetLine, column: CellPlace['column']) {
  return sheetCell(line, column, sheet.edits, editedLine(sheet, line), sheet.context);
}

/** What there is to say of the cell where the keyboard stands. */
function CellWords({
  sheet,
  line,
  range,
}: {
  readonly sheet: Sheet;
  readonly line: SheetLine | undefined;
  readonly range: CellRange;
}) {
  const column = COLUMNS[range.at.column];
  if (!line || !column) return null;
  const cell = cellOf(sheet, line, column.name);
  const { top, bottom, left, right } = spanOf(range);
  const count = (bottom - top + 1) * (right - left + 1);
  const { problem } = cell;
  if (problem)
    return (
      <span className="text-late">
        {problem.message}{' '}
        {problem.offers.map((text) => (
          <button
            key={text}
            type="button"
            className="link-line mr-3"
            onClick={() => sheet.put([{ row: line, column: column.name, text }])}
          >
            {text}
          </button>
        ))}
      </span>
    );
  if (cell.meanwhile !== null) return <>Somebody else has put “{cell.meanwhile}” here since.</>;
  const was = sheet.edits.get(line.id)?.get(column.name)?.was;
  if (was !== undefined) return <span className="text-ink-2">It was “{was}”. Delete puts it back.</span>;
  return (
    <span className="text-ink-2">
      {count > 1
        ? `${count} cells chosen: what you type or paste goes into all of them.`
        : 'Type to change it, Enter to go on in it. Shift with the arrows chooses more.'}
    </span>
  );
}
