/** Types of memory-folder.mjs, for those who import it from TypeScript. */
export function memoryFolder(wanted: string): string;
