'use client';
import { elementOf } from '@/core/resolved/elementOf';
import { useMemo } from 'react';
import type { Model } from '@/core/model/model';
import { envelopeName } from '@/core/structure/envelope';
import {
  envelopePicture,
  motionPicture,
  pictureOf,
  tributaryPicture,
  type Picture,
  type Seen,
} from '@/core/structure/picture';
import { fromPlan, seenWithin, type UprightPlane } from '@/core/tracing/upright/plane';
import { lightPicture } from '@/core/lighting/picture';
import { heatPicture } from '@/core/energy/picture';
import { drawnZones, useHeat } from '@/project/heat';
import { useLight } from '@/project/light';
import { useSelected } from '@/project/selected';
import { envelopeIn, useTrial } from '@/project/trial';
import { useModel, useMoment } from '@/project/useSession';
import { useView } from '@/project/view';

/** Nodes belong to the floor of a level within this, metres. */
const onFloor = 0.6;

/** A level seen from above: its members, and the nodes at its floor. */
function seenInPlan(model: Model, levelId: string | null): Seen {
  const level = levelId === null ? undefined : model.level[levelId];
  return {
    at: ([x, y]) => [x, y],
    shows: ({ element }) => model.element[elementOf(element)]?.levelId === levelId,
    showsNode: ([, , z]) => level === undefined || Math.abs(z - level.elevation) <= onFloor,
    plan: true,
  };
}

/** A section face on: what lies close to its plane. */
function seenInPlane(plane: UprightPlane): Seen {
  const near = ([x, y]: readonly number[]): boolean => Math.abs(fromPlan(plane, [x, y]).off) <= seenWithin;
  return {
    at: ([x, y, z]) => [fromPlan(plane, [x, y]).along, z],
    shows: ({ start, end }) => start !== undefined && end !== undefined && near(start) && near(end),
    showsNode: near,
    plan: false,
  };
}

/** The values of the trial of light on a level, while its part of Proof is open. */
function useLightPicture(levelId: string | null, plane: UprightPlane | null): Picture | null {
  const view = useLight((light) => light.view);
  const shown = useLight((light) => light.shown);
  const open = useView(({ station, proofPart }) => station === 'proof' && proofPart === 'light');
  const model = useModel('level');
  return useMemo(() => {
    if (!open || view === null || plane !== null) return null;
    const own = view.areas.filter(({ id, zone, greatest }) => {
      const element = model.element[elementOf(zone ?? id)];
      return greatest > 0 && element !== undefined && element.levelId === levelId;
    });
    return lightPicture(own, shown);
  }, [open, view, shown, model, levelId, plane]);
}

/** The loads of zones on a level, and what the walls of those selected lose, while their part of Proof is open. */
function useHeatPicture(levelId: string | null, plane: UprightPlane | null): Picture | null {
  const view = useHeat((heat) => heat.view);
  const open = useView(({ station, proofPart }) => station === 'proof' && proofPart === 'heat');
  const selected = useSelected(({ ids }) => ids);
  const moment = useMoment('element', 'level');
  return useMemo(() => {
    if (!open || view === null || plane !== null) return null;
    return heatPicture(drawnZones(view, moment.model, selected).filter(({ zone }) => zone.level === levelId));
  }, [open, view, moment, selected, levelId, plane]);
}

/** What of a trial lies over the board, while its part of Proof is open. */
export function useResultPicture(levelId: string | null, plane: UprightPlane | null): Picture | null {
  const structure = useStructurePicture(levelId, plane);
  const light = useLightPicture(levelId, plane);
  const heat = useHeatPicture(levelId, plane);
  return structure ?? light ?? heat;
}

function useStructurePicture(levelId: string | null, plane: UprightPlane | null): Picture | null {
  const { view, result: id, what, motion, scale, carried } = useTrial();
  const open = useView(({ station, proofPart }) => station === 'proof' && proofPart === 'structure');
  const model = useModel('level');
  return useMemo(() => {
    if (!open || view === null) return null;
    const seen = plane === null ? seenInPlan(model, levelId) : seenInPlane(plane);
    if (motion !== null && view.motions[motion] !== undefined)
      return motionPicture(view, view.motions[motion], seen, scale);
    if (what === 'tributary') return carried === null ? null : tributaryPicture(carried, seen);
    const envelope = id === envelopeName ? envelopeIn(view) : null;
    if (envelope !== null) return envelopePicture(view, envelope, what, seen);
    const result = view.results.find((one) => one.id === id);
    return result === undefined ? null : pictureOf(view, result, what, seen, scale);
  }, [open, view, id, what, motion, scale, carried, model, levelId, plane]);
}
