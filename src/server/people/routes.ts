import type { Rule } from '../http';

/** A way to ask the server: its address, its method, and who may. */
export interface RouteRule {
  path: string;
  method: string;
  rule: Rule;
}

const methods = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE', 'HEAD', 'OPTIONS'] as const;

/**
 * The routes of modules, by the files that they are.
 * @param files addresses under `api/`, each with what its module exports
 * @throws where a method has no rule
 */
export function routesOf(files: readonly { path: string; exports: Readonly<Record<string, unknown>> }[]): RouteRule[] {
  return files
    .flatMap(({ path, exports }) =>
      methods
        .filter((method) => method in exports)
        .map((method): RouteRule => {
          const handler = exports[method];
          if (!hasRule(handler)) throw new Error(`${method} ${path} says not who may ask: make it by route().`);
          return { path, method, rule: handler.rule };
        }),
    )
    .sort((a, b) => a.path.localeCompare(b.path) || a.method.localeCompare(b.method));
}

const hasRule = (handler: unknown): handler is { rule: Rule } => typeof handler === 'function' && 'rule' in handler;

const words: Record<Rule, string> = {
  anyone: 'anyone',
  person: 'who is signed in',
  head: 'owners of the installation',
  reader: 'readers, editors and owners of the project',
  editor: 'editors and owners of the project',
  owner: 'owners of the project',
};

/** The table of all routes, as a page of the documents. */
export const routesPage = (routes: readonly RouteRule[]): string =>
  [
    '# Who may ask what',
    '',
    'Made of the routes themselves by `./run schema`. Where nobody signs in anyone may all.',
    '',
    '| address | method | who |',
    '|---|---|---|',
    ...routes.map(({ path, method, rule }) => `| \`${path}\` | ${method} | ${words[rule]} |`),
    '',
  ].join('\n');
