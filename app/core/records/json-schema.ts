import type Joi from "joi";
import { RECORD_KINDS } from "~/core/crew";
import { schemaOf } from "./kinds";

type Json = Readonly<Record<string, unknown>>;
/** The parts of a schema's own description that are read here. */
interface Described {
  readonly type: string;
  readonly flags?: {
    readonly label?: string;
    readonly description?: string;
    readonly presence?: string;
    readonly unit?: string;
    readonly only?: boolean;
  };
  readonly allow?: readonly unknown[];
  readonly rules?: readonly { readonly name: string; readonly args?: { readonly limit?: unknown } }[];
  readonly keys?: Readonly<Record<string, Described>>;
  readonly patterns?: readonly { readonly rule: Described }[];
  readonly items?: readonly Described[];
  readonly ordered?: readonly Described[];
  readonly metas?: readonly { readonly format?: string }[];
  readonly matches?: readonly { readonly schema: Described }[];
}

const LIMITS: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  number: { min: "minimum", max: "maximum", greater: "exclusiveMinimum", less: "exclusiveMaximum" },
  string: { min: "minLength", max: "maxLength", length: "minLength" },
  array: { min: "minItems", max: "maxItems" },
};

/** The limits of a schema as JSON Schema writes them; a limit by another field cannot be said there and is left out. */
function limitsOf(d: Described): Json {
  const found: Record<string, unknown> = {};
  for (const rule of d.rules ?? []) {
    const limit = rule.args?.limit;
    const word = LIMITS[d.type]?.[rule.name];
    if (word && typeof limit === "number") found[word] = limit;
    if (d.type === "array" && rule.name === "length") found["minItems"] = found["maxItems"] = limit;
  }
  return found;
}

function typeOf(d: Described): string {
  const isWhole = d.rules?.some((r) => r.name === "integer") ?? false;
  return d.type === "number" && isWhole ? "integer" : d.type;
}

function shapeOf(d: Described): Json {
  if (d.flags?.only) return { enum: d.allow?.map((v) => v) };
  if (d.matches) return { anyOf: d.matches.map(({ schema }) => jsonSchemaOf(schema)) };
  const isNullable = d.allow?.includes(null) ?? false;
  const inner: Record<string, unknown> = { type: isNullable ? [typeOf(d), "null"] : typeOf(d), ...limitsOf(d) };
  if (d.metas?.[0]?.format) inner["format"] = d.metas[0].format;
  if (d.keys) {
    const keys = Object.entries(d.keys);
    inner["properties"] = Object.fromEntries(keys.map(([key, value]) => [key, jsonSchemaOf(value)]));
    inner["required"] = keys.filter(([, value]) => value.flags?.presence !== "optional").map(([key]) => key);
  }
  if (d.patterns?.[0]) inner["additionalProperties"] = jsonSchemaOf(d.patterns[0].rule);
  if (d.ordered) inner["prefixItems"] = d.ordered.map(jsonSchemaOf);
  if (d.items?.[0]) inner["items"] = jsonSchemaOf(d.items[0]);
  return inner;
}

function jsonSchemaOf(d: Described): Json {
  const { label, description, unit } = d.flags ?? {};
  return {
    ...(label ? { title: label } : {}),
    ...(unit ? { "x-unit": unit } : {}),
    ...(description ? { description } : {}),
    ...shapeOf(d),
  };
}

const describe = (schema: Joi.Schema): Described => schema.describe() as unknown as Described;

/** The published JSON Schema (draft 2020-12) of a bundle, with the data of every kind spelled out. */
export function bundleSchema(): Json {
  const rev = { $ref: "#/$defs/rev" };
  return {
    $schema: "https://json-schema.org/draft/2020-12/schema",
    $id: "zenithar-bundle-1",
    title: "Zenithar bundle, version 1",
    type: "object",
    required: ["format", "version", "scope", "exportedAt", "records"],
    properties: {
      format: { const: "zenithar-bundle" },
      version: { const: 1 },
      scope: { enum: ["project", "everything"] },
      exportedAt: { type: "string", format: "date-time" },
      records: { type: "array", items: { $ref: "#/$defs/record" } },
      unread: { type: "array", description: "Things that were stored and do not read, as they are." },
    },
    $defs: {
      rev: { type: "string", pattern: "^[0-9a-z]{9}\\.[0-9a-z]{4}\\.[0-9A-Za-z-]+$" },
      record: {
        type: "object",
        required: ["id", "kind", "rev", "author", "seen", "data"],
        properties: {
          id: { type: "string", minLength: 1, maxLength: 120 },
          kind: { enum: [...RECORD_KINDS] },
          rev,
          author: { type: "string", minLength: 1, maxLength: 120 },
          seen: { type: "object", additionalProperties: rev },
          v: { type: "integer", minimum: 1, description: "Version of the data; absent = 1." },
          deletedAt: { type: "number", description: "Set on a tombstone; its data is not looked at." },
          data: { type: "object" },
        },
        // A live record of the version written here; earlier ones are brought to it when they are read.
        allOf: RECORD_KINDS.map((kind) => {
          const { version } = schemaOf(kind);
          const written = version > 1 ? { v: { const: version } } : {};
          return {
            if: {
              properties: { kind: { const: kind }, ...written },
              required: ["kind", ...Object.keys(written)],
              not: { required: ["deletedAt"] },
            },
            then: { properties: { data: { $ref: `#/$defs/${kind}` } } },
          };
        }),
      },
      ...Object.fromEntries(RECORD_KINDS.map((kind) => [kind, jsonSchemaOf(describe(schemaOf(kind).schema))])),
    },
  };
}
