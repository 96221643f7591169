/** What a file was before a converter made a DXF of it. */
export interface Origin {
  name: string;
  size: number;
  sha256: string;
  /** What the converter said. */
  log: string;
}
