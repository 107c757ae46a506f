import { useEffect, useState } from 'react';
import { LIVE_TOPICS, type Live, liveSchema } from '../../../contract/index.ts';
import { useRefresh } from '../../kit/answer.ts';
import { onSessionBegun } from './signed-out.ts';
import { Unhurried } from './unhurried.ts';

const EVERYTHING: Live = { topics: [...LIVE_TOPICS], tasks: null, people: null, load: true };

/** Listens to the server, so that another browser's work is seen without reloading. */
export function useLiveNews(): void {
  const refresh = useRefresh();
  // A stream that was refused does not come back by itself: it is opened anew with the next session.
  const [sessions, setSessions] = useState(0);
  useEffect(() => onSessionBegun(() => setSessions((count) => count + 1)), []);
  useEffect(() => {
    const asked = new Unhurried((address) => void refresh(address));
    const heard = (news: Live) => {
      const { soon, later } = touchedBy(news);
      for (const address of soon) asked.soon(address);
      for (const address of later) asked.later(address);
    };
    const source = new EventSource('/api/events');
    let wasOpen = sessions > 0;
    source.onopen = () => {
      // After an interruption, whatever happened meanwhile was not heard.
      if (wasOpen) heard(EVERYTHING);
      wasOpen = true;
    };
    source.onmessage = ({ data }) => heard(liveSchema.parse(JSON.parse(String(data))));
    return () => {
      source.close();
      asked.stop();
    };
  }, [refresh, sessions]);
}

/**
 * Which answers news touches, by the beginning of their addresses: what is looked at in the middle of doing soon, lists
 * and sums of many a little later.
 */
export function touchedBy({ topics, tasks, people, load }: Live): { soon: string[]; later: string[] } {
  const soon: string[] = [];
  const later: string[] = [];
  if (topics.includes('tasks')) {
    soon.push(...(tasks === null ? ['/tasks/'] : tasks.map((id) => `/tasks/${id}`)));
    soon.push(...(people === null ? ['/people/'] : people.map((id) => `/people/${id}/`)));
  }
  if (topics.includes('runs')) soon.push('/runs');
  if (topics.includes('schedules')) later.push('/schedules');
  // Dates of a schedule that are not tasks yet stand on day sheets too.
  if (topics.includes('schedules') && !topics.includes('tasks')) later.push('/people/');
  if (topics.includes('templates')) later.push('/templates', '/workspace');
  if (load && topics.some((topic) => topic === 'tasks' || topic === 'schedules')) later.push('/tideline');
  return { soon, later };
}
