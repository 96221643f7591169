import type { DrawingRow, ProjectRow, ProjectState } from '@/core/model/state';
import type { DisplayUnit, LengthStyle } from '@/core/units/length';

/** The row of the project itself: there is one. */
export const projectRowOf = (state: Pick<ProjectState, 'project'>): ProjectRow => Object.values(state.project)[0];

/** The drawings that are part of the project, in the order of their names. */
export const activeDrawings = (state: Pick<ProjectState, 'drawing'>): DrawingRow[] =>
  Object.values(state.drawing)
    .filter((drawing) => !drawing.discarded)
    .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));

/** How a project shows lengths. */
export function lengthsOf(state: Pick<ProjectState, 'project'>): LengthStyle {
  const row = projectRowOf(state);
  return styleOf(row.displayUnit, row.places);
}

const styles = new Map<string, LengthStyle>();

/** One object for one style, so that what depends on it is not made anew. */
function styleOf(unit: DisplayUnit, places: number | null): LengthStyle {
  const key = `${unit} ${places}`;
  const known = styles.get(key);
  if (known) return known;
  const style = { unit, places };
  styles.set(key, style);
  return style;
}
