import { wallchartEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { addToRows, impactOfAdding } from './adding.ts';
import { changeMarks, impactOfMarks } from './changing.ts';
import { wallchart } from './chart.ts';
import { wallMarks } from './marks.ts';

export function wallchartRoutes(routes: Routes): Routes {
  return routes
    .add(wallchartEndpoints.chart, 'read', ({ scope, query }) => wallchart(scope, query))
    .add(wallchartEndpoints.marks, 'read', ({ scope, body }) => wallMarks(scope, body))
    .add(wallchartEndpoints.change, 'plan', ({ scope, body }) => changeMarks(scope, body))
    .add(wallchartEndpoints.impactOfChange, 'plan', ({ scope, body }) => impactOfMarks(scope, body))
    .add(wallchartEndpoints.add, 'plan', ({ scope, body }) => addToRows(scope, body))
    .add(wallchartEndpoints.impactOfAdding, 'plan', ({ scope, body }) => impactOfAdding(scope, body));
}
