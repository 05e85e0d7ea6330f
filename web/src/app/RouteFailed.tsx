import { useRouteError } from 'react-router';
import { Failed } from '../base/states.tsx';

/** The boundary of every screen: what breaks inside one does not take the rest along. */
export function RouteFailed() {
  const error = useRouteError();
  return <Failed error={error} retry={() => location.reload()} />;
}
