import { contains } from '@/core/geometry/polygon';
import { awayFromLine } from '@/core/kinds/lines';
import type { ReadModel } from '@/core/handover/model/readModel';
import type { CaseLoads, Frame } from '../frame';
import { axesOfModel } from './axes';
import { Carriers } from './carriers';
import { plainCombinations, type Combination } from './combinations';
import { lyingSlabs, type LyingSlab } from './floors';
import { LinesDown } from './linesDown';
import { casesOf, Loading, massOfLayers, type LoadCase } from './loads';
import { Materials } from './materials';
import { Report } from '@/core/proof/report';
import { skeletonOf, type Skeleton } from './skeleton';
import { withLoadsByUse } from './uses';

/** A structure that can be solved, each part with the element that it came from. */
export interface Structure {
  skeleton: Skeleton;
  frame: Frame;
  cases: LoadCase[];
  loads: CaseLoads[];
  combinations: readonly Combination[];
  /** Whether the model says them. */
  combinationsSaid: boolean;
  slabs: readonly LyingSlab[];
  report: Report;
  assumed: string[];
}

/** Derives a structure from a model. `docs/structure.md` tells how. */
export function deriveStructure(said: ReadModel): Structure {
  const report = new Report();
  const model = withLoadsByUse(said);
  if (model !== said) report.assume('Imposed loads follow from the use of zones, by EN 1991-1-1');
  const materials = new Materials(model);
  const axes = axesOfModel(model, materials, report);
  const skeleton = skeletonOf(model, axes, report);
  const carriers = new Carriers(skeleton);
  const massOf = (slab: ReadModel['slabs'][number]): number =>
    massOfLayers(model, slab.construction) ?? materials.of('slabs', slab.material).density * slab.thickness;
  const slabs = lyingSlabs(model, axes, carriers, massOf, report);
  const frame: Frame = { ...skeleton.frame, diaphragms: diaphragmsOf(skeleton, slabs) };
  if (frame.diaphragms.length > 0) report.assume('Slabs keep the distances of the nodes within them in plan');
  const down = new LinesDown(skeleton, carriers);
  const loading = new Loading(model, skeleton, carriers, down, slabs, materials, report);
  const cases = casesOf(model, report);
  if (cases.some(({ selfWeight }) => selfWeight !== 0) && slabs.length > 0 && axes.some(({ kind }) => kind === 'beam'))
    report.assume('Slabs and the beams within their thickness both weigh their full volume');
  const loads = cases.map((one, i) => loading.caseLoads(one, i === 0));
  loading.tellLost();
  const combinations = model.combinations ?? plainCombinations(cases);
  if (model.combinations === undefined && combinations.length > 0)
    report.assume('No combination is said: those of EN 1990, 6.10 and 6.14b, are taken');
  return {
    skeleton,
    frame,
    cases,
    loads,
    combinations,
    combinationsSaid: model.combinations !== undefined,
    slabs,
    report,
    assumed: [...materials.assumed(), ...report.assumed()],
  };
}

/** Nodes belong to a slab from a little above its top to this far below its underside, metres, */
const [above, below] = [0.1, 0.3];
/** and where they lie beside its edge within this. */
const beside = 0.3;

function diaphragmsOf({ frame }: Skeleton, slabs: readonly LyingSlab[]): Frame['diaphragms'] {
  return slabs.flatMap((slab) => {
    if (!slab.diaphragm || slab.ground) return [];
    const nodes = frame.nodes.flatMap(({ position: [x, y, z] }, i) => {
      if (z > slab.z + above || z < slab.z - slab.thickness - below) return [];
      const { outline } = slab;
      return contains(outline, [x, y]) || awayFromLine([...outline, outline[0]], [x, y]) <= beside ? [i] : [];
    });
    return nodes.length > 1 ? [{ nodes }] : [];
  });
}
