export * from './endpoint.ts';
export * from './fields.ts';
export * from './recurrence.ts';
export * from './schedules.ts';
export * from './tasks.ts';
export * from './templates.ts';
export * from './workspace.ts';
