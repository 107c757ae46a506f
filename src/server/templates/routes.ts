import { templateEndpoints } from '../../contract/index.ts';
import { readCursor } from '../platform/http/cursor.ts';
import type { Routes } from '../platform/http/route.ts';
import { taskAsTemplate } from './as-template.ts';
import { removeTemplate, usesOfTemplate } from './removal.ts';
import {
  archiveTemplate,
  changeTemplate,
  createTemplate,
  impactOfTemplate,
  listTemplates,
  oneTemplate,
  setFavourite,
} from './service.ts';

export function templateRoutes(routes: Routes): Routes {
  return routes
    .add(templateEndpoints.list, 'read', ({ scope, query }) => listTemplates(scope, readCursor(query.after)))
    .add(templateEndpoints.one, 'read', ({ scope, params }) => oneTemplate(scope, params.templateId))
    .add(templateEndpoints.create, 'plan', ({ scope, body }) => createTemplate(scope, body.template, body.like))
    .add(templateEndpoints.change, 'plan', ({ scope, params, body }) => changeTemplate(scope, params.templateId, body))
    .add(templateEndpoints.impact, 'plan', ({ scope, params, body }) =>
      impactOfTemplate(scope, params.templateId, body),
    )
    .add(templateEndpoints.uses, 'read', ({ scope, params }) => usesOfTemplate(scope, params.templateId))
    .add(templateEndpoints.archive, 'plan', ({ scope, params, body }) =>
      archiveTemplate(scope, params.templateId, body.archived),
    )
    .add(templateEndpoints.remove, 'plan', ({ scope, params }) => removeTemplate(scope, params.templateId))
    .add(templateEndpoints.favourite, 'account', ({ scope, params, body }) =>
      setFavourite(scope, params.templateId, body.favourite),
    )
    .add(templateEndpoints.ofTask, 'plan', ({ scope, params }) => taskAsTemplate(scope, params.taskId));
}
