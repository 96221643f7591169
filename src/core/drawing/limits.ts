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
  /** Parts that one insert may come to, with all blocks in it; what comes to more is left out and told. */
  expansion: number;
  /** How deep blocks may hold blocks. */
  nesting: number;
  /** Warnings kept of one kind; the rest are only counted. */
  warnings: number;
}

export const defaultLimits: ReadLimits = {
  entities: 5_000_000,
  lineBytes: 1 << 20,
  groupsOfEntity: 8_000_000,
  // A plan of a million entities flattens to some five million.
  primitives: 10_000_000,
  // The largest blocks of plans, whole storeys brought in as one, have some hundred thousand.
  expansion: 2_000_000,
  nesting: 32,
  warnings: 20,
};
