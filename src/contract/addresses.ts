import type { Endpoint } from './endpoint.ts';
import type * as contract from './index.ts';
import * as paths from './paths.ts';

/** An endpoint as a browser asks it: where it is, and (as types alone) what goes there and back. */
export interface Address<E extends Endpoint = Endpoint> {
  readonly method: Endpoint['method'];
  readonly path: string;
  readonly of?: E;
}

type Addresses<Group extends Record<string, Endpoint>> = { readonly [Name in keyof Group]: Address<Group[Name]> };

function addresses<Group extends Record<string, Endpoint>>(
  of: Readonly<Record<keyof Group, readonly [Endpoint['method'], string]>>,
): Addresses<Group> {
  const all = Object.entries<readonly [Endpoint['method'], string]>(of);
  return Object.fromEntries(
    all.map(([name, [method, path]]) => [name, { method, path }]),
  ) as unknown as Addresses<Group>;
}

export const bringInAddresses = addresses<typeof contract.bringInEndpoints>(paths.bringInPaths);
export const directoryAddresses = addresses<typeof contract.directoryEndpoints>(paths.directoryPaths);
export const fileAddresses = addresses<typeof contract.fileEndpoints>(paths.filePaths);
export const findAddresses = addresses<typeof contract.findEndpoints>(paths.findPaths);
export const historyAddresses = addresses<typeof contract.historyEndpoints>(paths.historyPaths);
export const peopleAddresses = addresses<typeof contract.peopleEndpoints>(paths.peoplePaths);
export const postAddresses = addresses<typeof contract.postEndpoints>(paths.postPaths);
export const runAddresses = addresses<typeof contract.runEndpoints>(paths.runPaths);
export const scheduleAddresses = addresses<typeof contract.scheduleEndpoints>(paths.schedulePaths);
export const settingsAddresses = addresses<typeof contract.settingsEndpoints>(paths.settingsPaths);
export const setupAddresses = addresses<typeof contract.setupEndpoints>(paths.setupPaths);
export const subjectAddresses = addresses<typeof contract.subjectEndpoints>(paths.subjectPaths);
export const taskAddresses = addresses<typeof contract.taskEndpoints>(paths.taskPaths);
export const templateAddresses = addresses<typeof contract.templateEndpoints>(paths.templatePaths);
export const workspaceAddresses = addresses<typeof contract.workspaceEndpoints>(paths.workspacePaths);
