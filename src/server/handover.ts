import { surveyPlacement } from '@/core/datum/survey';
import { writeElementsDxf } from '@/core/handover/dxf/writeElements';
import { writeGbxml } from '@/core/exports/gbxml/writeGbxml';
import { paperNames, planLayers, scales, type PlanWish } from '@/core/exports/sheets/paper';
import { sheetSvg } from '@/core/exports/sheets/svg';
import { csvOf } from '@/core/exports/schedules/csv';
import { intakeTables } from '@/core/exports/schedules/intake';
import { schedulesOf } from '@/core/exports/schedules/schedules';
import { readBackIfc, type ReadBack } from '@/core/exports/ifc/readBack';
import { writeIfc } from '@/core/exports/ifc/writeIfc';
import { elementsAt } from '@/core/model/levels';
import { sheetsOf } from './deliveries/formats';
import { load, ordered, readModelOf } from './modelOf';
import { notFound, Problem } from './problem';
import { sheetsPdf } from './sheetsPdf';
import { takenDrawings } from './takenDrawings';
import { workbookOf } from './workbook';
import { faceThatShips } from './faces';

/** The model as IFC4, read again before it is given away: what of each kind came back. */
export async function modelIfc(project: string): Promise<{ name: string; content: string; back: ReadBack[] }> {
  const { name, model } = await readModelOf(project);
  // The analysis model takes seconds where the model is large: it goes with deliveries, which are written elsewhere.
  const content = writeIfc(model, { name, time: new Date().toISOString().slice(0, 19), analysis: false });
  const back = readBackIfc(content, model);
  if (!back.ok) throw new Problem(500, back.message);
  return { name: `${name}.ifc`, content, back: back.value };
}

/** The rooms of a model with what closes them, as gbXML. */
export async function modelGbxml(project: string): Promise<{ name: string; content: string }> {
  const { name, model } = await readModelOf(project);
  if (model.zones.length === 0)
    throw new Problem(
      409,
      'The model has no zone, so that there is no space to hand over. Accept zones at Reading first.',
    );
  return { name: `${name}.xml`, content: writeGbxml(model, name) };
}

/** What sheets are asked for, as the address says it. */
export interface AskedSheet {
  paper: string | null;
  scale: number | null;
  /** Names of what plans show, with commas between. */
  layers: string | null;
}

/** A sheet and a scale that there are, else what fits; layers that there are, else all. */
function wishOf({ paper, scale, layers }: AskedSheet): Pick<PlanWish, 'paper' | 'scale' | 'layers'> {
  const names = layers?.split(',') ?? planLayers;
  return {
    paper: paperNames.find((one) => one === paper),
    scale: scales.find((one) => one === scale),
    layers: planLayers.filter((one) => names.includes(one)),
  };
}

/**
 * The plan of a level, or another sheet, as SVG at a true scale.
 * @param of the level's id, or what the sheet is called
 */
export async function sheetOf(
  project: string,
  of: { level: string | null; sheet: string | null },
  asked: AskedSheet,
): Promise<{ name: string; content: string }> {
  const { name, model } = await readModelOf(project);
  const level = model.levels.find(({ id }) => id === of.level);
  const about = { name, made: new Date(), levels: level === undefined ? [] : [level.id] };
  const sheets = sheetsOf(model, about, wishOf(asked));
  const found = level === undefined ? sheets.find(({ file }) => file === of.sheet) : sheets[0];
  if (found === undefined) throw notFound('This sheet');
  const called = level === undefined ? found.file : level.name;
  return { name: `${name} ${called}.svg`, content: sheetSvg(found.sheet, await faceThatShips()) };
}

/** The plans of all levels, the highest first, sections and storeys as one PDF. */
export async function plansPdf(project: string, asked: AskedSheet): Promise<{ name: string; content: Uint8Array }> {
  const { name, model } = await readModelOf(project);
  const made = new Date();
  const falling = { ...model, levels: [...model.levels].sort((a, b) => b.elevation - a.elevation) };
  const sheets = sheetsOf(falling, { name, made }, wishOf(asked)).map(({ sheet }) => sheet);
  return { name: `${name}.pdf`, content: await sheetsPdf(sheets, name, made) };
}

/** All schedules of a model as a workbook. */
export async function modelWorkbook(project: string): Promise<{ name: string; content: Uint8Array }> {
  const { name, model, drawings } = await readModelOf(project);
  const tables = [...schedulesOf(model), ...intakeTables(await takenDrawings(project, drawings))];
  return { name: `${name}.xlsx`, content: await workbookOf(tables, new Date()) };
}

/** One schedule of a model as CSV. */
export async function scheduleCsv(project: string, kind: string): Promise<{ name: string; content: string }> {
  const { name, model } = await readModelOf(project);
  const schedule = schedulesOf(model).find((one) => one.name === kind);
  if (schedule === undefined) throw notFound('This schedule');
  return { name: `${name} ${kind}.csv`, content: csvOf(schedule) };
}

/** The elements as a DXF that overlays a drawing of the project. */
export async function elementsDxf(project: string, drawingId: string): Promise<{ name: string; content: string }> {
  const { state } = await load(project);
  const [drawing, placement] = [state.drawing[drawingId], state.placement[drawingId]];
  if (!drawing || !placement) throw notFound('This drawing');
  // Elements of other levels do not overlay this plan.
  const here = ordered(elementsAt(state, drawing.levelId));
  if (here.length === 0)
    throw new Problem(409, 'There is no element to hand over yet. Accept candidates at Reading first.');
  return { name: `${drawing.name} model.dxf`, content: writeElementsDxf(here, placement) };
}

/** The elements of a level as a DXF in metres at survey coordinates. */
export async function surveyDxf(project: string, levelId: string): Promise<{ name: string; content: string }> {
  const { state, name } = await load(project);
  const [level, { survey }] = [state.level[levelId], state.project[project]];
  if (!level) throw notFound('This level');
  if (survey === null)
    throw new Problem(
      409,
      'Where the project lies in the survey is not known. Give easting, northing and north at Datum, under Project, first.',
    );
  const here = ordered(elementsAt(state, levelId));
  if (here.length === 0)
    throw new Problem(409, 'There is no element to hand over yet. Accept candidates at Reading first.');
  return { name: `${name} ${level.name} survey.dxf`, content: writeElementsDxf(here, surveyPlacement(survey)) };
}
