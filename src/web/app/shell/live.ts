import { useEffect, useState } from 'react';
import { LIVE_TOPICS, type Live, STEPS_EVENT } from '../../../contract/live.ts';
import { useRefresh } from '../../kit/answer.ts';
import { isWithoutNet } from '../../kit/kept-answers.ts';
import { tellSteps } from '../../kit/steps.ts';
import { onSessionBegun } from './signed-out.ts';
import { touchedBy } from './touched-by.ts';
import { Unhurried } from './unhurried.ts';

const EVERYTHING: Live = { topics: [...LIVE_TOPICS], tasks: null, people: null, load: true };

/** Listens to the server, so that another browser's work is seen without reloading. */
export function useLiveNews(me: string): void {
  const refresh = useRefresh();
  // A stream that was refused does not come back by itself: it is opened anew with the next session.
  const [sessions, setSessions] = useState(0);
  useEffect(() => onSessionBegun(() => setSessions((count) => count + 1)), []);
  useEffect(() => {
    const asked = new Unhurried((address) => void refresh(address));
    const heard = (news: Live) => {
      const { soon, later } = touchedBy(news, me);
      for (const address of soon) asked.soon(address);
      for (const address of later) asked.later(address);
    };
    const source = new EventSource('/api/events');
    let wasOpen = sessions > 0;
    source.onopen = () => {
      // After an interruption, whatever happened meanwhile was not heard.
      if (wasOpen || isWithoutNet()) heard(EVERYTHING);
      wasOpen = true;
    };
    source.onmessage = async ({ data }) => {
      const schema = await import('../../../contract/live-schema.ts').catch(() => null);
      // Where it can't be loaded, as after a new version, anything may be meant.
      heard(schema === null ? EVERYTHING : schema.liveSchema.parse(JSON.parse(String(data))));
    };
    source.addEventListener(STEPS_EVENT, async ({ data }) => {
      // Where it can't be loaded, the answer tells that it is done.
      const schema = await import('../../../contract/live-schema.ts').catch(() => null);
      if (schema) tellSteps(schema.stepsSchema.parse(JSON.parse(String(data))));
    });
    return () => {
      source.close();
      asked.stop();
    };
  }, [refresh, sessions, me]);
}
