import type { BuildingReport } from './buildingReport';

/** What a file was before it was made a DXF: by a converter, or by cutting a plan through a building. */
export interface Origin {
  /** Of the original among the files. */
  id: string;
  name: string;
  size: number;
  sha256: string;
  /** What the converter said. */
  log: string;
  /** What of a building came onto plans; null where a converter made the file. */
  report: BuildingReport | null;
}
