import type { ElementKind, ElementRow } from '@/core/kinds/element';
import { columnOutlines } from '@/core/kinds/column';
import { sectionName } from '@/core/kinds/section';
import { outlinesOf } from '@/core/kinds/kinds';
import { metresPerDrawn, unplace, type Placement } from '@/core/datum/placement';
import { degrees, radians, type Point } from '@/core/geometry/vector';
import { centroid } from '@/core/geometry/polygon';
import { DxfWriter } from './dxfWriter';

/** The layers of a handed-over DXF. */
export const outLayers = {
  grid: 'ZF-GRID',
  gridLabel: 'ZF-GRID-LABEL',
  column: 'ZF-COLUMN',
  columnLabel: 'ZF-COLUMN-LABEL',
  beam: 'ZF-BEAM',
  wall: 'ZF-WALL',
  opening: 'ZF-OPENING',
  slab: 'ZF-SLAB',
  zone: 'ZF-ZONE',
  zoneLabel: 'ZF-ZONE-LABEL',
  outdoor: 'ZF-OUTDOOR',
  roof: 'ZF-ROOF',
  support: 'ZF-SUPPORT',
  pointLoad: 'ZF-LOAD-POINT',
  lineLoad: 'ZF-LOAD-LINE',
  areaLoad: 'ZF-LOAD-AREA',
  luminaire: 'ZF-LUMINAIRE',
  calculationArea: 'ZF-CALCULATION-AREA',
  contour: 'ZF-CONTOUR',
} as const;

/** The layers with their colours, by the kind that makes them: where there is none of it the layer is not there. */
export const layersOut: readonly { of: ElementKind; name: string; colour: number }[] = [
  { of: 'grid', name: outLayers.grid, colour: 8 },
  { of: 'grid', name: outLayers.gridLabel, colour: 8 },
  { of: 'column', name: outLayers.column, colour: 6 },
  { of: 'column', name: outLayers.columnLabel, colour: 6 },
  { of: 'beam', name: outLayers.beam, colour: 30 },
  { of: 'wall', name: outLayers.wall, colour: 5 },
  { of: 'opening', name: outLayers.opening, colour: 1 },
  { of: 'slab', name: outLayers.slab, colour: 42 },
  { of: 'zone', name: outLayers.zone, colour: 3 },
  { of: 'zone', name: outLayers.zoneLabel, colour: 3 },
  { of: 'outdoor', name: outLayers.outdoor, colour: 82 },
  { of: 'roof', name: outLayers.roof, colour: 34 },
  { of: 'support', name: outLayers.support, colour: 170 },
  { of: 'pointLoad', name: outLayers.pointLoad, colour: 12 },
  { of: 'lineLoad', name: outLayers.lineLoad, colour: 12 },
  { of: 'areaLoad', name: outLayers.areaLoad, colour: 12 },
  { of: 'luminaire', name: outLayers.luminaire, colour: 52 },
  { of: 'calculationArea', name: outLayers.calculationArea, colour: 140 },
  { of: 'contour', name: outLayers.contour, colour: 36 },
];

/** Grid labels stand this far beyond the line's ends, in rings of this radius; metres. */
const ring = 0.4;
/** The radius of the mark of a spot height, metres. */
const spot = 0.1;

/**
 * The elements as a DXF on layers of their own, in a drawing's unit and on its origin, so that it overlays
 * that drawing exactly.
 * @param placement how that drawing lies in the project
 */
export function writeElementsDxf(elements: readonly ElementRow[], placement: Placement): string {
  const present = new Set(elements.map(({ kind }) => kind));
  const layers = layersOut.filter(({ of }) => present.has(of));
  const writer = new DxfWriter(placement.unit, layers);
  const back = (p: Point): Point => unplace(placement, p);
  const size = (metres: number) => metres / metresPerDrawn(placement);
  const turned = (angle: number) =>
    placement.mirrored ? 180 - (angle - degrees(placement.turning)) : angle - degrees(placement.turning);
  const label = (at: Point, text: string) => {
    writer.circle(outLayers.gridLabel, back(at), size(ring));
    writer.text(outLayers.gridLabel, back(at), size(ring), text);
  };
  const walls = new Map(
    elements.flatMap((element) => (element.kind === 'wall' ? [[element.id, element.shape] as const] : [])),
  );
  for (const element of elements) {
    if (element.kind === 'grid') {
      const { shape } = element;
      if (shape.kind === 'line') {
        writer.line(outLayers.grid, back(shape.start), back(shape.end));
        const length = Math.hypot(shape.end[0] - shape.start[0], shape.end[1] - shape.start[1]);
        const u: Point = [(shape.end[0] - shape.start[0]) / length, (shape.end[1] - shape.start[1]) / length];
        label([shape.start[0] - u[0] * ring, shape.start[1] - u[1] * ring], shape.label);
        label([shape.end[0] + u[0] * ring, shape.end[1] + u[1] * ring], shape.label);
      } else {
        writer.arc(
          outLayers.grid,
          back(shape.centre),
          size(shape.radius),
          ...(placement.mirrored
            ? ([turned(shape.endAngle), turned(shape.startAngle)] as const)
            : ([turned(shape.startAngle), turned(shape.endAngle)] as const)),
        );
        const end = radians(shape.endAngle) + ring / shape.radius;
        label(
          [shape.centre[0] + shape.radius * Math.cos(end), shape.centre[1] + shape.radius * Math.sin(end)],
          shape.label,
        );
      }
    } else if (element.kind === 'column') {
      const { section, position } = element.shape;
      if (section.shape === 'circle')
        for (const inwards of [0, ...(section.wall === undefined ? [] : [section.wall])])
          writer.circle(outLayers.column, back(position), size(section.diameter / 2 - inwards));
      else for (const outline of columnOutlines(element.shape)) writer.polyline(outLayers.column, outline.map(back));
      writer.text(outLayers.columnLabel, back(position), size(0.1), element.shape.mark || sectionName(section));
    } else if (element.kind === 'contour') {
      const { points, elevation } = element.shape;
      const at = back(points[Math.floor(points.length / 2)]);
      if (points.length > 1) writer.polyline(outLayers.contour, points.map(back), { open: true });
      else writer.circle(outLayers.contour, at, size(spot));
      writer.text(outLayers.contour, at, size(0.25), elevation.toFixed(3));
    } else {
      const wall = element.kind === 'opening' ? (walls.get(element.shape.wall) ?? null) : null;
      for (const outline of outlinesOf(element, wall)) writer.polyline(outLayers[element.kind], outline.map(back));
      if (element.kind === 'zone')
        writer.text(
          outLayers.zoneLabel,
          back(centroid(element.shape.outline)),
          size(0.25),
          [element.shape.number, element.shape.name].filter(Boolean).join(' '),
        );
    }
  }
  return writer.finish();
}
