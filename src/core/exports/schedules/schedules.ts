import { groupBy } from '@/core/groupBy';
import type { ReadModel } from '@/core/handover/model/readModel';
import { usualMaterials } from '@/core/kinds/material';
import { sectionArea, sectionName, type Section } from '@/core/kinds/section';
import { columnReach, netAreaOf, wallSizes } from '../sizes';
import { Report } from '@/core/proof/report';
import { roomsOf, Slabs } from '@/core/rooms/rooms';
import { propertiesOf } from '@/core/structure/section/properties';
import { columnsOf, rounded, type Cell, type Schedule } from './table';

/** Every schedule of a model that has rows. */
export function schedulesOf(model: ReadModel): Schedule[] {
  const names = new Map(model.levels.map(({ id, name }) => [id, name]));
  const levelName = (level: string): string => names.get(level) ?? level;
  const materials = new Map([
    ...usualMaterials.map(({ id, name }) => [id, name] as const),
    ...(model.materials ?? []).map(({ id, name }) => [id, name ?? id] as const),
  ]);
  const elevations = new Map(model.levels.map(({ id, elevation }) => [id, elevation]));
  const elevationOf = (level: string): number => elevations.get(level) ?? 0;
  const of: Of = {
    model,
    levelName,
    elevationOf,
    materialName: (id) => (id === undefined ? '' : (materials.get(id) ?? id)),
  };
  return [
    levels(of),
    columns(of),
    beams(of),
    walls(of),
    openings(of),
    slabs(of),
    rooms(of),
    constructions(of),
    sections(of),
    quantities(of),
  ].filter(({ rows }) => rows.length > 0);
}

interface Of {
  model: ReadModel;
  levelName: (level: string) => string;
  elevationOf: (level: string) => number;
  materialName: (id: string | undefined) => string;
}

const levels = ({ model }: Of): Schedule => ({
  name: 'levels',
  columns: columnsOf('level', ['elevation', 'm'], ['height', 'm'], 'kind'),
  rows: model.levels.map(({ name, elevation, height, kind }) => [name, elevation, height, kind ?? '']),
});

const columns = ({ model, levelName, materialName }: Of): Schedule => ({
  name: 'columns',
  columns: columnsOf(
    'id',
    'mark',
    'level',
    'section',
    'material',
    ['x', 'm'],
    ['y', 'm'],
    ['base', 'm'],
    ['top', 'm'],
    ['turned', 'deg'],
    ['area', 'm2'],
    ['volume', 'm3'],
  ),
  rows: model.columns.map((column) => {
    const [base, top] = columnReach(column, model);
    const size = sectionArea(column.section);
    const [x, y] = column.position;
    return [
      column.id,
      column.mark,
      levelName(column.level),
      sectionName(column.section),
      materialName(column.material),
      ...[x, y, base, top, column.rotation, size, size * Math.max(0, top - base)].map(rounded),
    ];
  }),
});

const lengthOfBeam = ({ start, end }: ReadModel['beams'][number]): number =>
  Math.hypot(end[0] - start[0], end[1] - start[1], end[2] - start[2]);

const beams = ({ model, levelName, materialName }: Of): Schedule => ({
  name: 'beams',
  columns: columnsOf(
    'id',
    'mark',
    'level',
    'section',
    'material',
    'use',
    ['length', 'm'],
    ['start x', 'm'],
    ['start y', 'm'],
    ['start z', 'm'],
    ['end x', 'm'],
    ['end y', 'm'],
    ['end z', 'm'],
    ['volume', 'm3'],
  ),
  rows: model.beams.map((beam) => [
    beam.id,
    beam.mark,
    levelName(beam.level),
    sectionName(beam.section),
    materialName(beam.material),
    beam.use ?? 'beam',
    ...[lengthOfBeam(beam), ...beam.start, ...beam.end, lengthOfBeam(beam) * sectionArea(beam.section)].map(rounded),
  ]),
});

const walls = ({ model, levelName, elevationOf, materialName }: Of): Schedule => {
  const own = groupBy(model.openings, ({ wall }) => wall);
  const names = new Map((model.constructions ?? []).map(({ id, name }) => [id, name]));
  return {
    name: 'walls',
    columns: columnsOf(
      'id',
      'level',
      'outside',
      'carries',
      'construction',
      'material',
      ['thickness', 'm'],
      ['length', 'm'],
      ['height', 'm'],
      ['face', 'm2'],
      ['net face', 'm2'],
      ['net volume', 'm3'],
    ),
    rows: model.walls.map((wall) => {
      const { length, height, gross, net } = wallSizes(wall, elevationOf(wall.level), own.get(wall.id) ?? []);
      return [
        wall.id,
        levelName(wall.level),
        wall.outer ? 'yes' : 'no',
        wall.bearing === undefined ? '' : yesNo(wall.bearing),
        names.get(wall.construction ?? '') ?? '',
        materialName(wall.material),
        ...[wall.thickness, length, height, gross, net, net * wall.thickness].map(rounded),
      ];
    }),
  };
};
const yesNo = (is: boolean): string => (is ? 'yes' : 'no');

