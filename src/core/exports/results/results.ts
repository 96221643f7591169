import { tryHeat, type HeatTrial } from '@/core/energy/heat';
import type { ReadModel } from '@/core/handover/model/readModel';
import { tryLight, type LightTrial } from '@/core/lighting/light';
import type { Finding } from '@/core/proof/finding';
import { prove } from '@/core/proof/prove';
import { tryStructure, type StructureTrial } from '@/core/structure/trial';

/** What the three trials of a model come to; null where there is nothing to calculate. */
export interface Results {
  model: ReadModel;
  structure: StructureTrial | null;
  heat: HeatTrial | null;
  light: LightTrial | null;
  /** What is wrong with the model, by itself and by the trials. */
  findings: Finding[];
  /** What was taken for granted, by trial. */
  assumed: [trial: string, sentence: string][];
}

/** Calculates a model in each way that it holds something for. */
export function resultsOf(model: ReadModel): Results {
  const carries = model.columns.length + model.beams.length + model.walls.length > 0;
  const structure = carries ? tryStructure(model) : null;
  const heat = model.zones.length === 0 ? null : tryHeat(model);
  const light = (model.luminaires ?? []).length === 0 ? null : tryLight(model);
  const trials = [structure, heat, light];
  return {
    model,
    structure: structure === null || structure.structure.frame.members.length === 0 ? null : structure,
    heat,
    light,
    findings: [...prove(model), ...trials.flatMap((one) => one?.findings ?? [])],
    assumed: trials.flatMap((one, i) =>
      (one?.assumed ?? []).map((sentence): [string, string] => [['structure', 'heat', 'light'][i], sentence]),
    ),
  };
}
