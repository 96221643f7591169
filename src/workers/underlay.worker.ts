import { expose, transfer } from 'comlink';
import type { Placement } from '@/core/datum/placement';
import type { Drawing } from '@/core/drawing/drawing';
import { unpackDrawing } from '@/core/drawing/packDrawing';
import type { GridLine } from '@/core/model/elements';
import { read, toleranceFor, type ReadingResult } from '@/core/reading/read';
import { Scene } from '@/core/reading/scene';
import type { Role } from '@/core/sorting/roles';
import { flatten } from '@/core/underlay/flatten';
import { buildIndex, type PieceIndexData } from '@/core/underlay/pieces';
import type { Primitives } from '@/core/underlay/primitives';
import { buildSegments, type SegmentStore } from '@/core/underlay/segments';

/** What the board needs of a drawing. */
export interface UnderlayData { layers: { name: string; hidden: boolean }[]; primitives: Primitives; index: PieceIndexData; segments: SegmentStore; header: Drawing['header'] }

const opened = new Map<string, { drawing: Drawing; primitives: Primitives }>();

/** Keeps drawings and works on them off the main thread. */
const api = {
  /** Fetches and flattens a drawing. */
  async open(fileId: string, url: string): Promise<UnderlayData> {
    const response = await fetch(url);
    if (!response.ok) throw new Error(((await response.json().catch(() => ({}))) as { message?: string }).message ?? `The drawing could not be fetched (status ${response.status}).`);
    const drawing = unpackDrawing(new Uint8Array(await response.arrayBuffer()));
    const primitives = flatten(drawing);
    opened.set(fileId, { drawing, primitives });
    const index = buildIndex(primitives);
    const segments = buildSegments(primitives);
    const data: UnderlayData = { layers: drawing.layers.map(({ name, off, frozen }) => ({ name, hidden: off || frozen })), primitives, index, segments, header: drawing.header };
    return transfer(data, [index.tree, index.vertex.buffer, index.path.buffer, index.centreOf.buffer, segments.xy.buffer, segments.layer.buffer, segments.colour.buffer] as Transferable[]);
  },

  /** Reads candidates from a drawing opened before. */
  read(fileId: string, placement: Placement, roles: (Role | null)[], accepted: GridLine[]): ReadingResult {
    const file = opened.get(fileId);
    if (!file) throw new Error('The drawing is not open in this worker');
    return read(new Scene(file.drawing, file.primitives, placement, roles), accepted, toleranceFor(placement.unit));
  },

  close(fileId: string): void {
    opened.delete(fileId);
  },
};

export type UnderlayWorker = typeof api;
expose(api);
