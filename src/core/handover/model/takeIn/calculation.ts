import type { ElementRow } from '@/core/kinds/element';
import type { ReadModel } from '../readModel';
import { row, type Taking } from './building';
import { isSame } from './levels';

type Load = NonNullable<ReadModel['loads']>[number];
type Vector = [x: number, y: number, z: number];

const nothing: Vector = [0, 0, 0];
/** The case of a load that names none, as the structural trial takes it. */
const permanent = 'G';

/** So far above its level. */
const riseOf = (z: number, { elevation }: { elevation: number }): number => Number((z - elevation).toFixed(9));

/** A load with what it is called in the file, or with its number there. */
interface NamedLoad {
  load: Load;
  name: string;
}

/** A load along a straight line at one height; one that is not at one height has no element of its own here. */
function lineRow(taking: Taking, { load, name }: NamedLoad, start: Vector, end: Vector, q: Vector): ElementRow[] {
  if (!isSame(start[2], end[2])) {
    taking.told.add('Loads along lines that are not level were left out; draw them at Tracing', name);
    return [];
  }
  const level = taking.ladder.below(start[2]);
  const shape = {
    case: load.case ?? permanent,
    start: [start[0], start[1]] as [number, number],
    end: [end[0], end[1]] as [number, number],
    rise: riseOf(start[2], level),
    q,
  };
  return [row(taking, 'lineLoad', { id: taking.ids.give('load', name), level }, shape)];
}

function loadRows(model: ReadModel, taking: Taking): ElementRow[] {
  const { ladder, told, ids } = taking;
  const beams = new Map(model.beams.map((beam) => [beam.id, beam]));
  const slabs = new Map(model.slabs.map((slab) => [slab.id, slab]));
  return (model.loads ?? []).flatMap((load, i): ElementRow[] => {
    const named = { load, name: load.id ?? `load ${i + 1}` };
    if (load.kind === 'line') return lineRow(taking, named, load.start, load.end, load.q);
    if (load.kind === 'member') {
      const beam = beams.get(load.element);
      if (beam !== undefined) return lineRow(taking, named, beam.start, beam.end, load.q);
      told.add('Loads along members that are no beams were left out; draw them at Tracing', named.name);
      return [];
    }
    if (load.kind === 'point') {
      const [x, y, z] = load.position;
      const level = ladder.below(z);
      const { force = nothing, moment = nothing } = load;
      const shape = { position: [x, y] as [number, number], rise: riseOf(z, level), force, moment };
      return [
        row(
          taking,
          'pointLoad',
          { id: ids.give('load', named.name), level },
          { case: load.case ?? permanent, ...shape },
        ),
      ];
    }
    const slab = load.slab === undefined ? undefined : slabs.get(load.slab);
    const [level, outline] = [ladder.at(load.level ?? slab?.level), load.outline ?? slab?.outline];
    if (level === null || outline === undefined) {
      told.add('Loads on areas without a slab of the file, or a level and an outline, were left out', named.name);
      return [];
    }
    const holes = load.holes ?? (load.outline === undefined ? (slab?.holes ?? []) : []);
    const shape = { case: load.case ?? permanent, outline, holes, q: load.q };
    return [row(taking, 'areaLoad', { id: ids.give('load', named.name), level }, shape)];
  });
}

/** Supports, loads, luminaires, areas to calculate, and the ground. */
export function calculationRows(taking: Taking): ElementRow[] {
  const { model, ladder, ids } = taking;
  const zones = new Map(model.zones.map((zone) => [zone.id, zone.level]));
  return [
    ...(model.supports ?? []).map(({ id, position: [x, y, z], fixed }) => {
      const level = ladder.below(z);
      const shape = { position: [x, y] as [number, number], rise: riseOf(z, level), fixed };
      return row(taking, 'support', { id: ids.give('support', id), level }, shape);
    }),
    ...loadRows(model, taking),
    ...(model.luminaires ?? []).map(({ id, photometry, position: [x, y, z], rotation = 0, tilt = 0, output = 1 }) => {
      const level = ladder.below(z);
      const shape = {
        position: [x, y] as [number, number],
        rise: riseOf(z, level),
        rotation,
        tilt,
        photometry,
        output,
      };
      return row(taking, 'luminaire', { id: ids.give('luminaire', id), level }, shape);
    }),
    ...(model.calculationAreas ?? []).map(({ id, zone, name = '', outline, holes = [], z, spacing = null }) => {
      const level = ladder.at(zone === undefined ? undefined : zones.get(zone)) ?? ladder.below(z);
      const shape = { name, outline, holes, rise: riseOf(z, level), spacing };
      return row(taking, 'calculationArea', { id: ids.give('calculation area', id), level }, shape);
    }),
    ...(model.terrain ?? []).map(({ id, points, elevation }) =>
      row(taking, 'contour', { id: ids.give('terrain', id), level: null }, { points, elevation }),
    ),
    ...model.grids.map((line) => {
      const id = ids.give('grid line', line.id);
      if (line.kind === 'line') {
        const { label, kind, start, end } = line;
        return row(taking, 'grid', { id, level: null }, { label, kind, start, end });
      }
      const { label, kind, centre, radius, startAngle, endAngle } = line;
      return row(taking, 'grid', { id, level: null }, { label, kind, centre, radius, startAngle, endAngle });
    }),
  ];
}
