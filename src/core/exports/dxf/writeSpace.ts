import type { Point } from '@/core/geometry/vector';
import { groupBy } from '@/core/groupBy';
import { DxfWriter } from '@/core/handover/dxf/dxfWriter';
import { layersOut, outLayers } from '@/core/handover/dxf/writeElements';
import type { ReadModel } from '@/core/handover/model/readModel';
import { alongLine, bulgedLine } from '@/core/kinds/lines';
import { columnReach } from '../sizes';
import { Out, type Onto } from './onto';

/** The whole model as lines in space: axes of members, walls, slabs and rooms by their edges, at their heights. */
export function writeSpaceDxf(model: ReadModel, onto: Onto): string {
  const writer = new DxfWriter(onto.placement.unit, layersOut);
  new SpaceDxf(writer, new Out(onto), model).write();
  return writer.finish();
}

class SpaceDxf {
  private readonly elevations: ReadonlyMap<string, number>;

  constructor(
    private readonly writer: DxfWriter,
    private readonly out: Out,
    private readonly model: ReadModel,
  ) {
    this.elevations = new Map(model.levels.map(({ id, elevation }) => [id, elevation]));
  }

  write(): void {
    const { model, writer, out } = this;
    for (const column of model.columns) {
      const [low, high] = columnReach(column, model);
      writer.edge(outLayers.column, out.spot(column.position, low), out.spot(column.position, high));
    }
    for (const { start, end } of model.beams)
      writer.edge(outLayers.beam, out.spot([start[0], start[1]], start[2]), out.spot([end[0], end[1]], end[2]));
    this.walls();
    for (const { outline, holes, top, level } of model.slabs)
      for (const ring of [outline, ...holes]) this.ring(outLayers.slab, ring, top ?? this.elevationOf(level));
    for (const { outline, holes, level } of model.zones)
      for (const ring of [outline, ...holes]) this.ring(outLayers.zone, ring, this.elevationOf(level));
    for (const { outline } of model.roofs ?? []) this.spaceRing(outLayers.roof, outline);
    for (const { outline, level, height } of model.outdoor)
      this.ring(outLayers.outdoor, outline, this.elevationOf(level) + height);
    for (const { position } of model.supports ?? []) this.mark(outLayers.support, position);
    for (const { position } of model.luminaires ?? []) this.mark(outLayers.luminaire, position);
    for (const { outline, z } of model.calculationAreas ?? []) this.ring(outLayers.calculationArea, outline, z);
    for (const { points, elevation } of model.terrain ?? [])
      if (points.length > 1)
        writer.polyline(outLayers.contour, out.all(points), { open: true, elevation: out.height(elevation) });
      else this.mark(outLayers.contour, [...points[0], elevation]);
  }

  private elevationOf = (level: string): number => this.elevations.get(level) ?? 0;

  private ring(layer: string, outline: readonly Point[], z: number): void {
    if (outline.length > 2) this.writer.polyline(layer, this.out.all(outline), { elevation: this.out.height(z) });
  }

  private spaceRing(layer: string, corners: readonly (readonly [number, number, number])[]): void {
    corners.forEach(([x, y, z], i) => {
      const [u, v, w] = corners[(i + 1) % corners.length];
      this.writer.edge(layer, this.out.spot([x, y], z), this.out.spot([u, v], w));
    });
  }

  /** A short upright line at a point. */
  private mark(layer: string, [x, y, z]: readonly [number, number, number]): void {
    this.writer.edge(layer, this.out.spot([x, y], z), this.out.spot([x, y], z + markHeight));
  }

  /** The plane of each wall in its middle, and of its openings. */
  private walls(): void {
    const openings = groupBy(this.model.openings, ({ wall }) => wall);
    for (const wall of this.model.walls) {
      const line = bulgedLine(wall.start, wall.end, wall.bulge);
      const low = wall.base ?? this.elevationOf(wall.level);
      const high = wall.top ?? low + wall.height;
      const face = (points: readonly Point[], from: number, to: number, layer: string): void =>
        this.spaceRing(layer, [
          ...points.map(([x, y]) => [x, y, from] as const),
          ...[...points].reverse().map(([x, y]) => [x, y, to] as const),
        ]);
      if (wall.profile !== undefined && wall.profile.length > 1) this.profile(line, low, wall.profile);
      else face(line, low, high, outLayers.wall);
      for (const { offset, width, height, sill } of openings.get(wall.id) ?? []) {
        const ends = [offset, offset + width].map((at) => alongLine(line, at).point);
        face(ends, low + sill, low + sill + height, outLayers.opening);
      }
    }
  }

  /** The plane of a wall under a roof. @param profile metres along it, and the elevation of its top there */
  private profile(line: readonly Point[], low: number, profile: readonly Point[]): void {
    const at = (along: number, z: number) => [...alongLine(line, along).point, z] as const;
    const [first, last] = [profile[0][0], profile[profile.length - 1][0]];
    this.spaceRing(outLayers.wall, [
      at(first, low),
      at(last, low),
      ...[...profile].reverse().map(([along, z]) => at(along, z)),
    ]);
  }
}

/** Points are marked by lines so high, metres. */
const markHeight = 0.3;
