import { asDrawn } from '@/core/datum/placement';
import { readDxf } from '@/core/drawing/reader';
import { toleranceFor } from '@/core/patterns/settings';
import type { Candidate } from '@/core/reading/candidate';
import { read } from '@/core/reading/read';
import { Scene } from '@/core/reading/scene';
import type { Role } from '@/core/sorting/roles';
import { suggestLayers } from '@/core/sorting/suggestLayers';
import { flatten } from '@/core/underlay/flatten';
import { metresPer } from '@/core/units/length';
import type { TruthPlan } from './truthPlan';

/**
 * Where roles come from: they are given, suggested by names and content, or told path by path by geometry alone, as of
 * a drawing on one layer.
 */
export type RolesBy = 'given' | 'suggested' | 'one layer';

/** Reads a plan as the product does. */
export function readPlan(plan: TruthPlan, roles: RolesBy): Candidate[] {
  const result = readDxf(new TextEncoder().encode(plan.dxf));
  if (!result.ok) throw new Error(result.message);
  const { drawing } = result.value;
  const primitives = flatten(drawing);
  const suggested = roles === 'suggested' ? suggestLayers(drawing, primitives, metresPer[plan.unit]) : [];
  const role = (name: string, layer: number): Role | null => {
    if (roles === 'given') return (plan.roles[name] as Role | undefined) ?? null;
    return roles === 'suggested' ? suggested[layer].role : 'mixed';
  };
  const scene = new Scene(
    drawing,
    primitives,
    asDrawn(plan.unit),
    drawing.layers.map(({ name }, layer) => role(name, layer)),
  );
  return read({ scene, tolerance: toleranceFor(plan.unit) }).candidates;
}
