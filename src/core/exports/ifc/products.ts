import { area } from '@/core/geometry/polygon';
import { radians, type Point } from '@/core/geometry/vector';
import { sectionAxes } from '@/core/bodies/memberBody';
import { groupBy } from '@/core/groupBy';
import type { ReadModel } from '@/core/handover/model/readModel';
import { bandOutline, bulgedLine, pieceOfLine } from '@/core/kinds/lines';
import { sectionArea, sectionSize } from '@/core/kinds/section';

import type { Frame, Storey } from './context';
import { columnReach, elevationOfWall, netAreaOf, wallSizes } from '../sizes';
import { globalId } from './globalId';
import { Made } from './made';
import { flag, mark, Relations, transmittance } from './relations';
import { addSpatial } from './spatial';
import { word, type Ref } from './step';

type Space = readonly [number, number, number];
type Column = ReadModel['columns'][number];
type Beam = ReadModel['beams'][number];
type Wall = ReadModel['walls'][number];
type Opening = ReadModel['openings'][number];

/** An opening is cut this far beyond both faces of its wall, metres: faces that coincide cut badly. */
const beyondFaces = 0.05;
/** A door's leaf and a window's frame are shown so thick, metres. */
const leaf = 0.06;

/** Writes the products of a model into their storeys. */
export class Products {
  /** What elements and zones became, by their ids. */
  readonly written = new Map<string, Ref>();
  readonly relations: Relations;
  readonly made: Made;
  private readonly openings: Map<string, Opening[]>;

  constructor(
    private readonly frame: Frame,
    private readonly model: ReadModel,
  ) {
    this.relations = new Relations(frame.file);
    this.made = new Made(frame.file, frame.shapes, this.relations, model);
    this.openings = groupBy(model.openings, ({ wall }) => wall);
  }

  /** @returns the relations, for what is still to be added before they are finished */
  addAll(): Relations {
    const { model } = this;
    model.columns.forEach((one) => this.column(one));
    model.beams.forEach((one) => this.beam(one));
    model.walls.forEach((one) => this.wall(one));
    model.slabs.forEach((one) => this.slab(one));
    (model.roofs ?? []).forEach((one) => this.roof(one));
    addSpatial(this.frame, model, this);
    return this.relations;
  }

  private storeyOf = (level: string): Storey | undefined => this.frame.storeys.get(level);

  /** A product in its storey. @param rest what its kind asks for after its tag */
  private product(
    entity: string,
    id: string,
    name: string,
    storey: Storey,
    level: string,
    place: Ref,
    shape: Ref,
    rest: Parameters<Frame['file']['add']>[1][],
  ): Ref {
    const ref = this.frame.file.add(entity, globalId(id), null, name, null, null, place, shape, id, ...rest);
    this.relations.relate('contained', level, storey.ref, ref);
    this.written.set(id, ref);
    return ref;
  }

  private column(column: Column): void {
    const storey = this.storeyOf(column.level);
    if (storey === undefined) return;
    const { shapes } = this.frame;
    const [base, top] = columnReach(column, this.model);
    const height = top - base;
    if (height <= 0) return;
    const [x, y] = column.position;
    const turn = radians(column.rotation);
    const at = shapes.place([x, y, base - storey.elevation], [Math.cos(turn), Math.sin(turn), 0]);
    const place = shapes.placement(storey.place, at);
    const profile = shapes.profile(sizeName(column.section), column.section);
    const shape = shapes.shape(
      [shapes.extruded(profile, shapes.origin, height)],
      [
        [0, 0, 0],
        [0, 0, height],
      ],
    );
    const name = column.mark || 'Column';
    const ref = this.product('IFCCOLUMN', column.id, name, storey, column.level, place, shape, [word('COLUMN')]);
    this.made.member('IFCCOLUMNTYPE', ref, column.section, column.material);
    this.relations.properties(column.id, ref, 'Pset_ColumnCommon', [
      ['Reference', mark(column.mark || sizeName(column.section))],
      ['LoadBearing', flag(true)],
    ]);
    const size = sectionArea(column.section);
    this.relations.quantities(column.id, ref, 'Qto_ColumnBaseQuantities', [
      ['Length', 'LENGTH', height],
      ['CrossSectionArea', 'AREA', size],
      ['GrossVolume', 'VOLUME', size * height],
      ['NetVolume', 'VOLUME', size * height],
    ]);
  }

