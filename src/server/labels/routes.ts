import { labelEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { sendLabels } from './labels.ts';

export function labelRoutes(routes: Routes): Routes {
  return routes.sendTo(labelEndpoints.pdf, 'read', ({ scope, query }, response) => sendLabels(scope, query, response));
}
