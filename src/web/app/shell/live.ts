import { useEffect, useState } from 'react';
import { liveSchema, type Topic } from '../../../contract/index.ts';
import { useRefresh } from '../../kit/answer.ts';
import { onSessionBegun } from './signed-out.ts';

/** Which answers each kind of news touches, by the beginning of their addresses. */
const TOUCHED: Record<Topic, readonly string[]> = {
  tasks: ['/people/', '/tideline', '/tasks/'],
  schedules: ['/schedules', '/tideline', '/people/'],
  templates: ['/templates', '/workspace'],
  runs: ['/runs'],
};

/** Listens to the server, so that another browser's work is seen without reloading. */
export function useLiveNews(): void {
  const refresh = useRefresh();
  // A stream that was refused does not come back by itself: it is opened anew with the next session.
  const [sessions, setSessions] = useState(0);
  useEffect(() => onSessionBegun(() => setSessions((count) => count + 1)), []);
  useEffect(() => {
    const source = new EventSource('/api/events');
    let wasOpen = sessions > 0;
    source.onopen = () => {
      // After an interruption, whatever happened meanwhile was not heard.
      if (wasOpen) void refresh(...Object.values(TOUCHED).flat());
      wasOpen = true;
    };
    source.onmessage = ({ data }) => {
      const { topics } = liveSchema.parse(JSON.parse(String(data)));
      void refresh(...topics.flatMap((topic) => TOUCHED[topic]));
    };
    return () => source.close();
  }, [refresh, sessions]);
}
