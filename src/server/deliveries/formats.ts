import { ontoProject, type Onto } from '@/core/exports/dxf/onto';
import { writePlanDxf } from '@/core/exports/dxf/writePlan';
import { writeSpaceDxf } from '@/core/exports/dxf/writeSpace';
import type { FormatName } from '@/core/exports/deliveries/wish';
import { writeGbxml } from '@/core/exports/gbxml/writeGbxml';
import { writeIfc } from '@/core/exports/ifc/writeIfc';
import { framesOf, ResultPictures } from '@/core/exports/results/pictures';
import { resultsOf, type Results } from '@/core/exports/results/results';
import { writeResultsDxf } from '@/core/exports/results/writeResultsDxf';
import { analysisTables, reportTables } from '@/core/exports/schedules/analysis';
import { csvOf } from '@/core/exports/schedules/csv';
import { intakeTables, type TakenDrawing } from '@/core/exports/schedules/intake';
import { schedulesOf } from '@/core/exports/schedules/schedules';
import type { Schedule } from '@/core/exports/schedules/table';
import type { PlanWish } from '@/core/exports/sheets/paper';
import { planSheet } from '@/core/exports/sheets/plan';
import { sectionSheet, sectionsOf } from '@/core/exports/sheets/section';
import type { Sheet } from '@/core/exports/sheets/sheet';
import { builtOf } from '@/core/exports/sheets/upright';
import { stackSheet } from '@/core/exports/sheets/stack';
import { sheetSvg } from '@/core/exports/sheets/svg';
import { tableSheets } from '@/core/exports/sheets/tables';
import type { ReadModel } from '@/core/handover/model/readModel';
import { faceThatShips } from '../faces';
import { sheetsPdf } from '../sheetsPdf';
import { workbookOf } from '../workbook';

/** A file that a format writes. */
export interface Written {
  file: string;
  /** Its media type. */
  type: string;
  content: string | Uint8Array;
  /** The tables or the sheets that it holds, where it is made of these: what is looked for when it is read again. */
  tables?: readonly Schedule[];
  sheets?: readonly Sheet[];
}

/** What every format is told. */
export interface About {
  /** What the model is called. */
  name: string;
  made: Date;
  /** Of DXF files; the project's own in metres where it is left out. */
  onto?: Onto;
  /** Whether the structural analysis model goes with IFC; it does where it is left out. */
  analysis?: boolean;
  /** The levels that have plans; all where it is left out. */
  levels?: readonly string[] | null;
  /** The drawings that the model was made of, with what came of their files. */
  drawings?: readonly TakenDrawing[];
  /** What the trials come to, worked out when a format first asks; of the model itself where it is left out. */
  results?: () => Results;
}

const resultsIn = (model: ReadModel, { results }: About): Results => (results ?? (() => resultsOf(model)))();

/** A name as a part of a file's. */
const fileName = (name: string): string => name.replace(/[^\p{L}\p{N}.-]+/gu, '_');

const workbookType = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

const isoOf = (made: Date): string => made.toISOString().slice(0, 19);

/** Tables as a workbook. */
const workbookFile = async (file: string, tables: readonly Schedule[], made: Date): Promise<Written> => ({
  file,
  type: workbookType,
  content: await workbookOf(tables, made),
  tables,
});

/** Sheets as a PDF. */
const pdfFile = async (file: string, sheets: readonly Sheet[], title: string, made: Date): Promise<Written> => ({
  file,
  type: 'application/pdf',
  content: await sheetsPdf(sheets, title, made),
  sheets,
});

/** The levels that have plans, each with what its file is called: levels whose names read alike are told apart. */
function plansOf(model: ReadModel, { levels = null }: About): { level: ReadModel['levels'][number]; file: string }[] {
  const known = new Map<string, number>();
  return model.levels
    .filter(({ id }) => levels === null || levels.includes(id))
    .map((level) => {
      const file = `plan-${fileName(level.name)}`;
      // Some file systems know no capitals.
      const before = known.get(file.toLowerCase()) ?? 0;
      known.set(file.toLowerCase(), before + 1);
      return { level, file: before === 0 ? file : `${file}-${before + 1}` };
    });
}

