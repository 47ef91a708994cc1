/** What is read of an OpenAPI document to show it: the parts this API uses. */

export interface Schema {
	$ref?: string;
	type?: string;
	const?: unknown;
	enum?: unknown[];
	format?: string;
	pattern?: string;
	description?: string;
	items?: Schema;
	anyOf?: Schema[];
	oneOf?: Schema[];
	prefixItems?: Schema[];
	additionalProperties?: Schema | boolean;
	properties?: Record<string, Schema>;
	required?: string[];
	default?: unknown;
	minimum?: number;
	maximum?: number;
	exclusiveMinimum?: number;
	exclusiveMaximum?: number;
	minLength?: number;
	maxLength?: number;
	minItems?: number;
	maxItems?: number;
	examples?: unknown[];
}

/** A body of one type: its shape, and one worked example. */
export interface Body {
	schema?: Schema;
	example?: unknown;
}

type Content = Record<string, Body>;

export interface Operation {
	summary: string;
	description?: string;
	tags?: string[];
	parameters?: {
		name: string;
		in: string;
		required?: boolean;
		description?: string;
		schema: Schema;
	}[];
	requestBody?: { content: Content };
	responses: Record<string, { description: string; content?: Content }>;
}

export interface Document {
	paths: Record<string, Record<string, Operation>>;
	components: { schemas: Record<string, Schema> };
}

export interface Listed {
	method: string;
	path: string;
	operation: Operation;
}

/** The operations by their first tag, in the order of the document. */
export function grouped(document: Document, words: string): [string, Listed[]][] {
	const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
	const groups = new Map<string, Listed[]>();
	for (const [path, methods] of Object.entries(document.paths)) {
		for (const [method, operation] of Object.entries(methods)) {
			const text = `${method} ${path} ${operation.summary}`.toLowerCase();
			if (!wanted.every((word) => text.includes(word))) continue;
			const tag = operation.tags?.[0] ?? 'server';
			groups.set(tag, [...(groups.get(tag) ?? []), { method: method.toUpperCase(), path, operation }]);
		}
	}
	return [...groups];
}

/** The name of the model a schema stands for, through lists and nulls; null where it is none. */
export function modelOf(schema: Schema): string | null {
	if (schema.$ref) return schema.$ref.split('/').at(-1) ?? null;
	if (schema.items) return modelOf(schema.items);
	const ways = (schema.anyOf ?? schema.oneOf ?? []).map(modelOf).filter((name) => name !== null);
	return ways.length === 1 ? (ways[0] ?? null) : null;
}

/** A schema in a few words: its type, its choices, its range. */
export function typeOf(schema: Schema): string {
	if (schema.$ref) return schema.$ref.split('/').at(-1) ?? '';
	if (schema.const !== undefined) return JSON.stringify(schema.const);
	if (schema.enum) return schema.enum.map((value) => JSON.stringify(value)).join(' | ');
	const ways = schema.anyOf ?? schema.oneOf;
	if (ways) return ways.map(typeOf).join(' | ');
	if (schema.type === 'array')
		return `list of ${schema.items ? typeOf(schema.items) : (schema.prefixItems ?? []).map(typeOf).join(', ')}`;
	if (schema.type === 'object' && typeof schema.additionalProperties === 'object')
		return `object of ${typeOf(schema.additionalProperties)}`;
	return `${schema.format ?? schema.type ?? 'any'}${rangeOf(schema)}`;
}

function rangeOf(schema: Schema): string {
	const low = schema.minimum ?? schema.exclusiveMinimum;
	const high = schema.maximum ?? schema.exclusiveMaximum;
	const parts = [
		low !== undefined ? `${schema.minimum === undefined ? 'above' : 'from'} ${low}` : '',
		high !== undefined ? `${schema.maximum === undefined ? 'below' : 'to'} ${high}` : '',
		schema.maxLength ? `up to ${schema.maxLength} characters` : ''
	].filter(Boolean);
	return parts.length ? ` (${parts.join(' ')})` : '';
}
