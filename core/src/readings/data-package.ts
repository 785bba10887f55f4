import { z } from 'zod';
import type { ColumnKind } from './kind.js';

/**
 * The descriptor of a tabular data package, an open standard (Data Package, Table Schema, CSV Dialect): what of it Verdict writes and
 * reads. Kinds, units, resolutions and targets have no word in the standard; they stand beside its own as further properties, which it allows.
 */
const fieldSchema = z.looseObject({
  name: z.string(),
  title: z.string().optional(),
  type: z.string().optional(),
  unit: z.string().optional(),
  kind: z.enum(['measure', 'label', 'count']).optional().catch(undefined),
  decimalChar: z.string().optional(),
  groupChar: z.string().optional(),
  resolution: z.number().positive().optional().catch(undefined),
  target: z.number().optional().catch(undefined),
  constraints: z
    .looseObject({ minimum: z.coerce.number().optional(), maximum: z.coerce.number().optional() })
    .optional()
    .catch(undefined),
});
const resourceSchema = z.looseObject({
  name: z.string().optional(),
  path: z.string().optional(),
  encoding: z.string().optional(),
  dialect: z
    .looseObject({ delimiter: z.string().optional(), header: z.boolean().optional() })
    .optional()
    .catch(undefined),
  schema: z.looseObject({ fields: z.array(fieldSchema) }).optional(),
});
const descriptorSchema = z.looseObject({ title: z.string().optional(), resources: z.array(resourceSchema).min(1) });

export type PackageField = z.infer<typeof fieldSchema>;
export type PackageResource = z.infer<typeof resourceSchema>;

/** The resources of a descriptor, or why it cannot be read. */
export function readDescriptor(text: string): { resources: PackageResource[] } | { message: string } {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return { message: 'datapackage.json is not valid JSON.' };
  }
  const read = descriptorSchema.safeParse(value);
  if (read.success) return { resources: read.data.resources };
  const [issue] = read.error.issues;
  return { message: `datapackage.json: ${issue?.path.join('.')}: ${issue?.message}` };
}

export interface PackageColumn {
  name: string;
  unit: string;
  kind: ColumnKind;
  decimal: 'point' | 'comma';
  resolution: number | null;
  lowerLimit: number | null;
  target: number | null;
  upperLimit: number | null;
  /** What the column is made from, in words, where it is derived. */
  about: string | null;
}

function fieldOf(column: PackageColumn): PackageField {
  const { lowerLimit, upperLimit, resolution, target, about } = column;
  // Limits are what a reading should keep, not what a file may hold: as constraints they would condemn every reading outside.
  return {
    name: column.name,
    type: column.kind === 'label' ? 'string' : 'number',
    kind: column.kind,
    ...(column.unit ? { unit: column.unit } : {}),
    ...(column.decimal === 'comma' ? { decimalChar: ',' } : {}),
    ...(resolution === null ? {} : { resolution }),
    ...(lowerLimit === null ? {} : { lowerLimit }),
    ...(target === null ? {} : { target }),
    ...(upperLimit === null ? {} : { upperLimit }),
    ...(about === null ? {} : { description: about }),
  };
}

/** The descriptor of one table in one CSV file. */
export function descriptorOf(title: string, path: string, columns: readonly PackageColumn[]): string {
  const name = path
    .replace(/\.csv$/, '')
    .toLowerCase()
    .replace(/[^a-z0-9._-]+/g, '-');
  const resource = {
    name,
    path,
    profile: 'tabular-data-resource',
    format: 'csv',
    mediatype: 'text/csv',
    encoding: 'utf-8',
    dialect: { delimiter: ',', lineTerminator: '\r\n', quoteChar: '"', doubleQuote: true, header: true },
    schema: { fields: columns.map(fieldOf), missingValues: ['', 'n/a', '-'] },
  };
  return JSON.stringify({ profile: 'tabular-data-package', name, title, resources: [resource] }, null, 2) + '\n';
}

const figure = (value: unknown): number | null => (typeof value === 'number' && Number.isFinite(value) ? value : null);

/** What a field of a descriptor says about a column. Limits come from Verdict's own properties or from the standard's constraints. */
export function columnOfField(field: PackageField): Partial<PackageColumn> {
  return {
    ...(field.unit ? { unit: field.unit } : {}),
    ...(field.kind ? { kind: field.kind } : field.type === 'string' ? { kind: 'label' as const } : {}),
    decimal: field.decimalChar === ',' ? 'comma' : 'point',
    resolution: figure(field.resolution),
    lowerLimit: figure(field.lowerLimit) ?? figure(field.constraints?.minimum),
    target: figure(field.target),
    upperLimit: figure(field.upperLimit) ?? figure(field.constraints?.maximum),
  };
}
