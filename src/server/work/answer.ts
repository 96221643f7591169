/** A file that came of a job. */
export interface MadeFile {
  name: string;
  /** Its media type. */
  type: string;
  bytes: Uint8Array<ArrayBuffer>;
}

/** What the thread says: how far it is; at last what came of it, of which version of the project; or why not. */
export type JobAnswer = { share: number } | { files: MadeFile[]; version: number } | { failed: string };
