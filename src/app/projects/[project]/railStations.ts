import { counted } from '@/core/model/counted';
import type { Model } from '@/core/model/model';
import type { DrawingReading } from '@/project/readings';
import { verdictOf } from '@/project/readings';
import { activeDrawings } from '@/project/projectRow';
import type { Finding } from '@/core/proof/finding';
import type { IntakeView } from '@/project/told';
import type { RailStation } from '@/ui/shell/CourseRail';

/** How many candidates of all drawings nobody has decided on. */
export function openCandidates(model: Model, readings: Record<string, DrawingReading>): number {
  return activeDrawings(model).reduce((sum, { id }) => {
    const candidates = readings[id]?.result?.candidates ?? [];
    return sum + candidates.filter(({ key }) => verdictOf(model, id, key) === 'open').length;
  }, 0);
}

/** How many elements were drawn by hand. */
export function handMade(model: Model): number {
  let count = 0;
  for (const element of Object.values(model.element)) if (element.source === null) count += 1;
  return count;
}

/** What is known of findings: null before the first time; stale once the model has changed since. */
export interface Proven {
  findings: readonly Finding[] | null;
  stale: boolean;
}

/** How many errors there are, or else how many other findings; of an older model nothing is said to be sound. */
function proofState(elements: number, { findings, stale }: Proven): string {
  if (elements === 0 || findings === null) return '';
  const errors = findings.filter(({ severity }) => severity === 'error').length;
  if (errors > 0) return counted(errors, 'error');
  if (findings.length > 0) return counted(findings.length, 'finding');
  return stale ? 'looking again' : 'sound';
}

/** How far each station is, as a count. */
export function railStations(
  model: Model,
  intakes: readonly IntakeView[],
  { toJudge, proven }: { toJudge: number; proven: Proven },
): RailStation[] {
  const drawings = activeDrawings(model);
  const openUnits = drawings.filter((drawing) => !model.placement[drawing.id]?.confirmed).length;
  const ids = new Set(drawings.map((drawing) => drawing.id));
  const layers = Object.values(model.role).filter((row) => ids.has(row.drawingId));
  const sorted = layers.filter((row) => row.role !== null).length;
  const elements = model.count('element');
  const byHand = handMade(model);
  const failed = intakes.filter((intake) => intake.state === 'failed').length;
  const units = openUnits === 0 ? 'units set' : `${counted(openUnits, 'unit')} open`;
  const some = drawings.length > 0;
  return [
    {
      name: 'intake',
      number: 1,
      word: 'Intake',
      state: failed > 0 ? `${failed} failed` : counted(drawings.length, 'drawing'),
      begun: some,
    },
    { name: 'datum', number: 2, word: 'Datum', state: some ? units : '', begun: some && openUnits === 0 },
    {
      name: 'sorting',
      number: 3,
      word: 'Sorting',
      state: layers.length === 0 ? '' : `${sorted} of ${layers.length}`,
      begun: sorted > 0,
    },
    {
      name: 'reading',
      number: 4,
      word: 'Reading',
      state: toJudge > 0 ? `${toJudge} to judge` : '',
      begun: model.count('decision') > 0,
    },
    {
      name: 'tracing',
      number: 5,
      word: 'Tracing',
      state: byHand > 0 ? `${byHand} by hand` : '',
      begun: byHand > 0,
    },
    {
      name: 'proof',
      number: 6,
      word: 'Proof',
      state: proofState(elements, proven),
      begun: elements > 0 && proven.findings?.length === 0 && !proven.stale,
    },
    {
      name: 'handover',
      number: 7,
      word: 'Handover',
      state: elements > 0 ? counted(elements, 'element') : '',
      begun: false,
    },
  ];
}
