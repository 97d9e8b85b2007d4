/**
 * Answers held against the OpenAPI document that the server itself hands out: status, media type, and the body by its JSON
 * Schema (draft 2020-12, as OpenAPI 3.1 has it), checked by Ajv.
 */
import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js';
import formats, { type FormatsPlugin } from 'ajv-formats';
import { describeApi } from '@wild-needle/contract';

interface Content {
  readonly content?: Readonly<Record<string, { readonly schema?: object }>>;
}
interface Operation {
  readonly responses: Readonly<Record<string, Content>>;
}
interface Description {
  readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
  readonly components: object;
}

const API = describeApi('test') as unknown as Description;
const ajv = new Ajv2020({ strict: false, allErrors: false });
// Its default export is a module of CommonJS with a default of its own.
const addFormats = (formats as unknown as { default: FormatsPlugin }).default;
addFormats(ajv);

const OPERATIONS = Object.entries(API.paths).flatMap(([path, methods]) =>
  Object.entries(methods).map(([method, operation]) => ({
    method,
    pattern: new RegExp(`^${path.replace(/\{\w+\}/g, '[^/]+')}$`),
    operation,
  })),
);
/** An address that the document does not know is answered with its error. */
const UNKNOWN: Operation = {
  responses: {
    default: { content: { 'application/json': { schema: { $ref: '#/components/schemas/Error' } } } },
  },
};
const validators = new Map<object, ValidateFunction>();

function validatorOf(schema: object): ValidateFunction {
  const known = validators.get(schema) ?? ajv.compile({ ...schema, components: API.components });
  validators.set(schema, known);
  return known;
}

/** What is wrong with an answer; null when it is as described. `body` is null for what is no JSON. */
export function findUndescribed(
  method: string,
  path: string,
  answer: Response,
  body: unknown,
): string | null {
  const { operation } = OPERATIONS.find((o) => o.method === method && o.pattern.test(path)) ?? {
    operation: UNKNOWN,
  };
  const response = operation.responses[answer.status] ?? operation.responses['default'];
  if (response === operation.responses['default'] && answer.status < 400)
    return 'this status is not described';
  const type = answer.headers.get('content-type')?.split(';')[0] ?? null;
  if (!response.content) return type === null ? null : `${type} where nothing is described`;
  const described = response.content[type ?? ''];
  if (!described) return `${type} is not described`;
  if (!described.schema) return null;
  const validate = validatorOf(described.schema);
  return validate(body) ? null : ajv.errorsText(validate.errors);
}
