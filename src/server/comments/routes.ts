import { commentEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { commentsOf, writeComment } from './comments.ts';

export function commentRoutes(routes: Routes): Routes {
  return routes
    .add(commentEndpoints.list, 'read', ({ scope, params, query }) => commentsOf(scope, params.taskId, query.before))
    .add(commentEndpoints.write, 'comment', ({ scope, params, body }) => writeComment(scope, params.taskId, body));
}
