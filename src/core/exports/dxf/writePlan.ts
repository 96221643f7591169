import { boxOf } from '@/core/geometry/boxIndex';
import { centroid } from '@/core/geometry/polygon';
import { degrees, direction, radians, type Point } from '@/core/geometry/vector';
import { groupBy } from '@/core/groupBy';
import { DxfWriter } from '@/core/handover/dxf/dxfWriter';
import { layersOut, outLayers } from '@/core/handover/dxf/writeElements';
import type { ReadModel } from '@/core/handover/model/readModel';
import { columnOutline } from '@/core/kinds/column';
import { alongLine, bandOutline, pieceOfLine } from '@/core/kinds/lines';
import { sectionName, sectionSize } from '@/core/kinds/section';
import { wallPlan, type WallPlan } from '../wallPlan';
import { Out, type Onto } from './onto';

type Level = ReadModel['levels'][number];
type Opening = ReadModel['openings'][number];

/** Heights of letters and the radius of bubbles, metres. */
const [small, usual, bubble] = [0.12, 0.25, 0.4];

/** The plan of a level as a DXF: on layers by kind, texts on layers of their own, doors and windows as blocks. */
export function writePlanDxf(model: ReadModel, level: Level, onto: Onto): string {
  const writer = new DxfWriter(onto.placement.unit, layersOut);
  new PlanDxf(writer, new Out(onto), model, level).write();
  return writer.finish();
}

class PlanDxf {
  constructor(
    private readonly writer: DxfWriter,
    private readonly out: Out,
    private readonly model: ReadModel,
    private readonly level: Level,
  ) {}

  write(): void {
    this.grid();
    this.areas();
    this.walls();
    this.beams();
    this.columns();
    this.rest();
  }

  private here = <T extends { level: string }>(all: readonly T[]): T[] =>
    all.filter(({ level }) => level === this.level.id);

  private ring(layer: string, outline: readonly Point[]): void {
    if (outline.length > 2) this.writer.polyline(layer, this.out.all(outline));
  }

  private text(layer: string, at: Point, height: number, text: string): void {
    if (text !== '') this.writer.text(layer, this.out.at(at), this.out.size(height), text);
  }

  private bubble(at: Point, label: string): void {
    this.writer.circle(outLayers.gridLabel, this.out.at(at), this.out.size(bubble));
    this.text(outLayers.gridLabel, at, usual, label);
  }

  private grid(): void {
    for (const line of this.model.grids) {
      if (line.kind === 'arc') {
        const { centre, radius, startAngle, endAngle, label } = line;
        const [from, to] = [this.out.turn(startAngle), this.out.turn(endAngle)];
        const angles = this.out.mirrored ? ([to, from] as const) : ([from, to] as const);
        this.writer.arc(outLayers.grid, this.out.at(centre), this.out.size(radius), ...angles);
        const [c, s] = direction(radians(endAngle) + bubble / radius);
        this.bubble([centre[0] + radius * c, centre[1] + radius * s], label);
        continue;
      }
      const { start, end, label } = line;
      this.writer.line(outLayers.grid, this.out.at(start), this.out.at(end));
      const { direction: d } = alongLine([start, end], 0);
      this.bubble([start[0] - d[0] * bubble, start[1] - d[1] * bubble], label);
      this.bubble([end[0] + d[0] * bubble, end[1] + d[1] * bubble], label);
    }
  }

  private areas(): void {
    for (const { outline, holes } of this.here(this.model.slabs))
      for (const ring of [outline, ...holes]) this.ring(outLayers.slab, ring);
    for (const { outline, holes, number, name } of this.here(this.model.zones)) {
      for (const ring of [outline, ...holes]) this.ring(outLayers.zone, ring);
      this.text(outLayers.zoneLabel, centroid(outline), usual, [number, name].filter(Boolean).join(' '));
    }
    for (const { outline } of this.here(this.model.outdoor)) this.ring(outLayers.outdoor, outline);
    for (const { outline } of this.here(this.model.roofs ?? []))
      this.ring(
        outLayers.roof,
        outline.map(([x, y]): Point => [x, y]),
      );
  }

