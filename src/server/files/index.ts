/** Files given and taken by people. */
export { fileChanges } from './changes.ts';
export { fileRoutes, sendFile } from './routes.ts';
export { addFile, readableFile, removeFile } from './service.ts';
