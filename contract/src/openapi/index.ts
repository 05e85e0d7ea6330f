/** `GET /api/v1/openapi.json`, made from the same schemas that check the requests. */
import { createDocument, type ZodOpenApiOperationObject } from 'zod-openapi';
import { z } from 'zod';
import { benchRoutes } from '../bench/index.ts';
import { conditionRoutes } from '../condition/index.ts';
import { contactRoutes } from '../contacts/index.ts';
import { inventoryRoutes } from '../inventory/index.ts';
import { problemShape, type Route } from '../http/index.ts';
import { intakeRoutes, lotRoutes, stockListRoutes } from '../intake/index.ts';
import { pieceRoutes } from '../pieces/index.ts';
import { listingRoutes } from '../listing/index.ts';
import { documentRoutes, provenanceRoutes } from '../provenance/index.ts';
import { referenceRoutes } from '../reference/index.ts';
import { offerRoutes, channelRoutes, stockRoutes, worthRoutes } from '../worth/index.ts';
import { fairRoutes } from '../fair/index.ts';
import { afterSaleRoutes, saleRoutes } from '../sale/index.ts';
import { paperSettingsRoutes, pricingSettingsRoutes, shopRoutes } from '../shop/index.ts';
import { jobRoutes } from '../jobs/index.ts';
import { archiveRoutes } from '../archive/index.ts';
import { seriesRoutes } from '../series/index.ts';
import { trainingRoutes } from '../training/index.ts';
import { marketRoutes } from '../market/index.ts';

const rooms = [
  shopRoutes,
  referenceRoutes,
  pieceRoutes,
  intakeRoutes,
  lotRoutes,
  stockListRoutes,
  benchRoutes,
  conditionRoutes,
  marketRoutes,
  jobRoutes,
  worthRoutes,
  provenanceRoutes,
  documentRoutes,
  listingRoutes,
  saleRoutes,
  channelRoutes,
  pricingSettingsRoutes,
  paperSettingsRoutes,
  contactRoutes,
  inventoryRoutes,
  afterSaleRoutes,
  fairRoutes,
  offerRoutes,
  stockRoutes,
  seriesRoutes,
  trainingRoutes,
  archiveRoutes,
];
const named = rooms.flatMap((room) => Object.entries(room) as [string, Route][]);
export const allRoutes = named.map(([, route]) => route);

const IF_MATCH = z.string().meta({
  description:
    'The version that was seen, as its ETag tells it; 428 where it is missing, 412 where another came before.',
  example: '"v3"',
});
const IDEMPOTENCY_KEY = z.string().max(200).meta({
  description: 'Of one intention: sent again with the same key it is done once and answered the same.',
});

/** @param name of the route, the same in the contract and in the description */
function operation(name: string, route: Route): ZodOpenApiOperationObject {
  const writes = route.method !== 'get' && route.method !== 'delete';
  const headers = z.object({
    ...(route.method === 'post' || route.method === 'put'
      ? { 'Idempotency-Key': IDEMPOTENCY_KEY.optional() }
      : {}),
    ...(route.method === 'put' || route.method === 'delete' ? { 'If-Match': IF_MATCH.optional() } : {}),
  });
  const object = (schema: z.ZodType) => (schema instanceof z.ZodObject ? schema : z.object({}));
  const content =
    route.carries === 'file'
      ? { 'application/octet-stream': { schema: z.string() } }
      : { 'application/json': { schema: route.answer } };
  return {
    operationId: name,
    summary: route.summary,
    tags: [route.room],
    security: route.access === 'public' ? [] : [{ session: [] }],
    requestParams: { path: object(route.params), query: object(route.query), header: headers },
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
        content: { 'application/problem+json': { schema: problemShape } },
      },
    },
  };
}

export function openApiDocument(version: string): object {
  const paths: Record<string, Record<string, ZodOpenApiOperationObject>> = {};
  for (const [name, route] of named) {
    const path = `/api/v1${route.path.replaceAll(/:(\w+)/g, '{$1}')}`;
    paths[path] = { ...paths[path], [route.method]: operation(name, route) };
  }
  return createDocument({
    openapi: '3.1.0',
    info: { title: 'Jutbank', version },
    components: { securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'jutbank' } } },
    tags: [...new Set(allRoutes.map((route) => route.room))].map((name) => ({ name })),
    paths,
  });
}
