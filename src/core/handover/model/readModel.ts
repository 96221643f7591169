import { checkJson } from '@/core/jsonFile';
import { fail, type Result } from '@/core/result';
import { modelSchema, type ModelFile } from './schema';

/** A model as it is read. */
export type ReadModel = ModelFile;

/** What a list's entries are where they do not say it; lists that are missing are empty. */
const defaults: Record<string, Record<string, unknown>> = {
  levels: {},
  grids: {},
  columns: { rotation: 0, mark: '' },
  beams: { mark: '' },
  walls: { bulge: 0 },
  openings: { sill: 0 },
  slabs: { holes: [] },
  zones: { name: '', number: '', holes: [] },
  outdoor: { name: '' },
};

const words = {
  what: 'a model',
  expected: 'a model.json of version 1, as docs/model.schema.json has it',
};

/** A model.json with what it leaves out filled in; else what is wrong with it, where, and what was expected. */
export function readModel(text: string): Result<ReadModel> {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    return fail(`The file is not JSON (${(error as Error).message}). Expected ${words.expected}`);
  }
  if (json === null || typeof json !== 'object' || Array.isArray(json))
    return fail(`The file holds no object. Expected ${words.expected}`);
  const { format, version } = json as Record<string, unknown>;
  if (format !== 'zircon-frame-model')
    return fail(`The file says ${JSON.stringify(format) ?? 'no format'} as its format. Expected ${words.expected}`);
  if (version !== 1) return fail(`The file is of version ${String(version)}. Expected ${words.expected}`);
  return checkJson(modelSchema, filled(json as Record<string, unknown>), words);
}

function filled(json: Record<string, unknown>): Record<string, unknown> {
  const lists = Object.entries(defaults).map(([name, plain]): [string, unknown] => {
    const list = json[name] ?? [];
    if (!Array.isArray(list)) return [name, list];
    return [name, list.map((entry) => (entry !== null && typeof entry === 'object' ? { ...plain, ...entry } : entry))];
  });
  return { unit: 'm', ...json, ...Object.fromEntries(lists) };
}
