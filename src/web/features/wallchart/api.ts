import useSWR from 'swr';
import { wallchartAddresses } from '../../../contract/addresses-later.ts';
import type { WallAddition, WallBlock, WallChange, WallFilter, WallRows } from '../../../contract/index.ts';
import { plural, type WallSpan, type WallUnit } from '../../../core/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useRefresh } from '../../kit/answer.ts';
import { type Answer, addressOf, ask, type ProblemError } from '../../kit/api.ts';
import { usePages } from '../../kit/pages.ts';
import { AROUND } from '../tasks/sending.ts';

/** What rows are shown. */
export interface AskedRows extends WallFilter {
  readonly rows: WallRows;
  readonly find?: string | undefined;
  readonly empty?: 'yes' | undefined;
}

/** What is shown of them. */
export interface AskedChart extends AskedRows {
  readonly span: WallSpan;
  readonly by: WallUnit;
  readonly from?: string | undefined;
}

export type Chart = Answer<typeof wallchartAddresses.chart>;
export type Marks = Answer<typeof wallchartAddresses.marks>;

/** Rows come as far as they are looked at. */
export function useChart(asked: AskedChart) {
  return usePages<Chart>((before) => {
    const start = before === null ? 0 : before.start + before.rows.length;
    if (before !== null && (before.rows.length === 0 || start >= before.count)) return null;
    return addressOf(wallchartAddresses.chart, { query: { ...asked, start } });
  });
}

/** The marks that are asked for: of whose work the chart shows, wherever rows are narrowed by their names. */
const marksAsked = (
  { rows, category, template, client, site, person, role, team }: AskedRows,
  blocks: readonly WallBlock[],
) => ({ rows, category, template, client, site, person, role, team, blocks: [...blocks] });

/** What stands in some cells; asked for again when the chart is. */
export function useMarks(asked: AskedRows, blocks: readonly WallBlock[]) {
  const body = marksAsked(asked, blocks);
  return useSWR<Marks, ProblemError>(
    blocks.length === 0 ? null : `/api/wallchart/marks#${JSON.stringify(body)}`,
    // What was chosen before is never taken for what is chosen now: until it is told, nothing is.
    () => ask(wallchartAddresses.marks, { body }),
  );
}

/** What can be done on the chart. Each is looked at first. @throws ProblemError */
export function useWallActions() {
  const refresh = useRefresh();
  return {
    marksOf: (asked: AskedRows, blocks: readonly WallBlock[]) =>
      ask(wallchartAddresses.marks, { body: marksAsked(asked, blocks) }),
    impactOfChange: (body: WallChange) => ask(wallchartAddresses.impactOfChange, { body }),
    change: async (body: WallChange, said: string) => {
      const { changed, changeId } = await ask(wallchartAddresses.change, { body });
      await refresh(...AROUND, '/workload');
      // Of single ones it is known which should have changed: what was begun or done stays.
      const kept = body.reach === 'these' ? body.tasks.length - changed : 0;
      sayDone(
        `${said}${kept > 0 ? ` ${plural(kept, 'task stays as it is', 'tasks stay as they are')}.` : ''}`,
        changeId,
      );
    },
    impactOfAdding: (body: WallAddition) => ask(wallchartAddresses.impactOfAdding, { body }),
    add: async (body: WallAddition, what: string) => {
      const { schedules, made, changeId } = await ask(wallchartAddresses.add, { body });
      await refresh(...AROUND, '/workload', '/templates');
      sayDone(`${plural(schedules, 'schedule')} made, with ${plural(made, 'task')}: ${what}.`, changeId);
    },
  };
}
