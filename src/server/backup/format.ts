import * as v from 'valibot';
import { uuid } from '@/core/kinds/limits';

/**
 * A backup is gzip of JSON lines: a head, one line a row, and an end with the number of rows and the SHA-256 of all
 * lines before it. Rows are as the database has them, bytes as `\x` and hexadecimal digits.
 */
export const headSchema = v.strictObject({
  format: v.literal('zircon-backup'),
  /** The newest migration of the database that it was made from. */
  schema: v.string(),
  made: v.string(),
  projects: v.array(v.strictObject({ id: uuid, name: v.string() })),
});
export type Head = v.InferOutput<typeof headSchema>;

export const endSchema = v.strictObject({ end: v.strictObject({ rows: v.number(), sha256: v.string() }) });

export const lineSchema = v.strictObject({ table: v.string(), row: v.record(v.string(), v.unknown()) });

/** The longest line: a megabyte of a file as hexadecimal digits, or an edit of 50,000 rows, in characters. */
export const longestLine = 512 * 1024 * 1024;
