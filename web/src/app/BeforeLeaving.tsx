/** Asks before a page is left on which something was typed that is not kept yet; the browser asks when its window is closed. */
import { lazy, Suspense, useEffect } from 'react';
import { useBlocker } from 'react-router';
import { somethingUnsaved } from '../base/unsaved.ts';

const StayOrLeave = lazy(() => import('./StayOrLeave.tsx'));

export function BeforeLeaving() {
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) =>
      currentLocation.pathname !== nextLocation.pathname && somethingUnsaved(),
  );
  useEffect(() => {
    const close = (event: BeforeUnloadEvent) => {
      if (somethingUnsaved()) event.preventDefault();
    };
    addEventListener('beforeunload', close);
    return () => removeEventListener('beforeunload', close);
  }, []);
  return blocker.state === 'blocked' ? (
    <Suspense fallback={null}>
      <StayOrLeave onStay={() => blocker.reset()} onLeave={() => blocker.proceed()} />
    </Suspense>
  ) : null;
}
