import { useMemo, useRef } from 'react';
import { z } from 'zod';
import type { SchedulePatch, WholeSchedule } from '../../../../contract/index.ts';
import {
  type CellContext,
  type CellEdit,
  type CellName,
  type CellPlace,
  changedFields,
  type EditedRow,
  editedRow,
  keepMine,
  type NamedPlan,
  NO_EDITS,
  plansJoined,
  putCellsBack,
  putTexts,
  type SheetEdits,
  type SheetRow,
  withoutMet,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { useDraft } from '../../../kit/draft.ts';

/** A schedule as a line of the sheet. */
export interface SheetLine extends SheetRow {
  readonly version: number;
  readonly name: string;
  readonly about: string | null;
  readonly client: WholeSchedule['client'];
}

type Kept = readonly (readonly [string, readonly (readonly [CellName, CellEdit])[]])[];
const NOTHING_KEPT: Kept = [];
const keptSchema = z.array(z.tuple([z.string(), z.array(z.tuple([z.string(), z.object({ text: z.string() })]))]));
const MOST_STEPS_BACK = 100;

/** The cells that are changed and not saved yet, kept in this tab. */
export function useSheetDraft() {
  const kept = useDraft<Kept>('worksheet', NOTHING_KEPT, keptSchema);
  const ids = useMemo(() => kept.draft.map(([id]) => id), [kept.draft]);
  return { ...kept, ids };
}

/**
 * What has been changed on the sheet and is not saved yet: each step can be taken back.
 * @param known schedules by id, whether they are shown or not; null for one that is gone
 */
export function useSheet(
  { draft, change, forget }: ReturnType<typeof useSheetDraft>,
  known: ReadonlyMap<string, WholeSchedule | null>,
  plans: readonly NamedPlan[] | null,
) {
  const {
    today,
    people,
    roles,
    teams,
    yearStarts,
    phraseHabits: habits,
    seasons,
    workingCalendar: calendar,
  } = useWorkspace();
  const context = useMemo<CellContext>(
    () => ({ today, people, roles, teams, yearStarts, habits, seasons, calendar, plans }),
    [today, people, roles, teams, yearStarts, habits, seasons, calendar, plans],
  );
  const steps = useRef<Kept[]>([]);
  const lines = useMemo(
    () => new Map([...known].flatMap(([id, schedule]) => (schedule ? [[id, lineOf(schedule)] as const] : []))),
    [known],
  );
  const edits = useMemo<SheetEdits>(() => {
    if (draft.length === 0) return NO_EDITS;
    return withoutMet(new Map(draft.map(([id, cells]) => [id, new Map(cells)])), lines, context);
  }, [draft, lines, context]);
  const edited = useMemo(() => {
    const rows = new Map<string, EditedRow>();
    for (const id of edits.keys()) {
      const line = lines.get(id);
      if (line) rows.set(id, editedRow(line, edits, context));
    }
    return rows;
  }, [edits, lines, context]);
  const keep = (next: SheetEdits) => {
    steps.current = [...steps.current, draft].slice(-MOST_STEPS_BACK);
    change([...next].map(([id, cells]) => [id, [...cells]] as const));
  };
  return {
    context,
    lines,
    edits,
    edited,
    figures: figuresOf(edits, edited),
    /** Changed schedules that are on their way, and those that are gone. */
    coming: [...edits.keys()].filter((id) => known.get(id) === undefined).length,
    gone: [...edits.keys()].filter((id) => known.get(id) === null).length,
    patches: () => patchesOf(edits, edited, lines),
    /** Whom changed cells put on which plan, the plans by name; what is theirs is made on another page. */
    joining: joiningOf(edited, lines),
    put: (texts: readonly (CellPlace & { readonly text: string })[]) => keep(putTexts(edits, texts, context)),
    putBack: (places: readonly CellPlace[]) => keep(putCellsBack(edits, places, context)),
    keepMine: () => keep(keepMine(edits, [...lines.values()], context)),
    takeTheirs: () =>
      keep(
        putCellsBack(
          edits,
          [...edited].flatMap(([id, { meanwhile }]) => {
            const row = lines.get(id);
            return row ? [...meanwhile.keys()].map((column) => ({ row, column })) : [];
          }),
          context,
        ),
      ),
    stepBack() {
      const before = steps.current.pop();
      if (before) change(before);
    },
    /** Lets go of what was saved; who is put on a plan is still to come. */
    forgetSaved() {
      steps.current = [];
      const left = [...edits].flatMap(([id, cells]) => {
        const plan = cells.get('plan');
        return plan ? [[id, [['plan', plan]]] as const] : [];
      });
      if (left.length === 0) forget();
      else change(left);
    },
    forget() {
      steps.current = [];
      forget();
    },
  };
}
export type Sheet = ReturnType<typeof useSheet>;

function lineOf(schedule: WholeSchedule): SheetLine {
  const { id, version, template, asset, client, assignment, recurrence, timing, pauses, exceptions, revisions, plans } =
    schedule;
  return {
    ...{ id, version, recurrence, timing, pauses, exceptions, revisions },
    assignment,
    name: template.name,
    about: asset?.name ?? client?.name ?? null,
    client,
    plans,
  };
}

/** A line as changed; most are not. */
export function editedLine(sheet: Sheet, row: SheetRow): EditedRow {
  return sheet.edited.get(row.id) ?? { schedule: row, problems: new Map(), meanwhile: new Map() };
}

/** Cells changed, in how many schedules; those that can't be read, and those that somebody else has changed too. */
function figuresOf(edits: SheetEdits, edited: ReadonlyMap<string, EditedRow>) {
  const sum = (count: (row: EditedRow) => number) => [...edited.values()].reduce((total, row) => total + count(row), 0);
  return {
    cells: [...edits.values()].reduce((total, cells) => total + cells.size, 0),
    /** Those that change schedules themselves. */
    own: [...edits.values()].reduce((total, cells) => total + cells.size - (cells.has('plan') ? 1 : 0), 0),
    schedules: edits.size,
    problems: sum(({ problems }) => problems.size),
    meanwhile: sum(({ meanwhile }) => meanwhile.size),
  };
}

function patchesOf(
  edits: SheetEdits,
  edited: ReadonlyMap<string, EditedRow>,
  lines: ReadonlyMap<string, SheetLine>,
): SchedulePatch[] {
  return [...edits.keys()].flatMap((id) => {
    const line = lines.get(id);
    const row = edited.get(id);
    const set = line && row ? changedFields(line, row.schedule) : null;
    return line && set ? [{ id, version: line.version, set: { ...set } as SchedulePatch['set'] }] : [];
  });
}

export interface JoiningClients {
  readonly plan: NamedPlan;
  readonly clients: readonly { readonly id: string; readonly name: string }[];
}

function joiningOf(
  edited: ReadonlyMap<string, EditedRow>,
  lines: ReadonlyMap<string, SheetLine>,
): readonly JoiningClients[] {
  const joining = new Map<string, { plan: NamedPlan; clients: Map<string, { id: string; name: string }> }>();
  for (const [id, { schedule }] of edited) {
    const line = lines.get(id);
    if (!line?.client) continue;
    for (const plan of plansJoined(line, schedule)) {
      const of = joining.get(plan.id) ?? { plan, clients: new Map() };
      of.clients.set(line.client.id, line.client);
      joining.set(plan.id, of);
    }
  }
  return [...joining.values()]
    .map(({ plan, clients }) => ({ plan, clients: [...clients.values()] }))
    .sort((a, b) => a.plan.name.localeCompare(b.plan.name));
}
