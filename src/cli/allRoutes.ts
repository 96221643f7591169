import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { routesOf, type RouteRule } from '@/server/people/routes';
import { root } from './system';

/** Every route of the server, from its own files. */
export async function allRoutes(): Promise<RouteRule[]> {
  const folder = join(root, 'src/app/api');
  const files = readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((file) => file.endsWith('route.ts'));
  const modules = files.map(async (file) => ({
    path: `/api/${file.replace(/\/?route\.ts$/, '')}`,
    exports: (await import(join(folder, file))) as Record<string, unknown>,
  }));
  return routesOf(await Promise.all(modules));
}
