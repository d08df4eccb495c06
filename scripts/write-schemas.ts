/** Writes the published JSON Schemas: `npm run schemas`. A test says whether they are current. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { z } from 'zod';
import { catalogueSchema } from '../src/core/catalogue/schema';
import { workspaceSchema } from '../src/core/estate/schema';
import { planFileSchema } from '../src/core/exchange/plan-file-schema';

export const SCHEMA_FOLDER = 'static/schemas';

/** File name to JSON Schema text. */
export function schemaFiles(): ReadonlyMap<string, string> {
  const schemas = {
    'catalogue-3': catalogueSchema,
    'workspace-7': workspaceSchema,
    'plan-4': planFileSchema
  };
  return new Map(
    Object.entries(schemas).map(([name, schema]) => [
      `${name}.schema.json`,
      JSON.stringify({ title: `Orange Stair ${name}`, ...z.toJSONSchema(schema, { io: 'input' }) }, null, 1) +
        '\n'
    ])
  );
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  mkdirSync(SCHEMA_FOLDER, { recursive: true });
  for (const [name, text] of schemaFiles()) writeFileSync(`${SCHEMA_FOLDER}/${name}`, text);
}
