/**
 * Where the API is asked for what, below `/api`. Apart from what goes there and back (`endpoint.ts`), so that a browser
 * that only asks loads no schemas; the parameters in a path are ids.
 */
import type { Path } from './path.ts';

export * from './paths-later.ts';

export const filePaths = {
  upload: ['POST', '/files'],
  keep: ['PUT', '/files/:fileId/kept'],
  remove: ['DELETE', '/files/:fileId'],
} as const satisfies Record<string, Path>;

export const findPaths = {
  find: ['GET', '/find'],
} as const satisfies Record<string, Path>;

export const historyPaths = {
  task: ['GET', '/tasks/:taskId/history'],
  schedule: ['GET', '/schedules/:scheduleId/history'],
  template: ['GET', '/templates/:templateId/history'],
  settings: ['GET', '/settings/history'],
  person: ['GET', '/people/:personId/history'],
  client: ['GET', '/clients/:clientId/history'],
  plan: ['GET', '/plans/:planId/history'],
  deletedTemplates: ['GET', '/templates/deleted'],
  undo: ['POST', '/changes/:changeId/undo'],
  impactOfUndo: ['POST', '/changes/:changeId/undo/impact'],
} as const satisfies Record<string, Path>;

export const subjectPaths = {
  find: ['GET', '/subjects'],
  named: ['GET', '/subjects/named'],
  said: ['GET', '/subjects/said'],
} as const satisfies Record<string, Path>;

export const taskPaths = {
  daySheet: ['GET', '/people/:personId/day-sheet'],
  together: ['GET', '/day-sheets'],
  tideline: ['GET', '/tideline'],
  one: ['GET', '/tasks/:taskId'],
  start: ['POST', '/tasks/:taskId/start'],
  claim: ['POST', '/tasks/:taskId/claim'],
  giveBack: ['POST', '/tasks/:taskId/give-back'],
  finish: ['POST', '/tasks/:taskId/finish'],
  skip: ['POST', '/tasks/:taskId/skip'],
  tick: ['PUT', '/tasks/:taskId/ticks'],
  note: ['PUT', '/tasks/:taskId/note'],
  pin: ['PUT', '/tasks/:taskId/pin'],
  answer: ['PUT', '/tasks/:taskId/answers'],
  sign: ['POST', '/tasks/:taskId/sign'],
  sendBack: ['POST', '/tasks/:taskId/send-back'],
  holdUp: ['POST', '/tasks/:taskId/hold-up'],
  goOn: ['POST', '/tasks/:taskId/go-on'],
  nudge: ['POST', '/tasks/nudges'],
  edit: ['PUT', '/tasks/:taskId'],
  impactOfEdit: ['POST', '/tasks/:taskId/edit-impact'],
  changeSeveral: ['POST', '/tasks/changes'],
  impactOfSeveral: ['POST', '/tasks/changes/impact'],
  intoTemplate: ['POST', '/tasks/:taskId/into-template'],
  capture: ['POST', '/tasks'],
} as const satisfies Record<string, Path>;

export const workspacePaths = {
  welcome: ['GET', '/welcome'],
  session: ['GET', '/session'],
  signIn: ['POST', '/session'],
  stepIn: ['POST', '/session/demo'],
  signOut: ['DELETE', '/session'],
  sessions: ['GET', '/account/sessions'],
  workspaces: ['GET', '/account/workspaces'],
  endSessions: ['POST', '/account/sessions/end'],
  askForAddress: ['POST', '/account/address'],
  confirmAddress: ['POST', '/account/address/confirm'],
  changeWorkspace: ['POST', '/session/workspace'],
  password: ['PUT', '/account/password'],
  myWays: ['PUT', '/account/ways'],
  workspace: ['GET', '/workspace'],
  clock: ['GET', '/clock'],
  lists: ['PUT', '/workspace/lists'],
} as const satisfies Record<string, Path>;