  private beam(beam: Beam): void {
    const storey = this.storeyOf(beam.level);
    const along = [0, 1, 2].map((i) => beam.end[i] - beam.start[i]);
    const length = Math.hypot(...along);
    if (storey === undefined || length === 0) return;
    const { shapes } = this.frame;
    const x: Space = [along[0] / length, along[1] / length, along[2] / length];
    const { level, across, upward } = sectionAxes(x, beam.angle ?? 0);
    const { width, depth } = sectionSize(beam.section);
    const isBeam = (beam.use ?? 'beam') === 'beam';
    // An upright one has no left.
    const upright = Math.hypot(x[0], x[1]) < 1e-9;
    const aside = upright ? 0 : { left: width / 2, right: -width / 2, centre: 0 }[beam.justification ?? 'centre'];
    const down = isBeam ? -depth / 2 : 0;
    const at = [0, 1, 2].map(
      (i) => beam.start[i] + aside * level[i] + down * upward[i] - (i === 2 ? storey.elevation : 0),
    );
    // A profile's own x is the width, which lies across, to the left; the member runs along z.
    const place = shapes.placement(storey.place, shapes.place([at[0], at[1], at[2]], across, x));
    const profile = shapes.profile(sizeName(beam.section), beam.section);
    const shape = shapes.shape(
      [shapes.extruded(profile, shapes.origin, length)],
      [
        [0, -down, 0],
        [0, -down, length],
      ],
    );
    const [entity, word_] = isBeam
      ? (['IFCBEAM', 'BEAM'] as const)
      : (['IFCMEMBER', beam.use === 'brace' ? 'BRACE' : 'MEMBER'] as const);
    const ref = this.product(entity, beam.id, beam.mark || 'Beam', storey, beam.level, place, shape, [word(word_)]);
    this.made.member(isBeam ? 'IFCBEAMTYPE' : 'IFCMEMBERTYPE', ref, beam.section, beam.material);
    const set = isBeam ? 'Beam' : 'Member';
    this.relations.properties(beam.id, ref, `Pset_${set}Common`, [
      ['Reference', mark(beam.mark || sizeName(beam.section))],
      ['LoadBearing', flag(true)],
    ]);
    const size = sectionArea(beam.section);
    this.relations.quantities(beam.id, ref, `Qto_${set}BaseQuantities`, [
      ['Length', 'LENGTH', length],
      ['CrossSectionArea', 'AREA', size],
      ['GrossVolume', 'VOLUME', size * length],
      ['NetVolume', 'VOLUME', size * length],
    ]);
  }

  private wall(wall: Wall): void {
    const storey = this.storeyOf(wall.level);
    const line = bulgedLine(wall.start, wall.end, wall.bulge);
    const own = this.openings.get(wall.id) ?? [];
    const { base, length, height, gross, net } = wallSizes(wall, storey?.elevation ?? 0, own);
    if (storey === undefined || length === 0) return;
    const { shapes } = this.frame;
    const [x, y] = wall.start;
    const turn = wall.bulge === 0 ? Math.atan2(wall.end[1] - y, wall.end[0] - x) : 0;
    const at = shapes.place([x, y, base - storey.elevation], [Math.cos(turn), Math.sin(turn), 0]);
    const place = shapes.placement(storey.place, at);
    const profile = wall.bulge === 0 ? wall.profile : undefined;
    const half = wall.thickness / 2;
    const solid =
      profile === undefined || profile.length < 2
        ? shapes.extruded(shapes.region(bandAbout(wall, line), []), shapes.origin, height)
        : shapes.extruded(
            shapes.region(elevationOfWall(profile, base), []),
            shapes.place([0, half, 0], [1, 0, 0], [0, -1, 0]),
            wall.thickness,
          );
    const axis = line.map((p) => [...inWall(wall, p), 0]);
    const shape = shapes.shape([solid], axis);
    const name = wall.outer ? 'Outer wall' : 'Wall';
    const predefined = profile === undefined ? 'STANDARD' : 'SOLIDWALL';
    const ref = this.product('IFCWALL', wall.id, name, storey, wall.level, place, shape, [word(predefined)]);
    this.made.layered('IFCWALLTYPE', ref, { ...wall, predefined });
    const row = this.made.constructionOf(wall.construction);
    this.relations.properties(wall.id, ref, 'Pset_WallCommon', [
      ['IsExternal', flag(wall.outer === true)],
      ...(wall.bearing === undefined ? [] : [['LoadBearing', flag(wall.bearing)] as const]),
      ...(row !== undefined && row.uValue !== null
        ? [['ThermalTransmittance', transmittance(row.uValue)] as const]
        : []),
    ]);
    this.relations.quantities(wall.id, ref, 'Qto_WallBaseQuantities', [
      ['Length', 'LENGTH', length],
      ['Width', 'LENGTH', wall.thickness],
      ...(profile === undefined ? [['Height', 'LENGTH', height] as [string, 'LENGTH', number]] : []),
      ['GrossSideArea', 'AREA', gross],
      ['NetSideArea', 'AREA', net],
      ['GrossVolume', 'VOLUME', gross * wall.thickness],
      ['NetVolume', 'VOLUME', net * wall.thickness],
    ]);
    for (const opening of own) this.opening(opening, wall, line, place, ref, storey);
  }

