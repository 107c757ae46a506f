/** The rows and bytes of files: kept, made small, counted, swept. */
export { StoredFile } from './entity.ts';
export { type FileSource, setTemplateFiles } from './of-templates.ts';
export {
  bytesOf,
  filesByLink,
  filesOfTasks,
  filesOfTemplate,
  IN_TEXT,
  oneFile,
  proofFilesOf,
  proofFilesOfTasks,
} from './queries.ts';
export { refuseBeyondQuota } from './quota.ts';
export { type Bytes, FileStore, smallOf } from './store.ts';
export { sweepFiles } from './sweep.ts';