  private walls(): void {
    const openings = groupBy(this.model.openings, ({ wall }) => wall);
    for (const wall of this.here(this.model.walls)) {
      const plan = wallPlan(wall, openings.get(wall.id) ?? []);
      if (plan === null) continue;
      for (const [from, to] of plan.solid)
        this.ring(outLayers.wall, bandOutline(pieceOfLine(plan.line, from, to), wall.thickness));
      for (const opening of plan.openings) this.opening(opening, plan, wall.thickness);
    }
  }

  /** A door or a window as a block of its size: about the start of its width, on the middle of the wall. */
  private opening({ kind, offset, width }: Opening, { line, length }: WallPlan, thickness: number): void {
    const [from, to] = [Math.max(0, offset), Math.min(length, offset + width)];
    if (to <= from) return;
    const { point } = alongLine(line, from);
    const { point: end } = alongLine(line, to);
    const wide = Math.hypot(end[0] - point[0], end[1] - point[1]);
    const name = `ZF-${kind.toUpperCase()}-${Math.round(wide * 1000)}-${Math.round(thickness * 1000)}`;
    if (!this.writer.hasBlock(name)) this.writer.block(name, () => this.openingBlock(kind, wide, thickness));
    const turn = degrees(Math.atan2(end[1] - point[1], end[0] - point[0]));
    this.writer.insert(outLayers.opening, name, this.out.at(point), this.out.turn(turn), this.out.mirrored);
  }

  private openingBlock(kind: string, width: number, thickness: number): void {
    const { writer, out } = this;
    const [w, t] = [out.size(width), out.size(thickness / 2)];
    const layer = outLayers.opening;
    writer.polyline(layer, [
      [0, -t],
      [w, -t],
      [w, t],
      [0, t],
    ]);
    if (kind === 'window') {
      writer.line(layer, [0, 0], [w, 0]);
      return;
    }
    // The leaf stands open, and the quarter of a circle that it goes.
    writer.line(layer, [0, t], [0, t + w]);
    writer.arc(layer, [0, t], w, 0, 90);
  }

  private beams(): void {
    for (const { start, end, section, mark } of this.here(this.model.beams)) {
      const line: Point[] = [
        [start[0], start[1]],
        [end[0], end[1]],
      ];
      if (line[0][0] === line[1][0] && line[0][1] === line[1][1]) continue;
      this.ring(outLayers.beam, bandOutline(line, sectionSize(section).width));
      this.text(outLayers.beam, alongLine(line, 0.5).point, small, mark);
    }
  }

  private columns(): void {
    for (const column of this.here(this.model.columns)) {
      const { section, position, mark } = column;
      if (section.shape === 'circle')
        this.writer.circle(outLayers.column, this.out.at(position), this.out.size(section.diameter / 2));
      else this.ring(outLayers.column, columnOutline(column));
      const [, , x, y] = boxOf(columnOutline(column));
      this.text(outLayers.columnLabel, [x + usual, y + small], small, mark || sectionName(section));
    }
  }

  private rest(): void {
    const { model, level, writer, out } = this;
    const on = (z: number): boolean => z >= level.elevation - 1e-6 && z < level.elevation + level.height;
    for (const { position, photometry } of model.luminaires ?? []) {
      const [x, y, z] = position;
      if (!on(z)) continue;
      writer.circle(outLayers.luminaire, out.at([x, y]), out.size(small));
      this.text(outLayers.luminaire, [x, y - usual], small, photometry);
    }
    for (const { outline, z } of model.calculationAreas ?? []) if (on(z)) this.ring(outLayers.calculationArea, outline);
    if (level.kind !== 'ground') return;
    for (const { points, elevation } of model.terrain ?? []) {
      if (points.length > 1) writer.polyline(outLayers.contour, out.all(points), { open: true });
      else writer.circle(outLayers.contour, out.at(points[0]), out.size(small));
      this.text(outLayers.contour, points[Math.floor(points.length / 2)], usual, elevation.toFixed(2));
    }
  }
}
