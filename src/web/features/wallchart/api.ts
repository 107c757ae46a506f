import useSWR from 'swr';
import { wallchartAddresses } from '../../../contract/addresses-later.ts';
import type { WallAddition, WallBlock, WallChange, WallFilter, WallRows } from '../../../contract/index.ts';
import type { WallSpan, WallUnit } from '../../../core/index.ts';
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

/** What stands in some cells; asked for again when the chart is. Null for none. */
export function useMarks(asked: AskedRows, blocks: readonly WallBlock[] | null) {
  const { rows, find: _, empty: __, ...filter } = asked;
  const body = { ...filter, rows, blocks: [...(blocks ?? [])] };
  return useSWR<Marks, ProblemError>(
    blocks === null || blocks.length === 0 ? null : `/api/wallchart/marks#${JSON.stringify(body)}`,
    () => ask(wallchartAddresses.marks, { body }),
    { keepPreviousData: true },
  );
}

/** What can be done on the chart. Each is looked at first. @throws ProblemError */
export function useWallActions() {
  const refresh = useRefresh();
  return {
    marksOf: (asked: AskedRows, blocks: readonly WallBlock[]) => {
      const { rows, find: _, empty: __, ...filter } = asked;
      return ask(wallchartAddresses.marks, { body: { ...filter, rows, blocks: [...blocks] } });
    },
    impactOfChange: (body: WallChange) => ask(wallchartAddresses.impactOfChange, { body }),
    change: async (body: WallChange, said: string) => {
      const { changeId } = await ask(wallchartAddresses.change, { body });
      await refresh(...AROUND, '/workload');
      sayDone(said, changeId);
    },
    impactOfAdding: (body: WallAddition) => ask(wallchartAddresses.impactOfAdding, { body }),
    add: async (body: WallAddition, said: string) => {
      const { changeId } = await ask(wallchartAddresses.add, { body });
      await refresh(...AROUND, '/workload', '/templates');
      sayDone(said, changeId);
    },
  };
}
