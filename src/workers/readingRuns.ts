import type { ReadingResult, ReadingStage } from '@/core/reading/read';

/** The reading of each drawing that is under way. */
const runs = new Map<string, symbol>();

/**
 * Goes through a reading. Between its stages other calls get their turn, so that it can be stopped, or a later one of
 * the same drawing takes its place: it ends with what it has.
 * @param watch hears what it is about to do
 */
export async function runReading(
  drawingId: string,
  reading: Generator<ReadingStage, ReadingResult>,
  watch?: (stage: Omit<ReadingStage, 'soFar'>) => void,
): Promise<ReadingResult> {
  const run = Symbol(drawingId);
  runs.set(drawingId, run);
  for (;;) {
    const step = reading.next();
    if (step.done) return step.value;
    watch?.({ doing: step.value.doing, done: step.value.done, of: step.value.of });
    await new Promise((turn) => setTimeout(turn));
    if (runs.get(drawingId) !== run) return step.value.soFar;
  }
}

/** Ends the reading of a drawing with what it has. */
export function stopReading(drawingId: string): void {
  runs.delete(drawingId);
}
