/** Types of memory-folder.mjs, for those who import it from TypeScript. */
export function memoryFolder(wanted: string): { readonly folder: string; remove(): void };
