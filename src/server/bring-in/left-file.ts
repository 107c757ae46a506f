import type { Response } from 'express';
import type { RowProblem } from '../../core/index.ts';
import { sendRows } from '../platform/http/rows-out.ts';
import type { Scope } from '../platform/scope.ts';
import { mustBeAllowed } from './allowed.ts';
import { BringIn } from './entity.ts';
import { pagesOf } from './pages.ts';

const WHY = 'why it was left';

/** The lines that were left, as they stand in the file, with a column that says why. */
export async function sendLeft(scope: Scope, id: string, response: Response): Promise<void> {
  const bringIn = await scope.one(BringIn, id, 'file');
  mustBeAllowed(scope, bringIn.kind);
  await sendRows(response, `${bringIn.fileName.replace(/\.[^.]*$/, '')} left`, leftOf(scope, bringIn), 'csv');
}

async function* leftOf(scope: Scope, bringIn: BringIn) {
  const { columns } = bringIn;
  yield [[...columns, WHY]];
  for await (const rows of pagesOf(scope, bringIn, 'number, cells, fate, read'))
    yield rows
      .filter(({ fate }) => fate === 'left')
      .map(({ cells, read }) => [
        ...columns.map((_, i) => cells[i] ?? ''),
        [read.why, ...read.problems.map(sayProblem)].filter(Boolean).join('; '),
      ]);
}

/** A single thing that was likely meant is told beside it; of several the words tell already. */
const sayProblem = ({ message, offers: [meant, ...others] = [] }: RowProblem): string =>
  meant === undefined || others.length > 0 ? message : `${message} Meant: “${meant}”?`;
