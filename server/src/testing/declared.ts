/** Every answer a test receives is held against what its route declares: what is not declared is a fault, too. */
import type { Route } from '@jutbank/contract/http';
import { allRoutes } from '@jutbank/contract/openapi';

const patterns = allRoutes.map((route): { route: Route; pattern: RegExp } => ({
  route,
  pattern: new RegExp(`^${route.path.replaceAll(/:\w+/g, '[^/]+')}$`),
}));

/** Where `told` has something that is not in `declared`, by pointer. */
function undeclared(told: unknown, declared: unknown, at = ''): string[] {
  if (typeof told !== 'object' || told === null || typeof declared !== 'object' || declared === null)
    return [];
  const known = new Map<string, unknown>(Object.entries(declared));
  return Object.entries(told).flatMap(([key, value]) =>
    known.has(key) ? undeclared(value, known.get(key), `${at}/${key}`) : [`${at}/${key}`],
  );
}

/** @throws where an answer is not as the route declares it */
export function checkDeclared(method: string, address: string, body: unknown): void {
  const path = address.split('?')[0] ?? '';
  const route = patterns.find((p) => p.route.method === method.toLowerCase() && p.pattern.test(path))?.route;
  if (!route || route.carries === 'file') return;
  const parsed = route.answer.safeParse(body);
  const wrong = parsed.success
    ? undeclared(body, parsed.data).map((pointer) => `${pointer} is not declared`)
    : parsed.error.issues.map((issue) => `/${issue.path.join('/')}: ${issue.message}`);
  if (wrong.length > 0)
    throw new Error(
      `${method} ${route.path} answers otherwise than declared: ${wrong.slice(0, 8).join('; ')}`,
    );
}
