import { historyEndpoints } from '../../contract/index.ts';
import { Client } from '../clients/index.ts';
import { PlanRecord } from '../plans/stored/index.ts';
import { deletedTemplates } from '../platform/changes/deleted.ts';
import type { Routes } from '../platform/http/route.ts';
import { Person } from '../platform/identity/person.ts';
import { Schedule } from '../schedules/index.ts';
import { whyHere } from '../tasks/index.ts';
import { Template } from '../templates/stored/index.ts';
import { historyOf } from './history.ts';
import { impactOfUndo, undoChange } from './undo.ts';

export function historyRoutes(routes: Routes): Routes {
  return routes
    .add(historyEndpoints.deletedTemplates, 'plan', async ({ scope }) => ({
      deleted: await deletedTemplates(scope),
    }))
    .add(historyEndpoints.settings, 'settings', async ({ scope }) => ({
      why: [],
      entries: await historyOf(scope, 'workspace', scope.workspace.id),
    }))
    .add(historyEndpoints.person, 'people', async ({ scope, params }) => {
      await scope.one(Person, params.personId, 'person');
      return { entries: await historyOf(scope, 'person', params.personId), why: [] };
    })
    .add(historyEndpoints.client, 'read', async ({ scope, params }) => {
      await scope.one(Client, params.clientId, 'client');
      return { why: [], entries: await historyOf(scope, 'client', params.clientId) };
    })
    .add(historyEndpoints.plan, 'read', async ({ scope, params }) => {
      await scope.one(PlanRecord, params.planId, 'plan');
      return { why: [], entries: await historyOf(scope, 'plan', params.planId) };
    })
    .add(historyEndpoints.template, 'read', async ({ scope, params }) => {
      await scope.one(Template, params.templateId, 'template');
      return { why: [], entries: await historyOf(scope, 'template', params.templateId) };
    })
    .add(historyEndpoints.schedule, 'read', async ({ scope, params }) => {
      await scope.one(Schedule, params.scheduleId, 'schedule');
      return { why: [], entries: await historyOf(scope, 'schedule', params.scheduleId) };
    })
    .add(historyEndpoints.task, 'read', async ({ scope, params }) => ({
      why: await whyHere(scope, params.taskId),
      entries: await historyOf(scope, 'task', params.taskId),
    }))
    .add(historyEndpoints.undo, 'undo', ({ scope, params, body }) => undoChange(scope, params.changeId, body.follow))
    .add(historyEndpoints.impactOfUndo, 'undo', ({ scope, params, body }) =>
      impactOfUndo(scope, params.changeId, body.follow),
    );
}
