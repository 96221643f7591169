import type { ReadBack } from '../ifc/readBack';
import type { Counts } from './contentOf';
import type { DeliveryWish } from './wish';

/** What came back of a file that was read again, by another way than it was written. */
export interface FileBack {
  file: string;
  /** Empty where a format has nothing to be counted. */
  kinds: ReadBack[];
}

/** `delivery.json`: what was handed over, from which state of the project, and what of it came back. */
export interface DeliveryReport {
  format: 'zircon-frame-delivery';
  version: 1;
  project: string;
  /** The step of the project that it is of. */
  step: number;
  /** ISO 8601. */
  made: string;
  wish: DeliveryWish;
  counts: Counts;
  files: { name: string; size: number; sha256: string }[];
  readBack: FileBack[];
}

/** What is measured and not counted: how much columns hold, and how many elements lie where the model has them. */
export const litres = 'litres of columns';
export const within = 'elements within 0.1 mm';
const measures: readonly string[] = [litres, within];

/** How many things came back. */
export const countedIn = (readBack: readonly FileBack[]): number =>
  readBack
    .flatMap(({ kinds }) => kinds)
    .reduce((sum, { kind, file }) => (measures.includes(kind) ? sum : sum + file), 0);

/** How many elements lie where the model has them. */
export const placedIn = (readBack: readonly FileBack[]): number =>
  readBack.flatMap(({ kinds }) => kinds).reduce((sum, { kind, file }) => (kind === within ? sum + file : sum), 0);

/** What did not come back whole: sentences, none where all agrees. */
export const differences = (readBack: readonly FileBack[]): string[] =>
  readBack.flatMap(({ file, kinds }) =>
    kinds
      .filter((one) => one.file !== one.model)
      .map(({ kind, model, file: found }) => `${file}: ${found} of ${model} ${kind} came back.`),
  );
