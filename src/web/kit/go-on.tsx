import { useLayoutEffect } from 'react';
import { type To, useLocation, useNavigate } from 'react-router';

interface GoOnProps {
  readonly to: To;
  readonly state?: unknown;
}

/**
 * Goes on to another address in place of this one. At once with the page that is drawn, before anybody can press
 * anything on it: the router's own way waits, and takes whoever has pressed a link meanwhile away from it again. Whoever
 * is on the way elsewhere already stays on it.
 */
export function GoOn({ to, state }: GoOnProps) {
  const navigate = useNavigate();
  const { pathname } = useLocation();
  // An effect of each drawing: what is decided is whether this address is still the one that is shown.
  useLayoutEffect(() => {
    if (window.location.pathname === pathname) void navigate(to, { replace: true, state });
  });
  return null;
}
