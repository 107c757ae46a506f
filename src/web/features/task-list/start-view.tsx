import { useEffect } from 'react';
import { sayDone } from '../../app/shell/toast.tsx';
import { GoOn } from '../../kit/go-on.tsx';
import { Skeleton } from '../../kit/states.tsx';
import { useViews } from './api.ts';
import { searchOfView } from './task-filter.tsx';

interface StartViewProps {
  readonly viewId: string;
  /** Where to go when it is kept no longer, or can't be had. */
  readonly usual: string;
}

/** Begins with a view of tasks. */
export default function StartView({ viewId, usual }: StartViewProps) {
  const { data, error } = useViews();
  const view = data?.views.find(({ id }) => id === viewId);
  const isGone = data !== undefined && view === undefined;
  useEffect(() => {
    if (isGone) sayDone('The view you begin with is kept no longer: choose another place under your name.');
  }, [isGone]);
  if (!data && !error) return <Skeleton rows={10} />;
  return <GoOn to={view ? `/tasks?${searchOfView(view)}` : usual} />;
}