/** The plans of levels, the sections, and the storeys over one another, as sheets. */
export function sheetsOf(
  model: ReadModel,
  about: About,
  asked: Pick<PlanWish, 'paper' | 'scale' | 'layers'> = {},
): { file: string; sheet: Sheet }[] {
  const built = builtOf(model);
  const cuts = sectionsOf(built);
  const wish: PlanWish = { ...asked, project: about.name, date: isoOf(about.made).slice(0, 10), cuts };
  return [
    ...plansOf(model, about).map(({ level, file }) => ({ file, sheet: planSheet(model, level, wish) })),
    ...cuts.map((cut) => ({ file: `section-${cut.name}`, sheet: sectionSheet(built, cut, wish) })),
    { file: 'storeys', sheet: stackSheet(model, wish) },
  ];
}

/** Results over each plan, and in each upright plane through a grid line. */
function resultSheets(model: ReadModel, about: About, pictures: ResultPictures): Sheet[] {
  const wish: PlanWish = { project: about.name, date: isoOf(about.made).slice(0, 10) };
  const built = builtOf(model);
  const plain = { ...wish, layers: ['slabs', 'walls', 'columns', 'beams', 'grid'] } as const;
  return [
    ...plansOf(model, about).flatMap(({ level }) =>
      pictures.over(level).map((one) => planSheet(model, level, plain, one)),
    ),
    ...framesOf(model).flatMap(({ label, cut }) =>
      pictures.within(cut).map((one) => sectionSheet(built, { name: `along ${label}`, cut }, wish, one)),
    ),
  ];
}

/** Every format by its name: the files that a model becomes in it. */
export const formats: Record<FormatName, (model: ReadModel, about: About) => Written[] | Promise<Written[]>> = {
  ifc: (model, { name, made, analysis }) => [
    { file: 'model.ifc', type: 'application/x-step', content: writeIfc(model, { name, time: isoOf(made), analysis }) },
  ],
  gbxml: (model, { name }) => [{ file: 'model.xml', type: 'application/xml', content: writeGbxml(model, name) }],
  xlsx: async (model, { made, drawings = [] }) => [
    await workbookFile('model.xlsx', [...schedulesOf(model), ...intakeTables(drawings)], made),
  ],
  csv: (model, { drawings = [] }) =>
    [...schedulesOf(model), ...intakeTables(drawings)].map((one) => ({
      file: `${fileName(one.name)}.csv`,
      type: 'text/csv',
      content: csvOf(one),
      tables: [one],
    })),
  analysis: async (model, about) => [
    await workbookFile('analysis.xlsx', analysisTables(resultsIn(model, about)), about.made),
  ],
  svg: async (model, about) => {
    const face = await faceThatShips();
    return sheetsOf(model, about).map(({ file, sheet }) => ({
      file: `${file}.svg`,
      type: 'image/svg+xml',
      content: sheetSvg(sheet, face),
    }));
  },
  pdf: async (model, about) => {
    const sheets = sheetsOf(model, about).map(({ sheet }) => sheet);
    return [await pdfFile('model.pdf', sheets, about.name, about.made)];
  },
  dxf: (model, about) => {
    const onto = about.onto ?? ontoProject('m');
    const plans = plansOf(model, about).map(({ level, file }) => ({
      file: `${file}.dxf`,
      type: 'image/vnd.dxf',
      content: writePlanDxf(model, level, onto),
    }));
    return [{ file: 'model.dxf', type: 'image/vnd.dxf', content: writeSpaceDxf(model, onto) }, ...plans];
  },
  results: async (model, about) => {
    const pictures = new ResultPictures(resultsIn(model, about), model);
    const onto = about.onto ?? ontoProject('m');
    const drawn = plansOf(model, about).flatMap(({ level, file }): Written[] => {
      const own = pictures.over(level);
      const name = `${file.replace(/^plan-/, 'results-')}.dxf`;
      return own.length === 0 ? [] : [{ file: name, type: 'image/vnd.dxf', content: writeResultsDxf(own, onto) }];
    });
    const sheets = resultSheets(model, about, pictures);
    if (sheets.length === 0) return drawn;
    return [await pdfFile('results.pdf', sheets, `${about.name}, results`, about.made), ...drawn];
  },
  report: async (model, about) => {
    const lines = [
      `Made ${isoOf(about.made).replace('T', ' ')} UTC.`,
      'Findings are those before anything is accepted.',
    ];
    const tables = [...reportTables(resultsIn(model, about)), ...intakeTables(about.drawings ?? []).slice(0, 1)];
    const sheets = tableSheets(`${about.name}: report`, lines, tables);
    return [await pdfFile('report.pdf', sheets, `${about.name}, report`, about.made)];
  },
  json: (model) => [{ file: 'model.json', type: 'application/json', content: `${JSON.stringify(model, null, 1)}\n` }],
};
