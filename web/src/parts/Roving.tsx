/** A group of buttons that is one stop of the Tab key; arrows go from one to the next, as in any toolbar. */
import { useLayoutEffect, useRef, type ComponentProps, type KeyboardEvent } from 'react';

const ITEMS = 'button:not(:disabled), a[href], [role="button"]';
const STEPS: Readonly<Record<string, number>> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };

export function Roving({ children, ...group }: ComponentProps<'div'>) {
  const box = useRef<HTMLDivElement>(null);
  const last = useRef<Element>(undefined);
  const items = () => [...(box.current?.querySelectorAll<HTMLElement>(ITEMS) ?? [])];
  // what is pressed is where one enters; else where one was; else the first
  useLayoutEffect(() => {
    const all = items();
    const entry =
      all.find((item) => item === last.current) ??
      all.find((item) => item.matches('[aria-pressed="true"], [aria-current]')) ??
      all[0];
    for (const item of all) item.tabIndex = item === entry ? 0 : -1;
  });
  const step = (e: KeyboardEvent) => {
    const all = items();
    const at = all.findIndex((item) => item === e.target);
    const by = STEPS[e.key];
    const next =
      e.key === 'Home'
        ? all[0]
        : e.key === 'End'
          ? all.at(-1)
          : by === undefined
            ? undefined
            : all[(at + by + all.length) % all.length];
    if (at < 0 || !next || e.ctrlKey || e.metaKey || e.altKey) return;
    // the arrows go along the group here, and nowhere else
    e.preventDefault();
    e.stopPropagation();
    for (const item of all) item.tabIndex = item === next ? 0 : -1;
    next.focus();
  };
  return (
    <div
      {...group}
      ref={box}
      onKeyDown={step}
      onFocus={(e) => {
        last.current = e.target;
      }}
    >
      {children}
    </div>
  );
}
