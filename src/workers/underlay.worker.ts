import { comparisonOf, type Comparison } from '@/core/comparison/compare';
import { markedUp } from '@/core/comparison/markedUp';
import { questionsOf, type Questions } from '@/core/comparison/questions';
import type { ElementRow } from '@/core/kinds/element';
import type { GridLine } from '@/core/kinds/grid';
import { expose, transfer } from 'comlink';
import type { UnitVerdict } from '@/core/datum/evidence/judge';
import { handleOf } from '@/core/drawing/drawing';
import { checkDimensions, readDimensions, type DimensionCheck } from '@/core/datum/dimensionCheck';
import { mirrorWise } from '@/core/datum/evidence/mirrorWise';
import { mixedBlocks, type MixedBlock } from '@/core/datum/evidence/mixedBlocks';
import { registerByPattern, type PatternFit } from '@/core/datum/pattern';
import { registerByGrid } from '@/core/datum/register';
import { readSection, type SectionHeights } from '@/core/datum/sectionHeights';
import { pushAll } from '@/core/lists';
import type { Result } from '@/core/result';
import { readGrid } from '@/core/reading/grid/readGrid';
import { placesOfMark, type MarkPlace } from '@/core/reading/beams/markPlaces';
import { groupCells, type KeyedRow, type ScheduleRows, type ScheduleSheet } from '@/core/reading/beams/schedule';
import { sheetRowsOf } from '@/core/reading/beams/sheetRows';
import { readStages, type ReadingResult, type ReadingStage } from '@/core/reading/read';
import { Scene } from '@/core/reading/scene';
import { candidateAt, candidatesIn, takeReadings, type TakeReading, type TakeTask } from '@/core/reading/takeAt';
import { toleranceFor } from '@/core/patterns/settings';
import { compareDrawings } from '@/core/revision/compare';
import { alikeIn, likenessOf, type Likeness, type Pointed } from '@/core/sorting/alike';
import { tidy, type Tidied } from '@/core/tracing/tidy/tidy';
import type { TidyOrder } from '@/core/tracing/tidy/workpiece';
import { outlineOf } from '@/core/underlay/outline';
import type { Primitives } from '@/core/underlay/primitives';
import { windowOf } from '@/core/underlay/window';
import { applyRecipe, applyStep, emptyLayers, unusedBlocks, type Kitchen } from '@/core/underlay/recipe/apply';
import { findPlans } from '@/core/underlay/recipe/clusters';
import type { Recipe, Step } from '@/core/underlay/recipe/steps';
import { suggestRecipe, type Suggestion } from '@/core/underlay/recipe/suggest';
import { blockUses, boxPicture, layerPictures, type BlockUse } from '@/core/underlay/smallPictures';
import type {
  AlikeFound,
  FoundPlan,
  Order,
  Preview,
  ReadingOrder,
  RevisionPicture,
  TakeOrder,
  UnderlayData,
} from './orders';
import { runReading, stopReading } from './readingRuns';
import { fileOf, keepOnly, layOut, nameSent, readAhead, type OpenFile } from './openFiles';

/** The file that each drawing shows. */
const shown = new Map<string, string>();
/** Elements brought for comparisons that are still to be asked for, by their numbers. */
const brought = new Map<number, ElementRow[]>();
const drawings = new Map<
  string,
  { file: OpenFile; kitchen: Kitchen; recipe: Recipe; primitives: Primitives; keyed: KeyedRow[]; rows: ScheduleRows }
>();

function openDrawing(drawingId: string) {
  const open = drawings.get(drawingId);
  if (!open) throw new Error('The drawing is not open in this worker');
  return open;
}

function sceneOf(
  drawingId: string,
  { placement, roles, picked }: Pick<ReadingOrder, 'placement' | 'roles' | 'picked'>,
): Scene {
  const { kitchen, primitives } = openDrawing(drawingId);
  return new Scene(kitchen.drawing, primitives, placement, roles, {
    lines: new Map(picked.lines),
    blocks: new Map(picked.blocks),
    alike: picked.alike,
  });
}

/** The schedules of other drawings that are open. */
const linkedSheets = (sheets: ReadingOrder['sheets']): ScheduleSheet[] =>
  sheets.flatMap(({ drawingId, name }) => {
    const rows = drawings.get(drawingId)?.rows;
    return rows === undefined ? [] : [{ sheet: name, rows }];
  });

