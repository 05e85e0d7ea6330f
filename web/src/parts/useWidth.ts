import { useEffect, useRef, useState, type RefObject } from 'react';

/** The width that a box has, px, at most so many; that much too where nothing can tell. */
export function useWidth<T extends HTMLElement>(most: number): [RefObject<T | null>, number] {
  const box = useRef<T>(null);
  const [width, setWidth] = useState(most);
  useEffect(() => {
    const element = box.current;
    if (!element || typeof ResizeObserver === 'undefined') return;
    const observer = new ResizeObserver(([entry]) => {
      if (entry) setWidth(Math.max(120, Math.min(most, Math.floor(entry.contentRect.width))));
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [most]);
  return [box, width];
}
