import { useEffect } from 'react';
import { liveSchema, type Topic } from '../../contract/index.ts';
import { useRefresh } from '../answer.ts';

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
  useEffect(() => {
    const source = new EventSource('/api/events');
    let wasOpen = false;
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
  }, [refresh]);
}
