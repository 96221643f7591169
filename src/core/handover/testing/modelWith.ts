import { readModel, type ReadModel } from '../model/readModel';

/** A model as programs write it, for tests. @throws where it is none */
export function modelWith(parts: Record<string, unknown>): ReadModel {
  const read = readModel(JSON.stringify({ format: 'zircon-frame-model', version: 1, unit: 'm', ...parts }));
  if (!read.ok) throw new Error(read.message);
  return read.value;
}
