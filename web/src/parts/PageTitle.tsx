/** A page's heading. It names the window too: what the tabs, the history and a screen reader tell pages apart by. */
import { useEffect, type CSSProperties, type ReactNode } from 'react';

export function PageTitle({
  children,
  name,
  ...look
}: {
  children: ReactNode;
  /** what the window is called where that is more than the heading says */
  name?: string;
  className?: string;
  style?: CSSProperties;
}) {
  const title = name ?? (typeof children === 'string' ? children : undefined);
  useEffect(() => {
    document.title = title === undefined || title === '' ? 'Jutbank' : `${title} · Jutbank`;
  }, [title]);
  return <h1 {...look}>{children}</h1>;
}
