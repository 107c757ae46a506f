import { subjectEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { findSubjects, namedSubjects, subjectsSaidIn } from './queries.ts';

export function clientRoutes(routes: Routes): Routes {
  return routes
    .add(subjectEndpoints.find, 'member', ({ scope, query }) => findSubjects(scope, query.q))
    .add(subjectEndpoints.named, 'member', ({ scope, query }) => namedSubjects(scope, query))
    .add(subjectEndpoints.said, 'member', async ({ scope, query }) => ({
      subjects: await subjectsSaidIn(scope, query.line),
    }));
}
