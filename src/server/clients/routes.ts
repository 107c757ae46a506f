import { subjectEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { findSubjects, namedSubjects, subjectsSaidIn } from './queries.ts';

export function clientRoutes(routes: Routes): Routes {
  return routes
    .add(subjectEndpoints.find, 'read', ({ scope, query }) => findSubjects(scope, query.q))
    .add(subjectEndpoints.named, 'read', ({ scope, query }) => namedSubjects(scope, query))
    .add(subjectEndpoints.said, 'read', async ({ scope, query }) => ({
      subjects: await subjectsSaidIn(scope, query.line),
    }));
}
