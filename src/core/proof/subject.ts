import { BoxIndex, boxOf, type Box } from '@/core/geometry/boxIndex';
import type { Point } from '@/core/geometry/vector';
import { groupBy } from '@/core/groupBy';
import { columnOutline } from '@/core/kinds/column';
import { bandOutline, bulgedLine } from '@/core/kinds/lines';
import { sectionSize } from '@/core/kinds/section';
import type { ReadModel } from '@/core/handover/model/readModel';

export type ModelLevel = ReadModel['levels'][number];
export type ModelColumn = ReadModel['columns'][number];
export type ModelBeam = ReadModel['beams'][number];
export type ModelWall = ReadModel['walls'][number];
export type ModelOpening = ReadModel['openings'][number];
export type ModelZone = ReadModel['zones'][number];

/** A wall with its heights, its centre line and its outline in plan. */
export interface StandingWall {
  wall: ModelWall;
  base: number;
  top: number;
  line: Point[];
  outline: Point[];
  box: Box;
  openings: ModelOpening[];
}

/** A column with its heights and its outline in plan. */
export interface StandingColumn {
  column: ModelColumn;
  base: number;
  top: number;
  outline: Point[];
  box: Box;
}

/** A beam with its outline in plan. */
export interface LyingBeam {
  beam: ModelBeam;
  outline: Point[];
  box: Box;
}

/** A model with what rules ask of it, worked out once. */
export interface Subject {
  model: ReadModel;
  levels: ReadonlyMap<string, ModelLevel>;
  walls: StandingWall[];
  columns: StandingColumn[];
  beams: LyingBeam[];
  wallsNear: (p: Point, reach: number) => StandingWall[];
  columnsNear: (p: Point, reach: number) => StandingColumn[];
  beamsNear: (p: Point, reach: number) => LyingBeam[];
}

/** The plan's part of coordinates. */
export const inPlan = ([x, y]: readonly number[]): Point => [x, y];

/** Works out what rules ask of a model. */
export function subjectOf(model: ReadModel): Subject {
  const levels = new Map(model.levels.map((level) => [level.id, level]));
  const openings = groupBy(model.openings, ({ wall }) => wall);
  const walls = model.walls.map((wall): StandingWall => {
    const level = levels.get(wall.level);
    const line = bulgedLine(inPlan(wall.start), inPlan(wall.end), wall.bulge);
    const outline = bandOutline(line, wall.thickness);
    const base = wall.base ?? level?.elevation ?? 0;
    const top = wall.top ?? base + wall.height;
    return { wall, base, top, line, outline, box: boxOf(outline), openings: openings.get(wall.id) ?? [] };
  });
  const columns = model.columns.map((column): StandingColumn => {
    const level = levels.get(column.level);
    const outline = columnOutline({ ...column, position: inPlan(column.position) });
    const base = column.base ?? level?.elevation ?? 0;
    const top = column.top ?? (level === undefined ? base : level.elevation + level.height);
    return { column, base, top, outline, box: boxOf(outline) };
  });
  const beams = model.beams.map((beam): LyingBeam => {
    const outline = bandOutline([inPlan(beam.start), inPlan(beam.end)], sectionSize(beam.section).width);
    return { beam, outline, box: boxOf(outline) };
  });
  const near = <T extends { box: Box }>(items: T[]) => {
    const index = new BoxIndex(items, ({ box }) => box);
    return (p: Point, reach: number): T[] => [...index.around(p, reach)];
  };
  return {
    model,
    levels,
    walls,
    columns,
    beams,
    wallsNear: near(walls),
    columnsNear: near(columns),
    beamsNear: near(beams),
  };
}
