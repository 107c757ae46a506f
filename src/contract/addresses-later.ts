import { addresses } from './address.ts';
import type * as contract from './index.ts';
import * as paths from './paths-later.ts';

/** What the first page does not ask: see `paths-later.ts`. */

export const answerAddresses = addresses<typeof contract.answerEndpoints>(paths.answerPaths);
export const bellAddresses = addresses<typeof contract.bellEndpoints>(paths.bellPaths);
export const bringInAddresses = addresses<typeof contract.bringInEndpoints>(paths.bringInPaths);
export const byLinkAddresses = addresses<typeof contract.byLinkEndpoints>(paths.byLinkPaths);
export const calendarAddresses = addresses<typeof contract.calendarEndpoints>(paths.calendarPaths);
export const callAddresses = addresses<typeof contract.callEndpoints>(paths.callPaths);
export const callFigureAddresses = addresses<typeof contract.callFigureEndpoints>(paths.callFigurePaths);
export const clientLinkAddresses = addresses<typeof contract.clientLinkEndpoints>(paths.clientLinkPaths);
export const clockAddresses = addresses<typeof contract.clockEndpoints>(paths.clockPaths);
export const commentAddresses = addresses<typeof contract.commentEndpoints>(paths.commentPaths);
export const directoryAddresses = addresses<typeof contract.directoryEndpoints>(paths.directoryPaths);
export const labelAddresses = addresses<typeof contract.labelEndpoints>(paths.labelPaths);
export const leaveAddresses = addresses<typeof contract.leaveEndpoints>(paths.leavePaths);
export const logbookAddresses = addresses<typeof contract.logbookEndpoints>(paths.logbookPaths);
export const recordAddresses = addresses<typeof contract.recordEndpoints>(paths.recordPaths);
export const overviewAddresses = addresses<typeof contract.overviewEndpoints>(paths.overviewPaths);
export const peopleAddresses = addresses<typeof contract.peopleEndpoints>(paths.peoplePaths);
export const messageAddresses = addresses<typeof contract.messageEndpoints>(paths.messagePaths);
export const noticeAddresses = addresses<typeof contract.noticeEndpoints>(paths.noticePaths);
export const planAddresses = addresses<typeof contract.planEndpoints>(paths.planPaths);
export const postAddresses = addresses<typeof contract.postEndpoints>(paths.postPaths);
export const pushAddresses = addresses<typeof contract.pushEndpoints>(paths.pushPaths);
export const retentionAddresses = addresses<typeof contract.retentionEndpoints>(paths.retentionPaths);
export const runAddresses = addresses<typeof contract.runEndpoints>(paths.runPaths);
export const scheduleAddresses = addresses<typeof contract.scheduleEndpoints>(paths.schedulePaths);
export const settingsAddresses = addresses<typeof contract.settingsEndpoints>(paths.settingsPaths);
export const setupAddresses = addresses<typeof contract.setupEndpoints>(paths.setupPaths);
export const shiftAddresses = addresses<typeof contract.shiftEndpoints>(paths.shiftPaths);
export const swapAddresses = addresses<typeof contract.swapEndpoints>(paths.swapPaths);
export const taskListAddresses = addresses<typeof contract.taskListEndpoints>(paths.taskListPaths);
export const templateAddresses = addresses<typeof contract.templateEndpoints>(paths.templatePaths);
export const wallchartAddresses = addresses<typeof contract.wallchartEndpoints>(paths.wallchartPaths);
export const workloadAddresses = addresses<typeof contract.workloadEndpoints>(paths.workloadPaths);
