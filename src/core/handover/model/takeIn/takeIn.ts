import * as v from 'valibot';
import { few } from '@/core/few';
import type { ElementRow } from '@/core/kinds/element';
import { put, type Change } from '@/core/model/edits';
import { projectRow, tableSchemas, type ProjectRow, type TableName } from '@/core/model/state';
import { fail, ok, type Result } from '@/core/result';
import type { ReadModel } from '../readModel';
import {
  beamRow,
  columnRow,
  openingRow,
  outdoorRow,
  roofRow,
  slabRow,
  wallRow,
  zoneRow,
  type Taking,
} from './building';
import { calculationRows } from './calculation';
import { Ids, Told } from './ids';
import { Ladder, levelRows, repeatingIn } from './levels';
import { libraryOf, siteOf, structureOf, surveyOf } from './settings';

/** A model as the rows of a new project. */
export interface TakenIn {
  project: Pick<ProjectRow, 'survey' | 'structure' | 'site'>;
  changes: Change[];
  /** What could not be taken as the file has it, in sentences. */
  told: string[];
}

/**
 * The rows of a project that is the model of a file: handed over again it is the same. Of its drawings the file holds
 * only the names, so that nothing has a source.
 * @param fresh makes ids
 */
export function takeIn(model: ReadModel, fresh: () => string): Result<TakenIn> {
  if (model.levels.length === 0) return fail('The model has no level, so that nobody knows how high to put anything.');
  const [ids, told] = [new Ids(fresh), new Told()];
  const repeating = repeatingIn(model);
  for (const { id, name, repeats } of model.levels)
    if (repeats !== undefined && !repeating.has(id))
      told.add('Levels that repeat another stand for themselves, for something on them differs', name);
  const own = withoutRepeated(model, repeating);
  const levels = levelRows(own, ids, repeating);
  const library = libraryOf(own, ids);
  const taking: Taking = { model: own, ids, ladder: new Ladder(own.levels), told };
  const elements = [...elementRows(taking), ...calculationRows(taking)];
  if (ids.doubled.size > 0)
    return fail(`The file has ids that are given twice: ${few([...ids.doubled])}. Expected each to be one of its own.`);
  const rows = [
    ...levels.map((row) => ({ table: 'level', row }) as const),
    ...library.map((row) => ({ table: 'library', row }) as const),
    ...elements.map((row) => ({ table: 'element', row }) as const),
  ];
  const project = { survey: surveyOf(model), structure: structureOf(model), site: siteOf(model, ids, told) };
  const wrong = [...wrongIn(settings, 'settings', project), ...rows.flatMap(wrongRow)];
  if (wrong.length > 0) return fail(`The model cannot be taken in: ${few(wrong, 5, '; ')}. Nothing was made.`);
  return ok({
    project,
    changes: rows.map(({ table, row }) => put(table, row)),
    told: told.sentences,
  });
}

/** What a project is told of a file beside its elements. */
const settings = v.pick(projectRow, ['survey', 'structure', 'site']);

/** The first thing that is wrong with something that is to be stored. */
function wrongIn(schema: v.GenericSchema, what: string, row: unknown): string[] {
  const { issues = [] } = v.safeParse(schema, row);
  return issues.slice(0, 1).map((issue) => `${what}, ${v.getDotPath(issue) ?? 'as a whole'}: ${issue.message}`);
}

const wrongRow = ({ table, row }: { table: TableName; row: { kind?: string } }): string[] =>
  wrongIn(tableSchemas[table], table === 'element' ? (row.kind ?? table) : table, row);

/** The model without what stands on levels that repeat another: the project puts it there by itself. */
function withoutRepeated(model: ReadModel, repeating: ReadonlySet<string>): ReadModel {
  const kept = <T extends { id?: string }>(list: readonly T[] = []): T[] =>
    list.filter(({ id }) => !repeating.has(id?.split('@')[1] ?? ''));
  return {
    ...model,
    columns: kept(model.columns),
    beams: kept(model.beams),
    walls: kept(model.walls),
    openings: kept(model.openings),
    slabs: kept(model.slabs),
    zones: kept(model.zones),
    outdoor: kept(model.outdoor),
    roofs: kept(model.roofs),
    supports: kept(model.supports),
    loads: kept(model.loads),
    luminaires: kept(model.luminaires),
    calculationAreas: kept(model.calculationAreas),
  };
}

type Level = ReadModel['levels'][number];

function elementRows(taking: Taking): ElementRow[] {
  const { model, ladder, told, ids } = taking;
  const on = <T extends { id: string; level: string }>(
    list: readonly T[],
    make: (one: T, level: Level) => ElementRow,
  ) =>
    list.flatMap((one) => {
      const level = ladder.at(one.level);
      if (level === null) told.add('Left out, for their levels are not in the file', one.id);
      return level === null ? [] : [make(one, level)];
    });
  const walls = on(model.walls, (one, level) => wallRow(taking, one, level));
  const hosts = new Map(model.walls.map((wall) => [wall.id, wall]));
  const openings = model.openings.flatMap((opening) => {
    const [wall, level] = [ids.of('wall', opening.wall), ladder.at(hosts.get(opening.wall)?.level)];
    if (wall !== null && level !== null) return [openingRow(taking, opening, level, wall)];
    told.add('Doors and windows left out, for their walls are not in the file', opening.id);
    return [];
  });
  return [
    ...on(model.columns, (one, level) => columnRow(taking, one, level)),
    ...on(model.beams, (one, level) => beamRow(taking, one, level)),
    ...walls,
    ...openings,
    ...on(model.slabs, (one, level) => slabRow(taking, one, level)),
    ...on(model.zones, (one, level) => zoneRow(taking, one, level)),
    ...on(model.outdoor, (one, level) => outdoorRow(taking, one, level)),
    ...on(model.roofs ?? [], (one, level) => roofRow(taking, one, level)),
  ];
}