  private opening(
    opening: Opening,
    wall: Wall,
    line: readonly Point[],
    wallPlace: Ref,
    host: Ref,
    storey: Storey,
  ): void {
    const { file, shapes } = this.frame;
    const { offset, width, height, sill, kind, id } = opening;
    const piece = pieceOfLine(line, offset, offset + width).map((p) => inWall(wall, p));
    const place = shapes.placement(wallPlace, shapes.place([0, 0, sill]));
    const body = (thickness: number): Ref =>
      shapes.shape([shapes.extruded(shapes.region(bandOutline(piece, thickness), []), shapes.origin, height)]);
    const hole = file.add(
      'IFCOPENINGELEMENT',
      globalId(`${id} hole`),
      null,
      'Opening',
      null,
      null,
      place,
      body(wall.thickness + 2 * beyondFaces),
      null,
      word('OPENING'),
    );
    file.add('IFCRELVOIDSELEMENT', globalId(`${id} voids`), null, null, null, host, hole);
    const [entity, name] = kind === 'door' ? ['IFCDOOR', 'Door'] : ['IFCWINDOW', 'Window'];
    const rest = [height, width, word(kind === 'door' ? 'DOOR' : 'WINDOW'), null, null];
    const ref = this.product(entity, id, name, storey, wall.level, place, body(Math.min(leaf, wall.thickness)), rest);
    file.add('IFCRELFILLSELEMENT', globalId(`${id} fills`), null, null, null, hole, ref);
    const size = `${(width * 1000).toFixed(0)} x ${(height * 1000).toFixed(0)}`;
    const typeRest =
      kind === 'door'
        ? [word('DOOR'), word('NOTDEFINED'), null, null]
        : [word('WINDOW'), word('NOTDEFINED'), null, null];
    this.made.plain(`${entity}TYPE`, `${size} ${opening.construction ?? ''}`, `${name} ${size}`, typeRest, ref);
    const row = this.made.constructionOf(opening.construction);
    this.relations.properties(id, ref, `Pset_${name}Common`, [
      ['IsExternal', flag(wall.outer === true)],
      ...(row !== undefined && row.uValue !== null
        ? [['ThermalTransmittance', transmittance(row.uValue)] as const]
        : []),
    ]);
    this.relations.quantities(id, ref, `Qto_${name}BaseQuantities`, [
      ['Width', 'LENGTH', width],
      ['Height', 'LENGTH', height],
      ['Area', 'AREA', width * height],
    ]);
  }

  private slab(slab: ReadModel['slabs'][number]): void {
    const storey = this.storeyOf(slab.level);
    if (storey === undefined || slab.outline.length < 3) return;
    const { shapes } = this.frame;
    const top = slab.top ?? storey.elevation;
    const place = shapes.placement(storey.place, shapes.place([0, 0, top - slab.thickness - storey.elevation]));
    const solid = shapes.extruded(shapes.region(slab.outline, slab.holes), shapes.origin, slab.thickness);
    const kind = this.model.levels.find(({ id }) => id === slab.level)?.kind;
    const predefined = { roof: 'ROOF', foundation: 'BASESLAB' }[String(kind)] ?? 'FLOOR';
    const ref = this.product('IFCSLAB', slab.id, 'Slab', storey, slab.level, place, shapes.shape([solid]), [
      word(predefined),
    ]);
    this.made.layered('IFCSLABTYPE', ref, { ...slab, predefined });
    const row = this.made.constructionOf(slab.construction);
    this.relations.properties(slab.id, ref, 'Pset_SlabCommon', [
      ['LoadBearing', flag(true)],
      ...(row !== undefined && row.uValue !== null
        ? [['ThermalTransmittance', transmittance(row.uValue)] as const]
        : []),
    ]);
    const gross = Math.abs(area(slab.outline));
    const net = netAreaOf(slab);
    this.relations.quantities(slab.id, ref, 'Qto_SlabBaseQuantities', [
      ['Width', 'LENGTH', slab.thickness],
      ['GrossArea', 'AREA', gross],
      ['NetArea', 'AREA', net],
      ['GrossVolume', 'VOLUME', gross * slab.thickness],
      ['NetVolume', 'VOLUME', net * slab.thickness],
    ]);
  }

