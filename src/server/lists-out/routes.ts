import type { Response } from 'express';
import { sendCsv } from '../platform/http/csv.ts';
import type { Routes } from '../platform/http/route.ts';
import type { Scope } from '../platform/scope.ts';
import { assetsOut, clientsOut, nameOfList, peopleOut, schedulesOut, templatesOut } from './lists.ts';

/** Lists as CSV files. */
export function listRoutes(routes: Routes): Routes {
  return routes
    .serve('/lists/clients', 'clients', sending('clients', clientsOut))
    .serve('/lists/assets', 'clients', sending('assets', assetsOut))
    .serve('/lists/people', 'people', sending('people', peopleOut))
    .serve('/lists/templates', 'plan', sending('templates', templatesOut))
    .serve('/lists/schedules', 'plan', sending('schedules', schedulesOut));
}

const sending =
  (name: string, lines: (scope: Scope) => AsyncGenerator<readonly (readonly string[])[]>) =>
  ({ scope }: { readonly scope: Scope }, response: Response): Promise<void> =>
    sendCsv(response, nameOfList(name, scope), lines(scope));
