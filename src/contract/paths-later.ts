import type { Path } from './path.ts';

/** Paths that the first page does not ask: a browser loads them with the pages that do. */

export const answerPaths = {
  ofTask: ['GET', '/tasks/:taskId/answers'],
  ofClient: ['GET', '/clients/:clientId/answers'],
  tray: ['GET', '/answers'],
  place: ['POST', '/answers/:answerId/place'],
  putAway: ['POST', '/answers/:answerId/put-away'],
  take: ['POST', '/answers/parts/:partId/take'],
  tryOut: ['POST', '/post/:mailId/answer'],
  mails: ['GET', '/no-mails'],
  stopMails: ['POST', '/no-mails'],
  mailAgain: ['POST', '/mails-again'],
} as const satisfies Record<string, Path>;

export const bellPaths = {
  lines: ['GET', '/bell'],
  read: ['POST', '/bell/read'],
} as const satisfies Record<string, Path>;

export const bringInPaths = {
  upload: ['POST', '/bring-ins'],
  list: ['GET', '/bring-ins'],
  one: ['GET', '/bring-ins/:bringInId'],
  rows: ['GET', '/bring-ins/:bringInId/rows'],
  forPlan: ['GET', '/bring-ins/:bringInId/for-plan'],
  settle: ['PUT', '/bring-ins/:bringInId'],
  impact: ['POST', '/bring-ins/:bringInId/impact'],
  bringIn: ['POST', '/bring-ins/:bringInId/bring-in'],
  discard: ['DELETE', '/bring-ins/:bringInId'],
} as const satisfies Record<string, Path>;

export const callPaths = {
  quotas: ['GET', '/quotas'],
  createQuota: ['POST', '/quotas'],
  look: ['POST', '/quotas/look'],
  changeQuota: ['PUT', '/quotas/:quotaId'],
  severalLook: ['POST', '/quotas/several/look'],
  several: ['POST', '/quotas/several'],
  day: ['GET', '/calls'],
  before: ['GET', '/calls/:callId/before'],
  rung: ['POST', '/calls/:callId/rung'],
  later: ['POST', '/calls/:callId/later'],
  contacts: ['GET', '/calls/contacts'],
  more: ['POST', '/calls/more'],
  off: ['POST', '/calls/:callId/off'],
  swap: ['POST', '/calls/:callId/swap'],
  shareLook: ['POST', '/calls/share-out/look'],
  share: ['POST', '/calls/share-out'],
} as const satisfies Record<string, Path>;

export const callFigurePaths = {
  figures: ['GET', '/call-figures'],
  calls: ['GET', '/call-figures/calls'],
  csv: ['GET', '/call-figures.csv'],
} as const satisfies Record<string, Path>;

export const clockPaths = {
  now: ['GET', '/clock/on'],
  list: ['GET', '/people/:personId/clock'],
  on: ['POST', '/people/:personId/clock/on'],
  off: ['POST', '/people/:personId/clock/off'],
  takeBack: ['POST', '/people/:personId/clock/take-back'],
} as const satisfies Record<string, Path>;

export const clientLinkPaths = {
  asked: ['GET', '/tasks/:taskId/asked'],
  ask: ['POST', '/tasks/:taskId/asked'],
  withdraw: ['DELETE', '/tasks/:taskId/asked'],
} as const satisfies Record<string, Path>;

/** Asked by whoever came by a link, and by nobody who is signed in. */
export const byLinkPaths = {
  open: ['POST', '/link'],
  sendCode: ['POST', '/link/code'],
  enterCode: ['POST', '/link/code/enter'],
  task: ['GET', '/link/tasks/:taskId'],
  answer: ['PUT', '/link/tasks/:taskId/answers'],
  tick: ['PUT', '/link/tasks/:taskId/ticks'],
  note: ['PUT', '/link/tasks/:taskId/note'],
  finish: ['POST', '/link/tasks/:taskId/finish'],
  takeBack: ['POST', '/link/tasks/:taskId/take-back'],
  upload: ['POST', '/link/tasks/:taskId/files'],
  removeFile: ['DELETE', '/link/files/:fileId'],
} as const satisfies Record<string, Path>;

export const commentPaths = {
  list: ['GET', '/tasks/:taskId/comments'],
  write: ['POST', '/tasks/:taskId/comments'],
} as const satisfies Record<string, Path>;