  private roof(roof: NonNullable<ReadModel['roofs']>[number]): void {
    const storey = this.storeyOf(roof.level);
    const frame = planeOf(roof.outline);
    if (storey === undefined || frame === null) return;
    const { shapes } = this.frame;
    const [ox, oy, oz] = frame.origin;
    const place = shapes.placement(storey.place, shapes.place([ox, oy, oz - storey.elevation], frame.x, frame.z));
    const solid = shapes.extruded(shapes.region(frame.outline, []), shapes.origin, roof.thickness);
    const rest = [word('ROOF')];
    const ref = this.product('IFCSLAB', roof.id, 'Roof plane', storey, roof.level, place, shapes.shape([solid]), rest);
    this.made.layered('IFCSLABTYPE', ref, { ...roof, predefined: 'ROOF' });
    const size = Math.abs(area(frame.outline));
    this.relations.quantities(roof.id, ref, 'Qto_SlabBaseQuantities', [
      ['Width', 'LENGTH', roof.thickness],
      ['GrossArea', 'AREA', size],
      ['NetArea', 'AREA', size],
      ['GrossVolume', 'VOLUME', size * roof.thickness],
    ]);
  }
}

const sizeName = (section: Column['section']): string => {
  const { width, depth } = sectionSize(section);
  return `${(width * 1000).toFixed(0)} x ${(depth * 1000).toFixed(0)}`;
};

/** A point of the project in a wall's own plan: about its start, along its line where it is straight. */
function inWall({ start, end, bulge }: Wall, [x, y]: Point): Point {
  const [dx, dy] = [x - start[0], y - start[1]];
  if (bulge !== 0) return [dx, dy];
  const length = Math.hypot(end[0] - start[0], end[1] - start[1]) || 1;
  const [c, s] = [(end[0] - start[0]) / length, (end[1] - start[1]) / length];
  return [c * dx + s * dy, c * dy - s * dx];
}

const bandAbout = (wall: Wall, line: readonly Point[]): Point[] =>
  bandOutline(
    line.map((p) => inWall(wall, p)),
    wall.thickness,
  );

/** A plane through corners in space: its own x and z, z upward, and the corners in it. */
function planeOf(corners: readonly (readonly number[])[]) {
  const [origin, next] = corners;
  if (corners.length < 3) return null;
  // Newell's normal: the sum over all sides, which no three corners in a line spoil.
  const n = [0, 0, 0];
  corners.forEach((p, i) => {
    const q = corners[(i + 1) % corners.length];
    for (let k = 0; k < 3; k += 1) n[k] += (p[(k + 1) % 3] - q[(k + 1) % 3]) * (p[(k + 2) % 3] + q[(k + 2) % 3]);
  });
  const size = Math.hypot(...n);
  const along = [0, 1, 2].map((k) => next[k] - origin[k]);
  const reach = Math.hypot(...along);
  if (size === 0 || reach === 0) return null;
  const up = n[2] < 0 ? -size : size;
  const z: Space = [n[0] / up, n[1] / up, n[2] / up];
  const x: Space = [along[0] / reach, along[1] / reach, along[2] / reach];
  const y: Space = [z[1] * x[2] - z[2] * x[1], z[2] * x[0] - z[0] * x[2], z[0] * x[1] - z[1] * x[0]];
  const outline = corners.map((p): Point => {
    const d = [0, 1, 2].map((k) => p[k] - origin[k]);
    return [d[0] * x[0] + d[1] * x[1] + d[2] * x[2], d[0] * y[0] + d[1] * y[1] + d[2] * y[2]];
  });
  return { origin: [origin[0], origin[1], origin[2]] as Space, x, z, outline };
}
