'use client';
import { useMemo } from 'react';
import type { ElementRow } from '@/core/kinds/element';
import { kinds } from '@/core/kinds/kinds';
import type { MarkPlace } from '@/core/reading/beams/markPlaces';
import { marksIn, useUnderlays } from '@/project/underlays';
import { keyOf, useAnswer, valueOf } from '@/project/useAnswer';
import { useSelected } from '@/project/selected';
import { useModel } from '@/project/useSession';

/** The mark of an element, as drawings write it; empty where it has none. */
function markOf(element: ElementRow): string {
  if (element.kind === 'column' || element.kind === 'beam') return element.shape.mark.trim();
  if (element.kind === 'zone') return element.shape.number.trim() || element.shape.name.trim();
  return element.kind === 'grid' ? kinds.grid.name(element.shape).trim() : '';
}

/** The mark of the one element that is selected, and where drawings have something of it; null while that is sought. */
export function useMarkPlaces(wanted: boolean): { mark: string; places: MarkPlace[] | null } {
  const model = useModel('element');
  const selected = useSelected((store) => store.ids);
  const entries = useUnderlays((store) => store.entries);
  const [id] = selected;
  const element = wanted && selected.size === 1 ? model.element[id] : undefined;
  const mark = element === undefined ? '' : markOf(element);
  const open = useMemo(
    () => Object.keys(entries).filter((drawingId) => entries[drawingId].underlay !== null),
    [entries],
  );
  const bases = open.map((drawingId) => entries[drawingId].underlay?.basis).join();
  const answer = useAnswer(mark === '' ? null : keyOf(mark, bases), () => marksIn(mark, open));
  return { mark, places: valueOf(answer) };
}