export const directoryPaths = {
  clients: ['GET', '/clients'],
  client: ['GET', '/clients/:clientId'],
  work: ['GET', '/clients/:clientId/work'],
  addClient: ['POST', '/clients'],
  changeClient: ['PUT', '/clients/:clientId'],
  archiveClient: ['PUT', '/clients/:clientId/archived'],
  impactOfArchivingClient: ['POST', '/clients/:clientId/archived/impact'],
  merge: ['POST', '/clients/:clientId/merge'],
  lookAtMerging: ['POST', '/clients/:clientId/merge/look'],
  ownAssets: ['GET', '/assets'],
  addAsset: ['POST', '/assets'],
  changeAsset: ['PUT', '/assets/:assetId'],
  archiveAsset: ['PUT', '/assets/:assetId/archived'],
  impactOfArchivingAsset: ['POST', '/assets/:assetId/archived/impact'],
} as const satisfies Record<string, Path>;

export const leavePaths = {
  list: ['GET', '/leave'],
  enter: ['POST', '/people/:personId/leave'],
  impactOfEntering: ['POST', '/people/:personId/leave/impact'],
  decide: ['PUT', '/leave/:leaveId/state'],
  impactOfGiving: ['POST', '/leave/:leaveId/impact'],
  takeBack: ['POST', '/leave/:leaveId/take-back'],
} as const satisfies Record<string, Path>;

export const labelPaths = {
  pdf: ['GET', '/labels.pdf'],
} as const satisfies Record<string, Path>;

export const messagePaths = {
  mine: ['GET', '/messages'],
  change: ['PUT', '/messages/summary'],
  hear: ['PUT', '/messages/kinds'],
  quiet: ['PUT', '/messages/quiet'],
  now: ['POST', '/messages/summary/now'],
  chase: ['POST', '/messages/chase'],
  chaseOfSchedule: ['GET', '/messages/chase/:scheduleId'],
} as const satisfies Record<string, Path>;

export const noticePaths = {
  visits: ['GET', '/visits'],
  weeks: ['GET', '/visits/weeks'],
  letters: ['GET', '/letters'],
  addLetter: ['POST', '/letters'],
  changeLetter: ['PUT', '/letters/:letterId'],
  dropLetter: ['DELETE', '/letters/:letterId'],
  look: ['POST', '/notices/look'],
  write: ['POST', '/notices'],
  send: ['POST', '/notices/sent'],
  needNone: ['POST', '/notices/none'],
  list: ['GET', '/notices'],
  pdf: ['GET', '/notices.pdf'],
} as const satisfies Record<string, Path>;

export const logbookPaths = {
  rates: ['GET', '/logbook/rates'],
  days: ['GET', '/logbook/days'],
  day: ['GET', '/logbook/day'],
  by: ['GET', '/logbook/by'],
  readings: ['GET', '/logbook/readings'],
  changes: ['GET', '/logbook/changes'],
  csv: ['GET', '/logbook.csv'],
} as const satisfies Record<string, Path>;

export const overviewPaths = {
  overview: ['GET', '/overview'],
  onTime: ['GET', '/on-time'],
} as const satisfies Record<string, Path>;

export const peoplePaths = {
  list: ['GET', '/team'],
  colleagues: ['GET', '/colleagues'],
  add: ['POST', '/people'],
  change: ['PUT', '/people/:personId'],
  impactOfChanging: ['POST', '/people/:personId/impact'],
  invite: ['POST', '/people/:personId/invitation'],
  withdraw: ['DELETE', '/people/:personId/invitation'],
  held: ['GET', '/people/:personId/held'],
  handOver: ['POST', '/people/:personId/hand-over'],
  impactOfHandOver: ['POST', '/people/:personId/hand-over/impact'],
  lookAtInvitation: ['POST', '/invitations/look'],
  accept: ['POST', '/invitations/accept'],
  forgotten: ['POST', '/password/forgotten'],
  lookAtReset: ['POST', '/password/look'],
  reset: ['POST', '/password/reset'],
} as const satisfies Record<string, Path>;

