'use client';
import type { Remote } from 'comlink';
import type { Bodies } from '@/core/bodies/bodies';
import type { Counts } from '@/core/exports/deliveries/contentOf';
import type { DeliveryWish } from '@/core/exports/deliveries/wish';
import type { ElementRow } from '@/core/kinds/element';
import type { Diff, Model } from '@/core/model/model';
import type { Finding } from '@/core/proof/finding';
import type { UprightPlane } from '@/core/tracing/upright/plane';
import { turn } from './turn';
import { askThread, threadOf, type Thread } from './thread';
import type { MirrorChange, MirrorWorker } from '@/workers/mirror.worker';

/** A copy of one model in a worker, which follows it from its first question on. */
interface Mirror {
  model: Model;
  thread: Thread<MirrorWorker>;
  /** What the model changed since the copy was last brought up to date. */
  waiting: MirrorChange[];
  stop: () => void;
}

let mirror: Mirror | null = null;

/** The tables of the model that the copy has. */
const mirrored: ReadonlySet<string> = new Set<MirrorChange['table']>(['level', 'element', 'library', 'project']);

const changesOf = ({ rows }: Diff): MirrorChange[] =>
  rows.flatMap(({ table, id, after }): MirrorChange[] =>
    mirrored.has(table) ? [{ table, id, row: after } as MirrorChange] : [],
  );

function mirrorOf(model: Model): Mirror {
  if (mirror?.model === model) return mirror;
  closeMirror();
  const waiting: MirrorChange[] = [
    ...Object.values(model.level).map((row): MirrorChange => ({ table: 'level', id: row.id, row })),
    ...Object.values(model.library).map((row): MirrorChange => ({ table: 'library', id: row.id, row })),
    ...Object.values(model.project).map((row): MirrorChange => ({ table: 'project', id: row.id, row })),
    ...Object.values(model.element).map((row): MirrorChange => ({ table: 'element', id: row.id, row })),
  ];
  const worker = new Worker(new URL('../workers/mirror.worker.ts', import.meta.url), { type: 'module' });
  const thread = threadOf<MirrorWorker>(worker, () => {
    if (mirror?.thread === thread) closeMirror();
  });
  const made: Mirror = { model, thread, waiting, stop: () => undefined };
  made.stop = model.subscribe((diff) => {
    // Not spread: an edit may change tens of thousands of rows.
    for (const change of changesOf(diff)) made.waiting.push(change);
  });
  mirror = made;
  return made;
}

/** Rows that the copy is sent at once: some milliseconds. */
const readyAtOnce = 1000;

/**
 * Sends a model to the copy bit by bit, while nobody needs the window, so that the first question is answered sooner.
 * @returns the way to stop
 */
export function readyMirror(model: Model): () => void {
  let asked = 0;
  const send = () => {
    const { thread, waiting } = mirrorOf(model);
    if (waiting.length === 0) return;
    void thread.remote.follow(waiting.splice(0, readyAtOnce));
    asked = requestIdleCallback(send);
  };
  asked = requestIdleCallback(send);
  return () => cancelIdleCallback(asked);
}

/** The thread with the copy of a model, brought up to date; of many changes some at a time, with turns between. */
async function upToDate(model: Model): Promise<Thread<MirrorWorker>> {
  // The one copy from here on: asked for anew after a turn, that of a project left meanwhile would take its place.
  const { thread, waiting } = mirrorOf(model);
  while (waiting.length > 0) {
    // Calls are answered in their order: what is asked next sees the changes.
    void thread.remote.follow(waiting.splice(0, readyAtOnce));
    if (waiting.length > 0) await turn();
  }
  return thread;
}

const ask = <R>(model: Model, question: (copy: Remote<MirrorWorker>) => Promise<R>): Promise<R> =>
  askThread(() => upToDate(model), question);

/** The model in space, put together in the worker. */
export const bodiesIn = (model: Model): Promise<Bodies> => ask(model, (copy) => copy.bodies());

/** What the rules find in the model soon after an edit; those that look at all of it may be of the model before. */
export const findingsSoonIn = (model: Model): Promise<Finding[]> => ask(model, (copy) => copy.findingsSoon());

/** What the rules that need no drawing find in the model. */
export const findingsIn = (model: Model): Promise<Finding[]> => ask(model, (copy) => copy.findings());

/** The model as model.json has it. */
export const modelTextIn = (model: Model): Promise<string> => ask(model, (copy) => copy.text());

/** How much of a model a delivery would hold. */
export const countsIn = (model: Model, wish: Pick<DeliveryWish, 'content' | 'levels'>): Promise<Counts> =>
  ask(model, (copy) => copy.counts(wish));

/** What of the model is seen in the plane of a section, as shapes in that plane. */
export const faceOnIn = (model: Model, plane: UprightPlane): Promise<ElementRow[]> =>
  ask(model, (copy) => copy.faceOn(plane));

/** Ends the copy, when its project is left. */
export function closeMirror(): void {
  mirror?.stop();
  mirror?.thread.end();
  mirror = null;
}