/** The primitives before a step of the recipe, or after all of it. */
function before(drawingId: string, step: number | null): { kitchen: Kitchen; primitives: Primitives } {
  const { kitchen, recipe, primitives } = openDrawing(drawingId);
  return { kitchen, primitives: step === null ? primitives : applyRecipe(kitchen, recipe.slice(0, step)).primitives };
}

function askedOf(drawingId: string, { roles }: ReadingOrder): Questions {
  const { drawing, raw, metresPerUnit } = openDrawing(drawingId).kitchen;
  const { differ } = checkDimensions(drawing, raw, metresPerUnit);
  return questionsOf({ drawing, primitives: raw, metresPerUnit, roles, differ });
}

/** Keeps drawings and works on them off the main thread. */
const api = {
  /** Fetches, flattens and cleans a drawing. */
  async open({ drawingId, fileId, url, recipe, metresPerUnit, dashed }: Order): Promise<UnderlayData> {
    shown.set(drawingId, fileId);
    const file = await fileOf(fileId, url);
    keepOnly(new Set(shown.values()));
    const { drawing, raw } = file;
    const kitchen: Kitchen = { drawing, raw, metresPerUnit };
    const { primitives, counts } = applyRecipe(kitchen, recipe);
    const keyed = sheetRowsOf(drawing, primitives);
    const rows = groupCells(keyed);
    drawings.set(drawingId, { file, kitchen, recipe, primitives, keyed, rows });
    const ready = primitives === raw && !dashed ? file.takeLaid() : null;
    const { index, segments } = ready ?? layOut(primitives, dashed);
    const [empty, unused] = [new Set(emptyLayers(drawing)), new Set(unusedBlocks(drawing))];
    const data: UnderlayData = {
      layers: drawing.layers.map(({ name, off, frozen }, i) => ({ name, hidden: off || frozen, empty: empty.has(i) })),
      blocks: drawing.blocks.map(({ name }, i) => ({ name, unused: unused.has(i) })),
      primitives,
      index,
      segments,
      mirror: mirrorWise(raw),
      counts,
      schedules: rows.size > 0,
    };
    return transfer(data, [
      index.tree,
      index.vertex.buffer,
      index.path.buffer,
      index.centreOf.buffer,
      segments.xy.buffer,
      segments.layer.buffer,
      segments.colour.buffer,
    ] as Transferable[]);
  },

  /** Reads a file that is being sent. @param key of the upload */
  ahead(key: number, file: Blob): void {
    readAhead(key, file);
  },

  /** What an upload has become: the file of this id, or nothing. */
  sent(key: number, fileId: string | null): void {
    nameSent(key, fileId);
  },

  /** What the file's own content, before any clean-up, says about its unit. */
  unit: (drawingId: string): UnitVerdict => openDrawing(drawingId).file.unit,

  /** Shows what a step would touch. @param at its place in the recipe, or null for one that is to come last */
  preview(drawingId: string, step: Step, at: number | null): Preview {
    const { kitchen, primitives } = before(drawingId, at);
    const { result, count } = applyStep(kitchen, primitives, step);
    const lines = outlineOf(primitives, result.paths, result.texts);
    return transfer({ origin: primitives.origin, lines, count }, [lines.buffer]);
  },

  suggest(drawingId: string): Suggestion[] {
    const { kitchen, recipe } = openDrawing(drawingId);
    return suggestRecipe(kitchen, recipe);
  },

  /** The plans that stand apart on the sheet. */
  plans(drawingId: string): FoundPlan[] {
    const { primitives } = openDrawing(drawingId);
    const [ox, oy] = primitives.origin;
    return findPlans(primitives).map(({ box, paths }) => ({
      box: [
        [box[0] + ox, box[1] + oy],
        [box[2] + ox, box[3] + oy],
      ],
      paths,
      lines: boxPicture(primitives, box),
    }));
  },

  /** Compares two revisions of a drawing. */
  async compare(
    earlier: { fileId: string; url: string },
    later: { fileId: string; url: string },
  ): Promise<RevisionPicture> {
    const [from, to] = await Promise.all([fileOf(earlier.fileId, earlier.url), fileOf(later.fileId, later.url)]);
    const report = compareDrawings(from.drawing, to.drawing);
    const picture = ({ raw }: OpenFile, rows: readonly number[]) => {
      const wanted = new Set(rows);
      const paths = [...raw.top.keys()].filter((path) => wanted.has(raw.top[path]));
      return outlineOf(
        raw,
        paths,
        raw.texts.flatMap((text, i) => (wanted.has(text.top) ? [i] : [])),
      );
    };
    const came = picture(to, [...report.came, ...report.changed.map((change) => change.to)]);
    const went = picture(from, [...report.went, ...report.changed.map((change) => change.from)]);
    // Both pictures stand about the later drawing's origin.
    const [dx, dy] = [from.raw.origin[0] - to.raw.origin[0], from.raw.origin[1] - to.raw.origin[1]];
    for (let i = 0; i < went.length; i += 2) {
      went[i] += dx;
      went[i + 1] += dy;
    }
    return transfer({ layers: report.layers, total: report.total, origin: to.raw.origin, came, went }, [
      came.buffer,
      went.buffer,
    ]);
  },

  /** Small pictures of what lies on each layer, and of the blocks in use. */
  pictures(drawingId: string): { layers: Float32Array[]; blocks: BlockUse[] } {
    const { kitchen, primitives } = openDrawing(drawingId);
    const [layers, blocks] = [
      layerPictures(primitives, kitchen.drawing.layers.length),
      blockUses(kitchen.drawing, primitives),
    ];
    return transfer(
      { layers, blocks },
      [...layers, ...blocks.map(({ lines }) => lines)].map(({ buffer }) => buffer),
    );
  },

  /** The handles that some paths came by. */
  handles(drawingId: string, paths: number[]): string[] {
    const {
      kitchen: { drawing },
      primitives,
    } = openDrawing(drawingId);
    return [...new Set(paths.map((path) => handleOf(drawing, primitives.top[path])))];
  },

  /** The handles of what lies on a layer. */
  handlesOn(drawingId: string, layer: string): string[] {
    const {
      kitchen: { drawing },
      primitives,
    } = openDrawing(drawingId);
    const number = drawing.layers.findIndex(({ name }) => name === layer);
    const paths = [...primitives.layer.keys()].filter((path) => primitives.layer[path] === number);
    return [...new Set(paths.map((path) => handleOf(drawing, primitives.top[path])))];
  },

  /** The paths that came by some handles. */
  pathsOf(drawingId: string, handles: string[]): number[] {
    const {
      kitchen: { drawing },
      primitives,
    } = openDrawing(drawingId);
    const wanted = new Set(handles);
    return [...primitives.top.keys()].filter((path) => wanted.has(handleOf(drawing, primitives.top[path])));
  },

  /** Blocks whose content is of another unit. */
  mixed(drawingId: string): MixedBlock[] {
    const { kitchen } = openDrawing(drawingId);
    return mixedBlocks(kitchen.drawing, kitchen.raw, kitchen.metresPerUnit);
  },

  /** All dimensions against what they span. */
  dimensions(drawingId: string): DimensionCheck {
    const { kitchen } = openDrawing(drawingId);
    return checkDimensions(kitchen.drawing, kitchen.raw, kitchen.metresPerUnit);
  },

  /** Takes in elements for a comparison, by its number. */
  bring(number: number, elements: readonly ElementRow[]): void {
    const own = brought.get(number) ?? [];
    pushAll(own, elements);
    brought.set(number, own);
  },

  /**
   * A plan beside the elements of its storey.
   * @param number of the comparison, which its elements were brought with
   * @param tolerance metres that an element may lie off its lines
   */
  beside(drawingId: string, order: ReadingOrder, number: number, tolerance: number): Comparison {
    const elements = brought.get(number) ?? [];
    brought.delete(number);
    const { kitchen } = openDrawing(drawingId);
    const { lengths } = readDimensions(kitchen.drawing, kitchen.raw, kitchen.metresPerUnit);
    const scene = sceneOf(drawingId, order);
    const made = comparisonOf({ scene, drawingId, elements, lengths, tolerance });
    const buffers = [made.rest, ...Object.values(made.tint)].map(({ buffer }) => buffer);
    return transfer(made, buffers as ArrayBuffer[]);
  },

  /** What there is to ask the author of a drawing. */
  questions: (drawingId: string, order: ReadingOrder): Questions => askedOf(drawingId, order),

  /** A drawing with its questions, as the text of a DXF. */
  markedUp(drawingId: string, order: ReadingOrder): string {
    const { kitchen } = openDrawing(drawingId);
    const { unit, scale } = order.placement;
    return markedUp(kitchen.raw, askedOf(drawingId, order).asked, unit, scale);
  },

  /** Storey heights of a section. */
  section(drawingId: string): Result<SectionHeights> {
    const { kitchen, primitives } = openDrawing(drawingId);
    return readSection(primitives, kitchen.metresPerUnit);
  },

  /** Fits one grid onto another by its labels, or by its spacings alone. */
  fit(way: 'labels' | 'spacings', from: GridLine[], to: GridLine[]): Result<PatternFit> {
    if (way === 'spacings') return registerByPattern(from, to);
    const found = registerByGrid(from, to);
    return found.ok ? { ok: true, value: { registration: found.value, mirrored: false } } : found;
  },

  /** What a tidy-up of elements would change. */
  tidy(rows: ElementRow[], order: Omit<TidyOrder, 'newId'>): Tidied {
    return tidy(rows, { ...order, newId: () => crypto.randomUUID() });
  },

  /** What the reader makes of the lines about a place, read as one kind, whatever their layer or role. */
  take(drawingId: string, order: ReadingOrder, what: TakeOrder): TakeReading[] {
    const { kitchen, primitives } = openDrawing(drawingId);
    const task: TakeTask = {
      drawing: kitchen.drawing,
      primitives: windowOf(primitives, what.paths, what.box),
      placement: order.placement,
      roles: order.roles,
      picked: {
        lines: new Map(order.picked.lines),
        blocks: new Map(order.picked.blocks),
        alike: order.picked.alike,
      },
      accepted: order.accepted,
      settings: order.settings,
      zero: order.zero,
      linked: linkedSheets(order.sheets),
      answers: order.answers,
      kind: what.kind,
      own: what.own,
      path: what.path === null ? null : what.paths.indexOf(what.path),
    };
    const { at, within, kind, reach, first } = what;
    return takeReadings(task, within === null ? candidateAt(kind, at, reach) : candidatesIn(kind, within), first);
  },

  /**
   * Reads candidates from a drawing opened before. It can be stopped; a later reading of the drawing ends it too.
   * @param watch hears what it is about to do
   */
  read(
    drawingId: string,
    { placement, roles, picked, meanings, accepted, settings, zero, around, sheets, answers }: ReadingOrder,
    watch?: (stage: Omit<ReadingStage, 'soFar'>) => void,
  ): Promise<ReadingResult> {
    const scene = sceneOf(drawingId, { placement, roles, picked });
    const reading = readStages({
      scene,
      accepted,
      meanings,
      settings,
      zero,
      around,
      linked: linkedSheets(sheets),
      answers,
      tolerance: toleranceFor(placement.unit, settings),
    });
    return runReading(drawingId, reading, watch);
  },

  /** Where a mark, and what its rows in schedules lead to, stand on some drawings. */
  marks(mark: string, drawingIds: readonly string[]): MarkPlace[] {
    const sheets = drawingIds.flatMap((drawingId) => {
      const open = drawings.get(drawingId);
      return open === undefined ? [] : [{ drawingId, texts: open.primitives.texts, rows: open.keyed }];
    });
    return placesOfMark(mark, sheets);
  },

  /** Reads the grid lines of a drawing alone. */
  grid(drawingId: string, order: ReadingOrder): GridLine[] {
    return readGrid(sceneOf(drawingId, order), toleranceFor(order.placement.unit, order.settings)).candidates.map(
      ({ element }) => element,
    );
  },

  /** What something of a drawing is like, and, by what counts of it, all that is alike. */
  alike(drawingId: string, what: Pointed | Likeness, metres: number): AlikeFound {
    const {
      kitchen: { drawing },
      primitives,
    } = openDrawing(drawingId);
    const like = 'form' in what ? what : likenessOf(drawing, primitives, what, metres);
    return { like, ...alikeIn(drawing, primitives, like, metres) };
  },

  stopReading,
};

export type UnderlayWorker = typeof api;
expose(api);
