import { expose, transfer } from 'comlink';
import { heatView, type HeatView } from '@/core/energy/file';
import { tryHeat } from '@/core/energy/heat';
import { readModel } from '@/core/handover/model/readModel';
import { carriedOf, type Carried } from '@/core/structure/carried';
import { tryLight, type LightTrial } from '@/core/lighting/light';
import { whatIf, type WhatIf } from '@/core/lighting/whatIf';
import { supportsMissing, type RuledSupport } from '@/core/structure/rules/supportsUnderFeet';
import { tryStructure } from '@/core/structure/trial';
import { buffersOf, viewOf, type StructureView } from '@/core/structure/view';

const modelOf = (text: string) => {
  const model = readModel(text);
  if (!model.ok) throw new Error(model.message);
  return model.value;
};

/** Calculates a model off the main thread; to be cancelled, its worker is ended. */
const api = {
  /** @param tell hears how much of the work is done, from 0 to 1 */
  structure(text: string, tell: (share: number) => void): StructureView {
    const model = modelOf(text);
    const view = viewOf(tryStructure(model, { tell }), model);
    return transfer(view, buffersOf(view) as ArrayBuffer[]);
  },

  /** What zones lose and need. @param tell hears how much of the work is done, from 0 to 1 */
  heat: (text: string, tell: (share: number) => void): HeatView => heatView(tryHeat(modelOf(text), { tell })),

  /** The light of rooms and of areas outdoors. @param tell hears how much of the work is done, from 0 to 1 */
  light: (text: string, tell: (share: number) => void): LightTrial => tryLight(modelOf(text), { tell }),

  /** What other numbers and heights of a luminaire would give a room. */
  whatIf: (text: string, zone: string, photometry: string): WhatIf | null => whatIf(modelOf(text), zone, photometry),

  /** The tributary areas. */
  carried: (text: string): Carried[] => carriedOf(modelOf(text)),

  /** The supports that are missing under columns and walls. */
  missingSupports: (text: string): RuledSupport[] => supportsMissing(modelOf(text)),
};

export type TrialWorker = typeof api;
expose(api);
