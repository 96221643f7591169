/** What reading a file from outside may use. Settings; reported when hit. */
export interface ReadLimits {
  /** Entities of a file. */
  entities: number;
  /** Bytes of one line of the file. */
  lineBytes: number;
  /** Groups of one entity; the rest of a longer one is dropped. */
  groupsOfEntity: number;
  /** Flattened primitives of a drawing. */
  primitives: number;
  /** How deep blocks may hold blocks. */
  nesting: number;
  /** Warnings kept of one kind; the rest are only counted. */
  warnings: number;
}

export const defaultLimits: ReadLimits = {
  entities: 5_000_000,
  lineBytes: 1 << 20,
  groupsOfEntity: 8_000_000,
  primitives: 20_000_000,
  nesting: 32,
  warnings: 20,
};