const openings = ({ model, levelName }: Of): Schedule => {
  const byId = new Map(model.walls.map((wall) => [wall.id, wall]));
  const names = new Map((model.constructions ?? []).map(({ id, name }) => [id, name]));
  return {
    name: 'openings',
    columns: columnsOf(
      'id',
      'kind',
      'level',
      'wall',
      'construction',
      ['width', 'm'],
      ['height', 'm'],
      ['sill', 'm'],
      ['from the wall\u2019s start', 'm'],
      ['area', 'm2'],
    ),
    rows: model.openings.map(({ id, kind, wall, construction, width, height, sill, offset }) => [
      id,
      kind,
      levelName(byId.get(wall)?.level ?? ''),
      wall,
      names.get(construction ?? '') ?? '',
      ...[width, height, sill, offset, width * height].map(rounded),
    ]),
  };
};

const slabs = ({ model, levelName, materialName }: Of): Schedule => ({
  name: 'slabs',
  columns: columnsOf('id', 'level', 'material', ['thickness', 'm'], ['top', 'm'], ['area', 'm2'], ['volume', 'm3']),
  rows: model.slabs.map((slab) => [
    slab.id,
    levelName(slab.level),
    materialName(slab.material),
    ...[slab.thickness, slab.top ?? 0, netAreaOf(slab), netAreaOf(slab) * slab.thickness].map(rounded),
  ]),
});

const rooms = ({ model, levelName }: Of): Schedule => ({
  name: 'rooms',
  columns: columnsOf(
    'id',
    'number',
    'name',
    'level',
    'use',
    ['area by inner faces', 'm2'],
    ['clear height', 'm'],
    ['volume', 'm3'],
    ['held at', 'degC'],
    ['air changes', '1/h'],
    ['gains', 'W/m2'],
  ),
  rows: roomsOf(model, new Slabs(model), new Report()).map(({ id, zone, area: size, low, high }) => [
    id,
    zone.number,
    zone.name,
    levelName(zone.level),
    zone.use ?? '',
    ...[size, high - low, size * (high - low)].map(rounded),
    zone.temperature ?? (zone.temperature === null ? 'unheated' : null),
    zone.airChange ?? null,
    zone.gains ?? null,
  ]),
});

const constructions = ({ model }: Of): Schedule => ({
  name: 'constructions',
  columns: columnsOf(
    'construction',
    'layer',
    ['thickness', 'm'],
    ['conductivity', 'W/(m K)'],
    ['density', 'kg/m3'],
    ['U-value', 'W/(m2 K)'],
  ),
  rows: (model.constructions ?? []).flatMap((row): Cell[][] =>
    row.kind === 'glazing' || row.layers.length === 0
      ? [[row.name, '', null, null, null, row.uValue]]
      : row.layers.map((layer, i) => [
          row.name,
          layer.name,
          layer.thickness,
          layer.conductivity,
          layer.density ?? null,
          i === 0 ? row.uValue : null,
        ]),
  ),
});

const sections = ({ model }: Of): Schedule => {
  const used = [...model.columns, ...model.beams].map(({ section }) => section as Section);
  const own = [...groupBy(used, (section) => JSON.stringify(section)).values()];
  return {
    name: 'sections',
    columns: columnsOf('section', 'used', ['area', 'm2'], ['about y', 'm4'], ['about z', 'm4'], ['torsion', 'm4']),
    rows: own.map((alike) => {
      const { area: size, iy, iz, j } = propertiesOf(alike[0]);
      return [sectionName(alike[0]), alike.length, rounded(size), iy, iz, j];
    }),
  };
};

/**
 * Net volumes by kind, section or thickness, material and level. Openings and holes are taken out; what two elements
 * share, such as a beam and the slab that it hangs under, counts in both.
 */
const quantities = ({ model, levelName, elevationOf, materialName }: Of): Schedule => {
  const own = groupBy(model.openings, ({ wall }) => wall);
  const millimetres = (value: number): string => `${Number((value * 1000).toFixed(1))} mm`;
  const lines: { key: readonly string[]; length: number; face: number; volume: number }[] = [
    ...model.columns.map((one) => {
      const [base, top] = columnReach(one, model);
      const length = Math.max(0, top - base);
      const key = ['columns', sectionName(one.section), materialName(one.material), levelName(one.level)];
      return { key, length, face: 0, volume: length * sectionArea(one.section) };
    }),
    ...model.beams.map((one) => {
      const length = lengthOfBeam(one);
      const key = ['beams', sectionName(one.section), materialName(one.material), levelName(one.level)];
      return { key, length, face: 0, volume: length * sectionArea(one.section) };
    }),
    ...model.walls.map((one) => {
      const { length, net } = wallSizes(one, elevationOf(one.level), own.get(one.id) ?? []);
      const key = ['walls', millimetres(one.thickness), materialName(one.material), levelName(one.level)];
      return { key, length, face: net, volume: net * one.thickness };
    }),
    ...model.slabs.map((one) => {
      const key = ['slabs', millimetres(one.thickness), materialName(one.material), levelName(one.level)];
      return { key, length: 0, face: netAreaOf(one), volume: netAreaOf(one) * one.thickness };
    }),
  ];
  const sum = (of: readonly (typeof lines)[number][], what: 'length' | 'face' | 'volume'): number =>
    rounded(of.reduce((all, line) => all + line[what], 0));
  return {
    name: 'quantities',
    columns: columnsOf(
      'kind',
      'section',
      'material',
      'level',
      'count',
      ['length', 'm'],
      ['net area', 'm2'],
      ['net volume', 'm3'],
    ),
    rows: [...groupBy(lines, ({ key }) => key.join('\n')).values()].map((alike) => [
      ...alike[0].key,
      alike.length,
      sum(alike, 'length'),
      sum(alike, 'face'),
      sum(alike, 'volume'),
    ]),
  };
};