export const planPaths = {
  list: ['GET', '/plans'],
  one: ['GET', '/plans/:planId'],
  create: ['POST', '/plans'],
  change: ['PUT', '/plans/:planId'],
  impact: ['POST', '/plans/:planId/impact'],
  look: ['POST', '/plan-look'],
  archive: ['PUT', '/plans/:planId/archived'],
  clients: ['GET', '/plans/:planId/clients'],
  ofClient: ['GET', '/clients/:clientId/plans'],
  putOn: ['POST', '/plans/:planId/clients'],
  lookAtPuttingOn: ['POST', '/plans/:planId/clients/look'],
  rolling: ['GET', '/on-plan/rolling'],
  rollOn: ['POST', '/on-plan/roll'],
  impactOfRollingOn: ['POST', '/on-plan/roll/impact'],
  gather: ['POST', '/plans/:planId/gathered'],
  takeOff: ['POST', '/on-plan/off'],
  impactOfTakingOff: ['POST', '/on-plan/off/impact'],
  leaveOut: ['POST', '/on-plan/:onPlanId/left-out'],
  impactOfLeavingOut: ['POST', '/on-plan/:onPlanId/left-out/impact'],
  asPlan: ['POST', '/plans/:planId/as-plan'],
  impactOfAsPlan: ['POST', '/plans/:planId/as-plan/impact'],
} as const satisfies Record<string, Path>;

export const postPaths = {
  list: ['GET', '/post'],
  one: ['GET', '/post/:mailId'],
  part: ['GET', '/mail-parts/:partId'],
  again: ['POST', '/post/:mailId/again'],
} as const satisfies Record<string, Path>;

export const runPaths = {
  last: ['GET', '/runs/last'],
  list: ['GET', '/runs'],
  one: ['GET', '/runs/:runId'],
  runOne: ['POST', '/schedules/:scheduleId/runs'],
  runNow: ['POST', '/runs'],
  rehearse: ['POST', '/fills/rehearsal'],
  fill: ['POST', '/fills'],
  undo: ['POST', '/runs/:runId/undo'],
} as const satisfies Record<string, Path>;

export const setupPaths = {
  state: ['GET', '/setup'],
  countries: ['GET', '/setup/countries'],
  publicHolidays: ['GET', '/setup/public-holidays'],
  begin: ['POST', '/setup'],
} as const satisfies Record<string, Path>;

export const settingsPaths = {
  lists: ['GET', '/settings/lists'],
  changeLists: ['PUT', '/settings/lists'],
  read: ['GET', '/settings'],
  change: ['PUT', '/settings'],
  impact: ['POST', '/settings/impact'],
  countries: ['GET', '/settings/countries'],
  publicHolidays: ['GET', '/settings/public-holidays'],
} as const satisfies Record<string, Path>;

export const retentionPaths = {
  next: ['GET', '/retention/next'],
  past: ['GET', '/retention/past'],
} as const satisfies Record<string, Path>;

export const shiftPaths = {
  gaps: ['GET', '/shifts/gaps'],
} as const satisfies Record<string, Path>;

export const swapPaths = {
  list: ['GET', '/swaps'],
  turns: ['GET', '/tasks/:taskId/turns'],
  ask: ['POST', '/tasks/:taskId/swaps'],
  decide: ['PUT', '/swaps/:swapId/state'],
} as const satisfies Record<string, Path>;

export const templatePaths = {
  list: ['GET', '/templates'],
  one: ['GET', '/templates/:templateId'],
  create: ['POST', '/templates'],
  change: ['PUT', '/templates/:templateId'],
  impact: ['POST', '/templates/:templateId/impact'],
  uses: ['GET', '/templates/:templateId/uses'],
  archive: ['PUT', '/templates/:templateId/archived'],
  remove: ['DELETE', '/templates/:templateId'],
  favourite: ['PUT', '/templates/:templateId/favourite'],
  start: ['POST', '/templates/:templateId/start'],
  ofTask: ['GET', '/tasks/:taskId/as-template'],
} as const satisfies Record<string, Path>;

export const schedulePaths = {
  list: ['GET', '/schedules'],
  fitting: ['GET', '/schedules/fitting'],
  timed: ['GET', '/schedules/timed-work'],
  figures: ['GET', '/schedules/figures'],
  whole: ['POST', '/schedules/whole'],
  one: ['GET', '/schedules/:scheduleId'],
  create: ['POST', '/schedules'],
  change: ['PUT', '/schedules/:scheduleId'],
  impact: ['POST', '/schedules/:scheduleId/impact'],
  changeSeveral: ['POST', '/schedules/changes'],
  impactOfSeveral: ['POST', '/schedules/changes/impact'],
} as const satisfies Record<string, Path>;

