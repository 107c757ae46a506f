import { addresses } from './address.ts';
import type * as contract from './index.ts';
import * as paths from './paths.ts';

export type { Address } from './address.ts';
export * from './addresses-later.ts';

export const fileAddresses = addresses<typeof contract.fileEndpoints>(paths.filePaths);
export const findAddresses = addresses<typeof contract.findEndpoints>(paths.findPaths);
export const historyAddresses = addresses<typeof contract.historyEndpoints>(paths.historyPaths);
export const subjectAddresses = addresses<typeof contract.subjectEndpoints>(paths.subjectPaths);
export const taskAddresses = addresses<typeof contract.taskEndpoints>(paths.taskPaths);
export const workspaceAddresses = addresses<typeof contract.workspaceEndpoints>(paths.workspacePaths);
