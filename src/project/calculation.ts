import { proxy } from 'comlink';
import type { HeatView } from '@/core/energy/file';
import type { JobView } from '@/core/jobs';
import type { LightTrial } from '@/core/lighting/light';
import { unpack } from '@/core/packed';
import type { StructureView } from '@/core/structure/view';
import type { TrialWorker } from '@/workers/trial.worker';
import { api } from './api';
import { modelTextIn } from './mirror';
import { reasonOf } from './reason';
import type { Session } from './session';
import { KeptThread } from './keptThread';
import { threadOf } from './thread';

/** What comes of the trials. */
interface Views {
  structure: StructureView;
  heat: HeatView;
  light: LightTrial;
}

/** A model with more elements is calculated on the server: it has the memory, and the window stays light. */
export const largeModel = 5000;
/** How far the server is is asked this often, milliseconds. */
const askEvery = 400;

/** The threads that calculate. */
export const trialThread = new KeptThread<TrialWorker>((gone) =>
  threadOf(new Worker(new URL('../workers/trial.worker.ts', import.meta.url), { type: 'module' }), gone),
);

/** What is told of a calculation: how much is done, from 0 to 1, null when it ended; and why it could not be done. */
interface Told {
  running: number | null;
  problem?: string | null;
}

/** The calculations of one kind in this window: one at a time. */
export class Calculations<K extends keyof Views> {
  private current: AbortController | null = null;

  constructor(
    private readonly kind: K,
    private readonly tell: (told: Told) => void,
  ) {}

  /** Ends what is under way. */
  cancel(): void {
    this.current?.abort();
    this.current = null;
    this.tell({ running: null });
  }

  /** Calculates a model as it is now. @returns null where it was cancelled, or could not be done */
  async of(session: Session): Promise<Views[K] | null> {
    this.current?.abort();
    const own = new AbortController();
    this.current = own;
    this.tell({ running: 0, problem: null });
    const tell = (share: number): void => {
      if (this.current === own) this.tell({ running: share });
    };
    const where = session.model.count('element') > largeModel ? onServer : inWindow;
    try {
      const view = await where(this.kind, session, tell, own.signal);
      return this.current === own ? view : null;
    } catch (error) {
      const problem = reasonOf(error);
      if (this.current === own) this.tell({ running: null, problem });
      return null;
    } finally {
      if (this.current === own) {
        this.current = null;
        this.tell({ running: null });
      }
    }
  }
}

const inWindow = async <K extends keyof Views>(
  kind: K,
  { model }: Session,
  tell: (share: number) => void,
  ending: AbortSignal,
): Promise<Views[K]> =>
  trialThread.ask(async (remote) => (await remote[kind](await modelTextIn(model), proxy(tell))) as Views[K], ending);

async function onServer<K extends keyof Views>(
  kind: K,
  session: Session,
  tell: (share: number) => void,
  ending: AbortSignal,
): Promise<Views[K]> {
  await allStored(session);
  const jobs = `/api/projects/${session.id}/jobs`;
  let job = await api<JobView>(jobs, { json: { kind } });
  const address = `${jobs}/${job.id}`;
  while (job.state === 'waiting' || job.state === 'running') {
    if (ending.aborted) await api(address, { method: 'DELETE' });
    tell(job.done);
    await new Promise((resolve) => setTimeout(resolve, askEvery));
    job = await api<JobView>(address);
  }
  if (job.state === 'failed') throw new Error(job.message ?? 'It failed.');
  const file = await fetch(`${address}/files/${job.files[0].id}`);
  if (!file.ok) throw new Error(`The result could not be fetched: the server answered with status ${file.status}.`);
  return unpack(await file.arrayBuffer()) as Views[K];
}

/** Resolves when everything that was changed in this window is stored. */
export const allStored = ({ facts }: Session): Promise<void> =>
  new Promise((resolve) => {
    const stored = (): boolean => facts.getState().pending === 0;
    if (stored()) return resolve();
    const stop = facts.subscribe(() => {
      if (!stored()) return;
      stop();
      resolve();
    });
  });
