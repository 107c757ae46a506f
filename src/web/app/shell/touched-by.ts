import type { Live } from '../../../contract/index.ts';

/**
 * Which answers news touches, by the beginning of their addresses: what is looked at in the middle of doing soon, lists
 * and sums of many a little later.
 */
export function touchedBy({ topics, tasks, people, load }: Live, me: string): { soon: string[]; later: string[] } {
  const soon: string[] = [];
  const later: string[] = [];
  if (topics.includes('tasks')) {
    soon.push(...(tasks === null ? ['/tasks/'] : tasks.map((id) => `/tasks/${id}`)));
    soon.push(...(people === null ? ['/people/'] : people.map((id) => `/people/${id}/`)));
    // Of several people it may be about any.
    later.push('/day-sheets');
  }
  if (topics.includes('workspace'))
    soon.push('/workspace', '/settings', '/team', '/leave', '/colleagues', '/shifts', '/letters', '/webhooks');
  if (topics.includes('clients')) {
    soon.push('/clients/', '/subjects', '/answers');
    later.push('/clients', '/assets');
  }
  if (topics.includes('plans')) {
    soon.push('/plans', '/on-plan', '/clients/');
    later.push('/clients');
  }
  if (topics.includes('calls')) {
    soon.push('/calls', '/quotas');
    later.push('/call-figures', '/tideline', '/workload', '/overview');
  }
  if (topics.includes('people')) later.push('/clock/on', '/swaps', '/people/', '/day-sheets', '/task-list/views');
  // A bell rings for its person alone.
  if (topics.includes('bell') && (people === null || people.includes(me))) soon.push('/bell');
  if (topics.includes('backups')) soon.push('/backups');
  if (topics.includes('runs')) {
    soon.push('/runs');
    later.push('/overview');
  }
  if (topics.includes('schedules')) later.push('/schedules');
  // Dates of a schedule that are not tasks yet stand on day sheets too.
  if (topics.includes('schedules') && !topics.includes('tasks')) later.push('/people/', '/day-sheets');
  if (topics.includes('templates')) later.push('/templates', '/workspace');
  if (load && topics.some((topic) => topic === 'tasks' || topic === 'schedules'))
    later.push(
      '/overview',
      '/task-list',
      '/visits',
      '/notices',
      '/tideline',
      '/team',
      '/workload',
      '/wallchart',
      '/colleagues',
      '/shifts',
      '/clients',
      '/schedules/timed-work',
    );
  return { soon, later };
}
