'use client';
import { elementOf } from '@/core/resolved/elementOf';
import { useEffect } from 'react';
import { create } from 'zustand';
import type { DrawnZone } from '@/core/energy/picture';
import type { HeatView } from '@/core/energy/file';
import type { Model } from '@/core/model/model';
import { modelTextIn } from './mirror';
import { beginTrial } from './trial';
import { useMoment } from './useSession';

interface HeatStore {
  view: HeatView | null;
  running: boolean;
  /** Whether the model has changed since. */
  stale: boolean;
  /** Why nothing could be calculated. */
  problem: string | null;
}

const fresh: HeatStore = { view: null, running: false, stale: false, problem: null };

/** The trial of heat of the project in this window. */
export const useHeat = create<HeatStore>()(() => fresh);

/** Forgets what was calculated, when a project is left. */
export const closeHeat = (): void => useHeat.setState(fresh);

/** It is calculated again when nobody has changed anything for so long, milliseconds. */
const calm = 300;

/** Begins to calculate. @param still whether anybody still wants to know @returns the way to end it */
function calculate(model: Model, still: () => boolean): () => void {
  const own = beginTrial();
  useHeat.setState({ running: true });
  const tell = (part: Partial<HeatStore>) => {
    if (still()) useHeat.setState({ ...part, running: false });
  };
  modelTextIn(model)
    .then((text) => own.remote.heat(text))
    .then(
      (view) => tell({ view, problem: null, stale: false }),
      (error: unknown) => tell({ problem: error instanceof Error ? error.message : String(error) }),
    )
    .finally(() => own.thread.terminate());
  return () => own.thread.terminate();
}

/** Calculates the heat of a model once, for a page that shows it as it is. */
export async function runHeat(model: Model): Promise<void> {
  const own = beginTrial();
  try {
    const view = await own.remote.heat(await modelTextIn(model));
    useHeat.setState({ ...fresh, view });
  } catch (error) {
    useHeat.setState({ ...fresh, problem: error instanceof Error ? error.message : String(error) });
  }
  own.thread.terminate();
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
  const moment = useMoment('element', 'level', 'library', 'project');
  useEffect(() => {
    let here = true;
    let stop: (() => void) | null = null;
    const timer = setTimeout(() => {
      stop = calculate(moment.model, () => here);
    }, calm);
    return () => {
      here = false;
      clearTimeout(timer);
      stop?.();
    };
  }, [moment]);
}
