/** The OpenAPI 3.1 description (spec.openapis.org/oas/v3.1.1) of all routes, generated from their Zod schemas. */
import * as z from 'zod';
import { errorSchema } from './errors';
import { ROUTES, type Route } from './routes';

type Json = Record<string, unknown>;

function jsonSchema(schema: z.ZodType, io: 'input' | 'output'): Json {
  const { $schema: _draft, ...rest } = z.toJSONSchema(schema, { io, unrepresentable: 'any' }) as Json;
  return rest;
}

function parameters(schema: z.ZodType | undefined, place: 'path' | 'query'): Json[] {
  if (!schema) return [];
  const { properties = {}, required = [] } = jsonSchema(schema, 'input') as {
    properties?: Record<string, Json>;
    required?: string[];
  };
  return Object.entries(properties).map(([name, of]) => ({
    name,
    in: place,
    required: place === 'path' || required.includes(name),
    schema: of,
  }));
}

function content(of: Exclude<Route['answer'], undefined> | 'bytes', io: 'input' | 'output'): Json {
  if (of === 'bytes') return { 'application/octet-stream': {} };
  if ('map' in of) return Object.fromEntries(of.map((type) => [type, {}]));
  return { 'application/json': { schema: jsonSchema(of, io) } };
}

export function describeApi(version: string): Json {
  const paths: Record<string, Json> = {};
  for (const [operationId, definition] of Object.entries(ROUTES)) {
    const route: Route = definition;
    const path = route.path.replace(/:(\w+)/g, '{$1}');
    (paths[path] ??= {})[route.method] = {
      operationId,
      summary: route.summary,
      parameters: [...parameters(route.params, 'path'), ...parameters(route.query, 'query')],
      ...(route.body && { requestBody: { required: true, content: content(route.body, 'input') } }),
      responses: {
        [route.status]: {
          description: route.summary,
          ...(route.answer && { content: content(route.answer, 'output') }),
        },
        ...(route.orStatus && {
          [route.orStatus.status]: {
            description: `The same, when ${route.orStatus.when}`,
            ...(route.answer && { content: content(route.answer, 'output') }),
          },
        }),
        ...(route.ranges &&
          route.answer && {
            206: {
              description: 'The part that Range asks for',
              content: content(route.answer, 'output'),
            },
            416: { description: 'Range asks for what is not there' },
          }),
        default: {
          description: 'An error with a stable code',
          content: { 'application/json': { schema: { $ref: '#/components/schemas/Error' } } },
        },
      },
    };
  }
  return {
    openapi: '3.1.1',
    info: { title: 'Wild Needle', version },
    paths,
    components: { schemas: { Error: jsonSchema(errorSchema, 'output') } },
  };
}
