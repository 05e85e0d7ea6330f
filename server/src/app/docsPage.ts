/** The description of the routes for people: one page without a script, made from the document that programs read. */
import type { ZodOpenApiOperationObject } from 'zod-openapi';

export interface Described {
  readonly info: { readonly title: string; readonly version: string };
  readonly tags: readonly { readonly name: string }[];
  readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
  readonly components?: { readonly schemas?: Readonly<Record<string, unknown>> };
}
type Operation = Pick<ZodOpenApiOperationObject, 'operationId' | 'summary' | 'tags'> & {
  readonly parameters?: readonly { name: string; in: string; required?: boolean; description?: string }[];
  readonly requestBody?: { readonly content: Readonly<Record<string, { schema?: unknown }>> };
  readonly responses: Readonly<Record<string, { content?: Readonly<Record<string, { schema?: unknown }>> }>>;
};

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
const json = (value: unknown): string => escaped(JSON.stringify(value, null, 2));
const folded = (title: string, value: unknown): string =>
  value === undefined ? '' : `<details><summary>${title}</summary><pre>${json(value)}</pre></details>`;

function operation(path: string, method: string, o: Operation): string {
  const parameters = (o.parameters ?? []).map(
    (p) =>
      `<li><code>${escaped(p.name)}</code> <i>${p.in}${p.required ? ', required' : ''}</i> ${escaped(p.description ?? '')}</li>`,
  );
  const [type, body] = Object.entries(o.requestBody?.content ?? {})[0] ?? [];
  const answers = Object.entries(o.responses).map(([status, response]) =>
    folded(`Answer ${status}`, Object.values(response.content ?? {})[0]?.schema),
  );
  return `<article id="${escaped(o.operationId ?? '')}"><h3><b>${method.toUpperCase()}</b> <code>${escaped(path)}</code></h3>
<p>${escaped(o.summary ?? '')} <small>${escaped(o.operationId ?? '')}</small></p>
${parameters.length > 0 ? `<ul>${parameters.join('')}</ul>` : ''}${folded(`Body ${type ?? ''}`, body?.schema)}${answers.join('')}</article>`;
}

/** @param nonce of the page's style, for the content security policy */
export function docsPage(document: Described, nonce: string): string {
  const of = (tag: string) =>
    Object.entries(document.paths).flatMap(([path, methods]) =>
      Object.entries(methods).flatMap(([method, o]) =>
        o.tags?.includes(tag) ? [operation(path, method, o)] : [],
      ),
    );
  const rooms = document.tags.map(({ name }) => ({ name, operations: of(name) }));
  const schemas = Object.entries(document.components?.schemas ?? {}).map(([name, schema]) =>
    folded(escaped(name), schema),
  );
  return `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>${escaped(document.info.title)}: routes</title>
<style nonce="${nonce}">body{font:15px/1.5 system-ui,sans-serif;max-width:60rem;margin:2rem auto;padding:0 1rem;color:#22262a;background:#f6f3ec}
h2{border-bottom:1px solid #a79f8d;text-transform:capitalize;margin-top:2.5rem}h3{font-weight:400;margin-bottom:0}article{margin:1.2rem 0}p{margin:.2rem 0}
small,i{color:#5a5f63}pre{overflow:auto;max-height:30rem;background:#fffdf8;padding:.8rem;border:1px solid #d8d1c2}nav a{margin-right:1rem;text-transform:capitalize}summary{cursor:pointer}</style>
<h1>${escaped(document.info.title)} <small>${escaped(document.info.version)}</small></h1>
<p>Every route as the server checks it. For programs: <a href="/api/v1/openapi.json">openapi.json</a>.</p>
<nav>${rooms.map((r) => `<a href="#room-${r.name}">${r.name}</a>`).join('')}<a href="#schemas">Shapes</a></nav>
${rooms.map((r) => `<section><h2 id="room-${r.name}">${r.name}</h2>${r.operations.join('')}</section>`).join('')}
<section><h2 id="schemas">Shapes</h2>${schemas.join('')}</section></html>`;
}
