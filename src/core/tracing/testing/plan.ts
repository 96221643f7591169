import type { Point } from '@/core/geometry/vector';
import type { ElementOf, ElementRow } from '@/core/kinds/element';
import { put, type Edit } from '@/core/model/edits';
import { Model } from '@/core/model/model';
import type { LevelRow } from '@/core/model/state';
import type { Result } from '@/core/result';

/** Ids, levels and elements of small plans that tests of tracing draw. */
export const uuid = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

export const levelId = uuid(900);
export const upperId = uuid(901);

const level = (id: string, name: string, elevation: number): LevelRow => ({
  id,
  name,
  elevation,
  height: 3,
  kind: 'floor',
  buildUp: 0,
  slab: 0,
  repeats: null,
});

const common = { levelId, source: null, libraryId: null };

export const wall = (n: number, start: Point, end: Point, more: Partial<ElementOf<'wall'>['shape']> = {}) =>
  ({
    ...common,
    id: uuid(n),
    kind: 'wall',
    shape: { start, end, thickness: 0.2, height: null, bulge: 0, outer: false, ...more },
  }) as const satisfies ElementRow;

export const beam = (n: number, start: Point, end: Point): ElementOf<'beam'> => ({
  ...common,
  id: uuid(n),
  kind: 'beam',
  shape: { start, end, section: { shape: 'rectangle', width: 0.3, depth: 0.6 }, mark: '' },
});

export const column = (n: number, position: Point): ElementOf<'column'> => ({
  ...common,
  id: uuid(n),
  kind: 'column',
  shape: { position, rotation: 0, section: { shape: 'rectangle', width: 0.4, depth: 0.4 }, mark: '' },
});

export const door = (n: number, host: number, offset: number, width = 1): ElementOf<'opening'> => ({
  ...common,
  id: uuid(n),
  kind: 'opening',
  shape: { wall: uuid(host), use: 'door', offset, width, height: 2, sill: 0 },
});

export const slab = (n: number, outline: Point[], holes: Point[][] = []): ElementOf<'slab'> => ({
  ...common,
  id: uuid(n),
  kind: 'slab',
  shape: { outline, holes, thickness: 0.25 },
});

export const gridLine = (n: number, label: string, start: Point, end: Point): ElementOf<'grid'> => ({
  ...common,
  levelId: null,
  id: uuid(n),
  kind: 'grid',
  shape: { label, kind: 'line', start, end },
});

/** A model of two levels with some elements. */
export function planOf(...elements: ElementRow[]): Model {
  const model = new Model();
  model.apply([
    put('level', level(levelId, 'Ground', 0)),
    put('level', level(upperId, 'Upper', 3)),
    ...elements.map((element) => put('element', element)),
  ]);
  return model;
}

/** Ids that follow one another. */
export function idsFrom(first: number): () => string {
  let n = first;
  return () => uuid(n++);
}

/** Applies an edit that is expected to be made. @returns the changes that lead back */
export function applied(model: Model, edit: Result<Edit>) {
  if (!edit.ok) throw new Error(edit.message);
  return model.apply(edit.value.changes);
}

/** Why an edit was refused; empty where it was not. */
export const refused = (edit: Result<unknown>): string => (edit.ok ? '' : edit.message);
