'use client';
import { useEffect } from 'react';
import { create } from 'zustand';
import type { Model } from '@/core/model/model';
import type { Carried } from '@/core/structure/carried';
import { envelopeName, envelopeOf, type Envelope } from '@/core/structure/envelope';
import type { Pictured } from '@/core/structure/picture';
import type { RuledSupport } from '@/core/structure/rules/supportsUnderFeet';
import type { StructureView } from '@/core/structure/view';
import { Calculations, trialThread } from './calculation';
import { modelTextIn } from './mirror';
import { reasonOf } from './reason';
import type { Session } from './session';
import { useSession } from './useSession';
import { useView } from './view';

interface TrialStore {
  /** Of what was calculated last; null before the first time. */
  view: StructureView | null;
  /** How much of the work is done, from 0 to 1; null while nothing is calculated. */
  running: number | null;
  /** Whether the model has changed since. */
  stale: boolean;
  /** Why nothing could be calculated. */
  problem: string | null;
  /** The case or the combination that is looked at. */
  result: string | null;
  what: Pictured;
  /** The tributary areas; null until they were asked for. */
  carried: readonly Carried[] | null;
  /** The column whose line is taken down. */
  column: string | null;
  /** The motion that is shown, by its place in the list. */
  motion: number | null;
  /** How much of the displacement is drawn: 1 as it is, 0 the still picture; of a motion where it swings. */
  scale: number;
  set(part: Partial<Omit<TrialStore, 'set'>>): void;
}

const fresh = {
  view: null,
  running: null,
  stale: false,
  problem: null,
  result: null,
  what: 'my' as Pictured,
  carried: null,
  column: null,
  motion: null,
  scale: 1,
};

/** The structural trial of the project in this window. */
export const useTrial = create<TrialStore>()((set) => ({ ...fresh, set: (part) => set(part) }));

const calculations = new Calculations('structure', (told) => useTrial.setState(told));

/** Calculates again what was calculated before the window was loaded anew. */
export function resumeTrial(session: Session): void {
  const { view, running } = useTrial.getState();
  if (useView.getState().calculated && view === null && running === null) void runTrial(session);
}

/** Ends a calculation that is under way. */
export const cancelTrial = (): void => calculations.cancel();

/** The tables that a trial depends on. */
const dependsOn = ['element', 'level', 'library', 'project'] as const;

/** What a trial depends on, told apart by how often it has changed. */
const versionOf = (model: Model): string => dependsOn.map((table) => model.version(table)).join(' ');

/** Calculates the structure of a model as it is now. */
export async function runTrial(session: Session): Promise<void> {
  const { model } = session;
  const begun = versionOf(model);
  const view = await calculations.of(session);
  if (view === null) return;
  const known = useTrial.getState().result;
  const kept = known === envelopeName || view.results.some(({ id }) => id === known);
  const result = kept ? known : (view.results[view.results.length - 1]?.id ?? null);
  // What was changed meanwhile is not in it.
  useTrial.setState({ view, stale: versionOf(model) !== begun, result, motion: null, carried: null });
  useView.getState().set({ calculated: true });
  if (useTrial.getState().what === 'tributary') void askCarried(model);
}

const envelopes = new WeakMap<StructureView, { of: Envelope | null }>();

/** The envelope of a trial, worked out once. */
export function envelopeIn(view: StructureView): Envelope | null {
  const known = envelopes.get(view) ?? { of: envelopeOf(view) };
  envelopes.set(view, known);
  return known.of;
}

/** Works out the tributary areas of a model as it is now. */
export async function askCarried(model: Model): Promise<void> {
  try {
    const carried = await trialThread.ask(async (remote) => remote.carried(await modelTextIn(model)));
    useTrial.setState({ carried });
  } catch (error) {
    useTrial.setState({ problem: reasonOf(error) });
  }
}

/** The supports that are missing in a model. */
export const missingSupportsIn = (model: Model): Promise<RuledSupport[]> =>
  trialThread.ask(async (remote) => remote.missingSupports(await modelTextIn(model)));

/** Tells when what was calculated is of an older model; forgets it when the project is left. */
export function useTrialKept(): void {
  const { model } = useSession();
  useEffect(() => {
    const stop = model.subscribe(({ rows }) => {
      if (useTrial.getState().view === null) return;
      if (rows.some(({ table }) => dependsOn.some((one) => one === table))) useTrial.setState({ stale: true });
    });
    return () => {
      stop();
      cancelTrial();
      useTrial.setState(fresh);
    };
  }, [model]);
}
