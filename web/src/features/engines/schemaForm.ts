/** What the editor needs of a JSON Schema, and how values are put into a document. */

export interface JsonSchema {
  type?: string | string[];
  title?: string;
  description?: string;
  properties?: Record<string, JsonSchema>;
  required?: string[];
  items?: JsonSchema;
  additionalProperties?: JsonSchema | boolean;
  enum?: string[];
  minimum?: number;
  maximum?: number;
  maxLength?: number;
  minItems?: number;
  'x-words'?: string[];
  'x-unit'?: string;
  'x-one'?: string;
  /** list of the family whose codes this value refers to */
  'x-ref'?: string;
  /** list of the family whose codes are the keys of this map */
  'x-keys'?: string;
}

export type Json = string | number | boolean | null | Json[] | { [key: string]: Json };

export const kindOf = (schema: JsonSchema): string =>
  Array.isArray(schema.type) ? schema.type.find((t) => t !== 'null')! : (schema.type ?? 'object');

export const isOptional = (schema: JsonSchema): boolean =>
  Array.isArray(schema.type) && schema.type.includes('null');

/** A value to begin with, valid as far as a value nobody has thought about can be. */
export function blank(schema: JsonSchema): Json {
  if (isOptional(schema)) return null;
  switch (kindOf(schema)) {
    case 'object':
      return Object.fromEntries(
        Object.entries(schema.properties ?? {}).map(([name, s]) => [name, blank(s)]),
      );
    case 'array':
      return Array.from({ length: schema.minItems ?? 0 }, () => blank(schema.items!));
    case 'string':
      return schema.enum ? schema.enum[0]! : '';
    case 'boolean':
      return false;
    default:
      return Math.max(schema.minimum ?? 0, 0);
  }
}

/** The same for what is taken up although it may be left out. */
export const filled = (schema: JsonSchema): Json => blank({ ...schema, type: kindOf(schema) });

/** `document` with the value at `path` replaced; nothing else is copied that does not have to be. */
export function put(document: Json, path: (string | number)[], value: Json): Json {
  if (path.length === 0) return value;
  const [head, ...rest] = path;
  if (Array.isArray(document)) {
    const copy = [...document];
    copy[head as number] = put(copy[head as number] ?? null, rest, value);
    return copy;
  }
  const object = (document ?? {}) as Record<string, Json>;
  return { ...object, [head as string]: put(object[head as string] ?? null, rest, value) };
}

export const pointer = (path: (string | number)[]) => '/family' + path.map((p) => `/${p}`).join('');

/**
 * Codes that may be referred to: those of a list, wheels of the path included. A list inside another part is written with a
 * dot, several lists with a bar between them.
 */
export function codesOf(family: Json, lists: string): { value: string; label: string }[] {
  const seen = new Map<string, string>();
  for (const list of lists.split('|')) {
    for (const o of listOf(family, list)) {
      const code = String(o.code);
      if (!seen.has(code)) seen.set(code, String(o.name ?? o.title ?? o.code));
    }
  }
  return [...seen].map(([value, label]) => ({ value, label }));
}

function listOf(family: Json, list: string): Record<string, Json>[] {
  const path = list === 'pulleys' ? ['path', 'pulleys'] : list.split('.');
  let at: Json | undefined = family;
  for (const name of path) at = (at as Record<string, Json> | null | undefined)?.[name];
  return (at ?? []) as Record<string, Json>[];
}
