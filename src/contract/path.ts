/** How the API is asked for something, and where below `/api`; the parameters in a path are ids. */
export type Path = readonly ['GET' | 'POST' | 'PUT' | 'DELETE', string];
