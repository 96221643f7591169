/** What a file of a building held, and what came of it on the plans of its storeys. */
export interface BuildingReport {
  /** The edition of the standard: IFC2X3, IFC4. */
  schema: string;
  storeys: { name: string; elevation: number; cut: number }[];
  /** By kind: how many there are, and how many are on at least one plan. */
  read: { kind: string; count: number; drawn: number }[];
  leftOut: { kind: string; count: number; reason: string; remedy: string }[];
  warnings: string[];
}
