'use client';
import { useEffect } from 'react';
import { create } from 'zustand';
import type { WhatIf } from '@/core/lighting/whatIf';
import type { LightTrial } from '@/core/lighting/light';
import type { Model } from '@/core/model/model';
import { modelTextIn } from './mirror';
import { reasonOf } from './reason';
import type { Session } from './session';
import { Calculations, trialThread } from './calculation';
import { useSession } from './useSession';

interface LightStore {
  view: LightTrial | null;
  /** How much of the work is done, from 0 to 1; null while nothing is calculated. */
  running: number | null;
  /** Whether the model has changed since. */
  stale: boolean;
  /** Why nothing could be calculated. */
  problem: string | null;
  /** What of it lies over the board. */
  shown: Record<LightShown, boolean>;
  /** What other fields of luminaires would give a room; null before it was asked. */
  asked: WhatIf | null;
  /** The room that is being asked about. */
  asking: string | null;
}

/** What of the light lies over the board: the values of the grid, lines of as much light, a tint. */
export const lightShown = ['values', 'lines', 'tint'] as const;
export type LightShown = (typeof lightShown)[number];

const fresh: LightStore = {
  view: null,
  running: null,
  stale: false,
  problem: null,
  shown: { values: true, lines: true, tint: true },
  asked: null,
  asking: null,
};

/** The trial of light of the project in this window. */
export const useLight = create<LightStore>()(() => fresh);

const calculations = new Calculations('light', (told) => useLight.setState(told));

/** Ends a calculation that is under way. */
export const cancelLight = (): void => calculations.cancel();

/** Forgets what was calculated, when a project is left. */
export function closeLight(): void {
  cancelLight();
  useLight.setState(fresh);
}

/** Calculates the light of a model as it is now. */
export async function runLight(session: Session): Promise<void> {
  useLight.setState({ stale: false });
  const view = await calculations.of(session);
  if (view !== null) useLight.setState({ view });
}

/** Works out what other numbers and heights of a luminaire would give a room. */
export async function askWhatIf(model: Model, zone: string, photometry: string): Promise<void> {
  useLight.setState({ asking: zone, asked: null, problem: null });
  try {
    const asked = await trialThread.ask(async (remote) => remote.whatIf(await modelTextIn(model), zone, photometry));
    if (useLight.getState().asking === zone) useLight.setState({ asked });
  } catch (error) {
    useLight.setState({ problem: reasonOf(error) });
  }
  useLight.setState({ asking: null });
}

/** Tells when what was calculated is of an older model. */
export function useLightKept(): void {
  const { model } = useSession();
  useEffect(
    () =>
      model.subscribe(({ rows }) => {
        const concerns = rows.some(({ table }) => table === 'element' || table === 'level' || table === 'project');
        if (concerns && useLight.getState().view !== null) useLight.setState({ stale: true });
      }),
    [model],
  );
}
