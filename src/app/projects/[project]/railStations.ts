import type { ProjectState } from '@/core/model/state';
import type { DrawingReading } from '@/project/readings';
import { verdictOf } from '@/project/readings';
import { activeDrawings, type IntakeView } from '@/project/store';
import type { RailStation } from '@/ui/shell/CourseRail';

/** How far each station is, as a count. */
export function railStations(
  state: ProjectState,
  intakes: IntakeView[],
  readings: Record<string, DrawingReading>,
): RailStation[] {
  const drawings = activeDrawings(state);
  const openUnits = drawings.filter((drawing) => !state.placement[drawing.id]?.confirmed).length;
  const ids = new Set(drawings.map((drawing) => drawing.id));
  const layers = Object.values(state.role).filter((row) => ids.has(row.drawingId));
  const sorted = layers.filter((row) => row.role !== null).length;
  const toJudge = drawings.reduce(
    (sum, drawing) =>
      sum +
      (readings[drawing.id]?.result?.candidates ?? []).filter(
        (candidate) => verdictOf(state, drawing.id, candidate.key) === 'open',
      ).length,
    0,
  );
  const elements = Object.keys(state.element).length;
  const failed = intakes.filter((intake) => intake.state === 'failed').length;
  const some = (n: number, word: string) => `${n} ${word}${n === 1 ? '' : 's'}`;
  return [
    {
      name: 'intake',
      number: 1,
      word: 'Intake',
      state: failed > 0 ? `${failed} failed` : some(drawings.length, 'drawing'),
      begun: drawings.length > 0,
    },
    {
      name: 'datum',
      number: 2,
      word: 'Datum',
      state: drawings.length === 0 ? '' : openUnits === 0 ? 'units set' : some(openUnits, 'unit') + ' open',
      begun: drawings.length > 0 && openUnits === 0,
    },
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
      begun: Object.keys(state.decision).length > 0,
    },
    {
      name: 'handover',
      number: 7,
      word: 'Handover',
      state: elements > 0 ? some(elements, 'element') : '',
      begun: false,
    },
  ];
}
