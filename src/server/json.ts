import * as v from 'valibot';
import { Problem } from './problem';

/** A body's JSON in the shape expected. @throws Problem that says what is wrong with it, the first thing found */
export function jsonAs<S extends v.GenericSchema>(schema: S, body: Uint8Array): v.InferOutput<S> {
  let json: unknown;
  try {
    json = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(body));
  } catch {
    throw new Problem(400, 'The request is not JSON.');
  }
  const result = v.safeParse(schema, json, { abortEarly: true });
  if (result.success) return result.output;
  const [issue] = result.issues;
  throw new Problem(400, `${issue.message} (${v.getDotPath(issue) ?? 'request'})`);
}