export const taskListPaths = {
  lines: ['GET', '/task-list'],
  sums: ['GET', '/task-list/sums'],
  groups: ['GET', '/task-list/groups'],
  chosen: ['GET', '/task-list/chosen'],
  views: ['GET', '/task-list/views'],
  keepView: ['POST', '/task-list/views'],
  changeView: ['PUT', '/task-list/views/:viewId'],
  dropView: ['DELETE', '/task-list/views/:viewId'],
} as const satisfies Record<string, Path>;

export const wallchartPaths = {
  chart: ['GET', '/wallchart'],
  marks: ['POST', '/wallchart/marks'],
  change: ['POST', '/wallchart/changes'],
  impactOfChange: ['POST', '/wallchart/changes/impact'],
  add: ['POST', '/wallchart/schedules'],
  impactOfAdding: ['POST', '/wallchart/schedules/impact'],
} as const satisfies Record<string, Path>;

export const workloadPaths = {
  load: ['GET', '/workload'],
  cell: ['GET', '/workload/cell'],
  evenable: ['GET', '/workload/evenable'],
  move: ['POST', '/workload/moves'],
} as const satisfies Record<string, Path>;

export const pushPaths = {
  mine: ['GET', '/push'],
  add: ['POST', '/push'],
  drop: ['DELETE', '/push/:deviceId'],
} as const satisfies Record<string, Path>;

export const recordPaths = {
  period: ['GET', '/logbook/record.pdf'],
  task: ['GET', '/tasks/:taskId/record.pdf'],
} as const satisfies Record<string, Path>;

export const calendarPaths = {
  mine: ['GET', '/calendars'],
  make: ['POST', '/calendars'],
  renew: ['POST', '/calendars/:calendarId/renewal'],
  withdraw: ['DELETE', '/calendars/:calendarId'],
  file: ['GET', '/calendars/file.ics'],
  /** As a program asks for it that shows calendars. */
  subscribed: ['GET', '/calendar.ics'],
} as const satisfies Record<string, Path>;

export const backupPaths = {
  list: ['GET', '/backups'],
  make: ['POST', '/backups'],
  plan: ['PUT', '/backups/plan'],
  drop: ['DELETE', '/backups/:backupId'],
  ofPerson: ['GET', '/people/:personId/everything'],
} as const satisfies Record<string, Path>;

export const erasingPaths = {
  lookAtClient: ['GET', '/clients/:clientId/erasing'],
  client: ['POST', '/clients/:clientId/erase'],
  lookAtPerson: ['GET', '/people/:personId/erasing'],
  person: ['POST', '/people/:personId/erase'],
} as const satisfies Record<string, Path>;

export const tokenPaths = {
  mine: ['GET', '/tokens'],
  make: ['POST', '/tokens'],
  withdraw: ['DELETE', '/tokens/:tokenId'],
} as const satisfies Record<string, Path>;

export const listPaths = {
  clients: ['GET', '/lists/clients'],
  assets: ['GET', '/lists/assets'],
  people: ['GET', '/lists/people'],
  templates: ['GET', '/lists/templates'],
  schedules: ['GET', '/lists/schedules'],
  schedulesAsCalendar: ['GET', '/lists/schedules.ics'],
  tasks: ['GET', '/lists/tasks'],
} as const satisfies Record<string, Path>;

export const webhookPaths = {
  list: ['GET', '/webhooks'],
  add: ['POST', '/webhooks'],
  change: ['PUT', '/webhooks/:webhookId'],
  drop: ['DELETE', '/webhooks/:webhookId'],
  log: ['GET', '/webhooks/:webhookId/deliveries'],
  again: ['POST', '/webhook-deliveries/:deliveryId/again'],
} as const satisfies Record<string, Path>;

export const paperPaths = {
  day: ['GET', '/papers/day.pdf'],
  week: ['GET', '/papers/week.pdf'],
  client: ['GET', '/papers/client.pdf'],
  calls: ['GET', '/papers/calls.pdf'],
} as const satisfies Record<string, Path>;
