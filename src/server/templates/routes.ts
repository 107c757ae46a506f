import { templateEndpoints } from '../../contract/index.ts';
import { readCursor } from '../http/cursor.ts';
import type { Routes } from '../http/route.ts';
import { changeTemplate, createTemplate, listTemplates, oneTemplate } from './service.ts';

export function templateRoutes(routes: Routes): Routes {
  return routes
    .add(templateEndpoints.list, 'member', ({ scope, query }) => listTemplates(scope, readCursor(query.after)))
    .add(templateEndpoints.one, 'member', ({ scope, params }) => oneTemplate(scope, params.templateId))
    .add(templateEndpoints.create, 'manager', ({ scope, body }) => createTemplate(scope, body))
    .add(templateEndpoints.change, 'manager', ({ scope, params, body }) =>
      changeTemplate(scope, params.templateId, body),
    );
}
