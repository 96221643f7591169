import type { ReadModel } from '@/core/handover/model/readModel';
import { addAnalysis } from './analysisModel';
import { addBoundaries } from './boundaries';
import { frameOf } from './context';
import { addGrids } from './grids';
import { Products } from './products';
import { StepFile } from './step';

/** What the file is called inside, and when it was made, ISO 8601 to the second. */
export interface IfcAbout {
  name: string;
  time: string;
  /** Whether the structural analysis model goes with it; it does where it is left out. */
  analysis?: boolean;
}

/** A model as IFC4 (ISO 16739-1:2018) in a STEP file (ISO 10303-21). Identifiers are the same at every export. */
export function writeIfc(model: ReadModel, { name, time, analysis = true }: IfcAbout): string {
  const file = new StepFile();
  const frame = frameOf(file, model, name);
  const products = new Products(frame, model);
  const relations = products.addAll();
  addBoundaries(frame, model, products.written);
  if (analysis) addAnalysis(frame, model, products.written);
  addGrids(frame, model, relations);
  relations.finish();
  return file.text({ name: `${name}.ifc`, time, schema: 'IFC4', view: 'DesignTransferView_V1.0' });
}
