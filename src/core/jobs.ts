import * as v from 'valibot';
import { deliveryWish } from './exports/deliveries/wish';

/** What can be done in the background, on the server. */
export const jobRequest = v.variant('kind', [
  v.strictObject({ kind: v.literal('structure') }),
  v.strictObject({ kind: v.literal('heat') }),
  v.strictObject({ kind: v.literal('light') }),
  v.strictObject({ kind: v.literal('delivery'), wish: deliveryWish }),
]);
export type JobRequest = v.InferOutput<typeof jobRequest>;

export type JobState = 'waiting' | 'running' | 'done' | 'failed';

/** A file that came of a job. */
export interface JobFile {
  id: string;
  name: string;
  /** Its media type. */
  type: string;
  /** Bytes. */
  size: number;
  sha256: string;
}

/** A job as windows see it. */
export interface JobView {
  id: string;
  request: JobRequest;
  state: JobState;
  /** How much of it is done, from 0 to 1. */
  done: number;
  /** Why it failed. */
  message: string | null;
  /** The version of the project that it was made from. */
  version: number | null;
  createdAt: string;
  files: JobFile[];
}
