import * as v from 'valibot';
import { fail, ok, type Result } from './result';

/** What a JSON file should be, in words: "a role map", where such files are saved, and what it should hold. */
export interface FileWords {
  what: string;
  savedAt: string;
  expected: string;
}

/** The content of a JSON file from outside, where it is of a schema; else what is wrong with it. */
export function readJsonFile<T>(
  schema: v.GenericSchema<unknown, T>,
  text: string,
  { what, savedAt, expected }: FileWords,
): Result<T> {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return fail(
      `The file is not JSON. ${what[0].toUpperCase()}${what.slice(1)} is a JSON file that was saved at ${savedAt}.`,
    );
  }
  return checkJson(schema, json, { what, expected });
}

/** Content from outside, where it is of a schema; else what is wrong with it. */
export function checkJson<T>(
  schema: v.GenericSchema<unknown, T>,
  json: unknown,
  { what, expected }: Pick<FileWords, 'what' | 'expected'>,
): Result<T> {
  const result = v.safeParse(schema, json);
  if (result.success) return ok(result.output);
  const [issue] = result.issues;
  return fail(
    `This is not ${what}: ${v.getDotPath(issue) ?? 'the file'} ` +
      `${issue.message.charAt(0).toLowerCase()}${issue.message.slice(1)} Expected ${expected}.`,
  );
}
