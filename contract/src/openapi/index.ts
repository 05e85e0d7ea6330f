/** `GET /api/v1/openapi.json`, made from the same schemas that check the requests. */
import { createDocument, type ZodOpenApiOperationObject } from 'zod-openapi';
import { z } from 'zod';
import { benchRoutes } from '../bench/index.ts';
import { conditionRoutes } from '../condition/index.ts';
import type { Route } from '../http/index.ts';
import { intakeRoutes, lotRoutes } from '../intake/index.ts';
import { pieceRoutes } from '../pieces/index.ts';
import { listingRoutes } from '../listing/index.ts';
import { provenanceRoutes } from '../provenance/index.ts';
import { referenceRoutes } from '../reference/index.ts';
import { offerRoutes, channelRoutes, stockRoutes, worthRoutes } from '../worth/index.ts';
import { fairRoutes } from '../fair/index.ts';
import { saleRoutes } from '../sale/index.ts';
import { pricingSettingsRoutes, shopRoutes } from '../shop/index.ts';
import { jobRoutes } from '../jobs/index.ts';
import { marketRoutes } from '../market/index.ts';

export const allRoutes = [
  shopRoutes,
  referenceRoutes,
  pieceRoutes,
  intakeRoutes,
  lotRoutes,
  benchRoutes,
  conditionRoutes,
  marketRoutes,
  jobRoutes,
  worthRoutes,
  provenanceRoutes,
  listingRoutes,
  saleRoutes,
  channelRoutes,
  pricingSettingsRoutes,
  fairRoutes,
  offerRoutes,
  stockRoutes,
].flatMap((room) => Object.values(room) as Route[]);

const problem = z.looseObject({
  type: z.string(),
  title: z.string(),
  status: z.number(),
  detail: z.string().optional(),
  errors: z.array(z.object({ pointer: z.string(), message: z.string() })).optional(),
});

function operation(route: Route): ZodOpenApiOperationObject {
  const writes = route.method !== 'get' && route.method !== 'delete';
  const object = (schema: z.ZodType) => (schema instanceof z.ZodObject ? schema : z.object({}));
  const content =
    route.carries === 'file'
      ? { 'application/octet-stream': { schema: z.string() } }
      : { 'application/json': { schema: route.answer } };
  return {
    summary: route.summary,
    tags: [route.room],
    security: route.access === 'public' ? [] : [{ session: [] }],
    requestParams: { path: object(route.params), query: object(route.query) },
    ...(writes
      ? {
          requestBody: {
            content:
              route.carries === 'upload'
                ? { 'multipart/form-data': { schema: z.looseObject({ file: z.string() }) } }
                : { 'application/json': { schema: route.body } },
          },
        }
      : {}),
    responses: {
      [`${route.status as 200}`]: {
        description: route.summary,
        ...(route.status === 204 ? {} : { content }),
      },
      default: {
        description: 'What went wrong',
        content: { 'application/problem+json': { schema: problem } },
      },
    },
  };
}

export function openApiDocument(version: string): object {
  const paths: Record<string, Record<string, ZodOpenApiOperationObject>> = {};
  for (const route of allRoutes) {
    const path = `/api/v1${route.path.replaceAll(/:(\w+)/g, '{$1}')}`;
    paths[path] = { ...paths[path], [route.method]: operation(route) };
  }
  return createDocument({
    openapi: '3.1.0',
    info: { title: 'Jutbank', version },
    components: { securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'jutbank' } } },
    paths,
  });
}
