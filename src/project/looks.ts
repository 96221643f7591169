'use client';
import type { Look } from '@/core/model/look';
import { lookNow } from '@/core/model/views';
import type { Model } from '@/core/model/model';
import { activeDrawings } from './projectRow';
import { useView } from './view';

/** What this window looks at now. */
export function lookHere(model: Model): Look {
  const { levelId, faceOn, camera, only, isolated, beside, inSpace, orbit, space } = useView.getState();
  const seen = activeDrawings(model).filter(({ id, setAside }) => !setAside && (only === null || only.includes(id)));
  return {
    levelId,
    faceOn,
    camera,
    drawings: seen.map(({ id }) => id),
    isolated: Object.entries(isolated).map(([drawing, layers]) => ({ drawing, layers })),
    beside: beside?.drawingId ?? null,
    inSpace,
    orbit,
    space,
  };
}

/** Looks at what a view has kept, without what has gone meanwhile. @returns the camera to look through */
export function lookAgain(model: Model, kept: Look): Look['camera'] {
  const look = lookNow(model, kept);
  const { levelId, camera, set, orbit } = useView.getState();
  // Where all drawings that there are were seen, none that came later is left out.
  const all = activeDrawings(model).every(({ id, setAside }) => setAside || (look.drawings?.includes(id) ?? true));
  set({
    levelId: look.levelId ?? levelId,
    faceOn: look.faceOn,
    camera: look.camera ?? camera,
    only: all ? null : look.drawings,
    isolated: Object.fromEntries(look.isolated.map(({ drawing, layers }) => [drawing, layers])),
    beside: look.beside === null ? null : { drawingId: look.beside, follows: true, camera: null },
    inSpace: look.inSpace,
    orbit: look.orbit ?? orbit,
    space: look.space,
  });
  return look.camera;
}
