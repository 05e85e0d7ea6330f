/**
 * One key for one intention: a request that was sent but never answered is the same request when it is sent again, so
 * that saving again after a lost answer does not double anything.
 */
const unanswered = new Map<string, string>();

function printOf(body: unknown): string {
  if (!(body instanceof FormData)) return JSON.stringify(body);
  return JSON.stringify(
    [...body].map(([name, value]) =>
      typeof value === 'string' ? [name, value] : [name, value.name, value.size, value.lastModified],
    ),
  );
}

export interface Intention {
  readonly key: string;
  /** it was answered: the same words sent again are meant anew */
  readonly answered: () => void;
}

export function intentionOf(path: string, body: unknown): Intention {
  const print = `${path} ${printOf(body)}`;
  const key = unanswered.get(print) ?? crypto.randomUUID();
  unanswered.set(print, key);
  return {
    key,
    answered: () => {
      if (unanswered.get(print) === key) unanswered.delete(print);
    },
  };
}
