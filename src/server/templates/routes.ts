import { historyEndpoints, templateEndpoints } from '../../contract/index.ts';
import { deletedTemplates, historyOf } from '../history/history.ts';
import { readCursor } from '../platform/http/cursor.ts';
import type { Routes } from '../platform/http/route.ts';
import { startTemplate } from '../tasks/hand-made.ts';
import { taskAsTemplate } from './as-template.ts';
import {
  archiveTemplate,
  changeTemplate,
  createTemplate,
  impactOfTemplate,
  listTemplates,
  oneTemplate,
  removeTemplate,
  setFavourite,
  usesOfTemplate,
} from './service.ts';
import { Template } from './stored/entity.ts';

export function templateRoutes(routes: Routes): Routes {
  return (
    routes
      .add(templateEndpoints.list, 'member', ({ scope, query }) => listTemplates(scope, readCursor(query.after)))
      // Before those of one template, whose id stands in the same place.
      .add(historyEndpoints.deletedTemplates, 'manager', async ({ scope }) => ({
        deleted: await deletedTemplates(scope),
      }))
      .add(templateEndpoints.one, 'member', ({ scope, params }) => oneTemplate(scope, params.templateId))
      .add(templateEndpoints.create, 'manager', ({ scope, body }) => createTemplate(scope, body.template, body.like))
      .add(templateEndpoints.change, 'manager', ({ scope, params, body }) =>
        changeTemplate(scope, params.templateId, body),
      )
      .add(templateEndpoints.impact, 'manager', ({ scope, params, body }) =>
        impactOfTemplate(scope, params.templateId, body),
      )
      .add(historyEndpoints.template, 'member', async ({ scope, params }) => {
        await scope.one(Template, params.templateId, 'template');
        return { why: [], entries: await historyOf(scope, 'template', params.templateId) };
      })
      .add(templateEndpoints.uses, 'member', ({ scope, params }) => usesOfTemplate(scope, params.templateId))
      .add(templateEndpoints.archive, 'manager', ({ scope, params, body }) =>
        archiveTemplate(scope, params.templateId, body.archived),
      )
      .add(templateEndpoints.remove, 'manager', ({ scope, params }) => removeTemplate(scope, params.templateId))
      .add(templateEndpoints.favourite, 'member', ({ scope, params, body }) =>
        setFavourite(scope, params.templateId, body.favourite),
      )
      .add(templateEndpoints.start, 'member', ({ scope, params, body }) =>
        startTemplate(scope, params.templateId, body),
      )
      .add(templateEndpoints.ofTask, 'manager', ({ scope, params }) => taskAsTemplate(scope, params.taskId))
  );
}
