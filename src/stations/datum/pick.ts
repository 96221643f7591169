'use client';
import { mainContent } from '@/core/underlay/mainContent';
import { place, type Placement } from '@/core/datum/placement';
import type { Point } from '@/core/geometry/vector';
import { useBoard, type Picked } from '@/board/boardStore';
import type { Session } from '@/project/session';
import type { Underlay } from '@/project/underlays';

/** Asks for a point on the board. With `drawingId` one of that drawing, and of no other. */
export function pickPoint(
  session: Session,
  prompt: string,
  drawingId: string | null,
  take: (picked: Picked) => void,
): void {
  useBoard.getState().setTool({
    kind: 'pick',
    prompt,
    of: drawingId,
    take: (picked) => {
      if (drawingId === null || picked.drawingId === drawingId) {
        take(picked);
        return;
      }
      session.tell({
        kind: 'problem',
        text:
          `That point (${picked.words}) belongs to another drawing. Pick one of ` +
          `${session.model.drawing[drawingId]?.name ?? 'this drawing'}; N steps through what the ` +
          'cursor can hold on to.',
      });
    },
  });
}

/** The corners of a drawing's main content as a placement puts them. */
export function placedBox(placement: Placement, underlay: Underlay): [number, number, number, number] | null {
  const main = mainContent(underlay.primitives);
  if (main === null) return null;
  const corners = [main[0], main[1], [main[0][0], main[1][1]], [main[1][0], main[0][1]]].map(([x, y]) =>
    place(placement, [x, y]),
  );
  return [
    Math.min(...corners.map(([x]) => x)),
    Math.min(...corners.map(([, y]) => y)),
    Math.max(...corners.map(([x]) => x)),
    Math.max(...corners.map(([, y]) => y)),
  ];
}

/** The middle of that box. */
export function placedCentre(placement: Placement, underlay: Underlay): Point | null {
  const box = placedBox(placement, underlay);
  return box && [(box[0] + box[2]) / 2, (box[1] + box[3]) / 2];
}
