import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { answerPlan } from '../../src/lib/server/answer-plan';
import { readAsked } from '../../src/lib/server/machines/request';

interface Operation {
  readonly operationId: string;
  readonly responses: Readonly<Record<string, unknown>>;
  readonly requestBody?: {
    readonly content: {
      readonly 'application/json': { readonly examples?: Readonly<Record<string, { value: unknown }>> };
    };
  };
}
const text = readFileSync('static/openapi.json', 'utf8');
const described = JSON.parse(text) as {
  paths: Record<string, Record<string, Operation>>;
  components: { schemas: Record<string, { properties: Record<string, { enum?: string[] }> }> };
};
const METHODS = ['get', 'post', 'put', 'delete', 'patch'];

/** What the routes answer to, read off their sources. */
function routes(folder = 'src/routes/api', path = '/api'): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const at = join(folder, entry.name);
    if (entry.isDirectory()) return routes(at, `${path}/${entry.name.replace(/^\[(.*)\]$/, '{$1}')}`);
    const names = [...readFileSync(at, 'utf8').matchAll(/^export const ([A-Z]+)\b/gm)].map((m) =>
      m[1]?.toLowerCase()
    );
    return names.map((name) => `${name} ${path}`);
  });
}

test('every route is described, with every method, and nothing else is', () => {
  const said = Object.entries(described.paths).flatMap(([path, at]) =>
    Object.keys(at)
      .filter((k) => METHODS.includes(k))
      .map((method) => `${method} ${path}`)
  );
  expect(said.sort()).toEqual(routes().sort());
  const ids = Object.values(described.paths).flatMap((at) =>
    METHODS.flatMap((m) => at[m]?.operationId ?? [])
  );
  expect(new Set(ids).size).toBe(ids.length);
});

test('what it points at is there', () => {
  for (const [, ref] of text.matchAll(/"\$ref": "([^"]+)"/g)) {
    const name = /^#\/components\/schemas\/(\w+)$/.exec(ref ?? '')?.[1];
    expect(name === undefined ? existsSync(`static/${ref}`) : name in described.components.schemas, ref).toBe(
      true
    );
  }
});

test('its examples of asking are requests, and a plan is made in every format it names', () => {
  const body = described.paths['/api/ask']?.['post']?.requestBody?.content['application/json'];
  for (const [name, { value }] of Object.entries(body?.examples ?? {}))
    expect(readAsked(JSON.stringify(value)), name).toEqual(value);
  const catalogue = readFileSync('demo/catalogue.yaml', 'utf8');
  const ask = (format: string): number =>
    answerPlan({
      bytes: new TextEncoder().encode(
        JSON.stringify({ catalogue, estate: { systems: [] }, today: '2031-03-10', format })
      ),
      today: '2031-03-10'
    }).status;
  const formats = described.components.schemas['PlanRequest']?.properties['format']?.enum ?? [];
  expect(formats.map(ask)).toEqual(formats.map(() => 200));
  expect(ask('another')).toBe(400);
});
