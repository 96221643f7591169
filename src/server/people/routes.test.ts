import { readFileSync } from 'node:fs';
import { allRoutes } from '@/cli/allRoutes';
import { route } from '../http';
import { routesOf, routesPage } from './routes';

test('every route says who may ask, and the page of the documents is made of them', async () => {
  const routes = await allRoutes();
  expect(readFileSync('docs/routes.md', 'utf8')).toBe(routesPage(routes));
  // What is open to anyone is to be thought over: signing in, joining, and whether the server is there.
  expect(routes.filter(({ rule }) => rule === 'anyone').map(({ path }) => path)).toEqual([
    '/api/health',
    '/api/join',
    '/api/ready',
    '/api/sign-in',
  ]);
  // A project is only ever asked of by a right in it.
  const inProjects = routes.filter(({ path }) => path.startsWith('/api/projects/[project]'));
  expect(inProjects.length).toBeGreaterThan(40);
  expect(inProjects.filter(({ rule }) => !['reader', 'editor', 'owner'].includes(rule))).toEqual([]);
  // What changes a project is no reader's; copies of it are, trials, and where one is, which change nothing.
  const byReaders = inProjects.filter(({ method, rule }) => method !== 'GET' && rule === 'reader');
  expect(byReaders.map(({ path }) => path.replace('/api/projects/[project]/', ''))).toEqual([
    'duplicate',
    'here',
    'jobs',
    'start',
  ]);
});

test('a route without a rule is not passed over', () => {
  expect(() => routesOf([{ path: '/api/x', exports: { GET: () => undefined } }])).toThrow('GET /api/x says not who');
  const made = { GET: route('reader', async () => ({})), dynamic: 'force-dynamic' };
  expect(routesOf([{ path: '/api/x', exports: made }])).toEqual([{ path: '/api/x', method: 'GET', rule: 'reader' }]);
});
