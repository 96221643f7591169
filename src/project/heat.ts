'use client';
import { elementOf } from '@/core/resolved/elementOf';
import { useEffect } from 'react';
import { create } from 'zustand';
import type { DrawnZone } from '@/core/energy/picture';
import type { HeatView } from '@/core/energy/file';
import type { Model } from '@/core/model/model';
import { Calculations } from './calculation';
import type { Session } from './session';
import { useMoment, useSession } from './useSession';

interface HeatStore {
  view: HeatView | null;
  /** How much of the work is done, from 0 to 1; null while nothing is calculated. */
  running: number | null;
  /** Whether the model has changed since. */
  stale: boolean;
  /** Why nothing could be calculated. */
  problem: string | null;
}

const fresh: HeatStore = { view: null, running: null, stale: false, problem: null };

/** The trial of heat of the project in this window. */
export const useHeat = create<HeatStore>()(() => fresh);

const calculations = new Calculations('heat', (told) => useHeat.setState(told));

/** Ends a calculation that is under way. */
export const cancelHeat = (): void => calculations.cancel();

/** Forgets what was calculated, when a project is left. */
export function closeHeat(): void {
  cancelHeat();
  useHeat.setState(fresh);
}

/** It is calculated again when nobody has changed anything for so long, milliseconds. */
const calm = 300;

/** Calculates the heat of a model as it is now. */
export async function runHeat(session: Session): Promise<void> {
  const view = await calculations.of(session);
  if (view !== null) useHeat.setState({ view, stale: false });
}

/** Tells when what was calculated is of an older model. */
export function useHeatStale(): void {
  const moment = useMoment('element', 'level', 'library', 'project');
  useEffect(() => {
    if (useHeat.getState().view !== null) useHeat.setState({ stale: true });
  }, [moment]);
}

/** The zones of a trial with their outlines; those of storeys that repeat another have the other's. */
export const drawnZones = ({ zones }: HeatView, model: Model, selected: ReadonlySet<string>): DrawnZone[] =>
  zones.flatMap((zone) => {
    const row = model.element[elementOf(zone.id)];
    if (row?.kind !== 'zone') return [];
    return [{ zone, outline: row.shape.outline, holes: row.shape.holes, chosen: selected.has(row.id) }];
  });

/** Keeps the trial of heat up to the model while it is looked at. */
export function useHeatKept(): void {
  const session = useSession();
  const moment = useMoment('element', 'level', 'library', 'project');
  useEffect(() => {
    const timer = setTimeout(() => void runHeat(session), calm);
    return () => {
      clearTimeout(timer);
      cancelHeat();
    };
  }, [session, moment]);
}
