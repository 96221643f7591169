import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { toJsonSchema } from '@valibot/to-json-schema';
import { modelSchema } from '@/core/handover/model/schema';
import { routesPage } from '@/server/people/routes';
import { allRoutes } from './allRoutes';
import { root } from './system';

/** The JSON Schema of model.json, made from the schema that the program itself checks with. */
export const modelJsonSchema = (): string =>
  `${JSON.stringify({ title: 'Zircon Frame model, version 1', ...toJsonSchema(modelSchema) }, null, 2)}\n`;

/** `./run schema` */
export async function schema(): Promise<number> {
  writeFileSync(join(root, 'docs/model.schema.json'), modelJsonSchema());
  writeFileSync(join(root, 'docs/routes.md'), routesPage(await allRoutes()));
  return 0;
}
