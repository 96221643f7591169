'use client';
import { useProjectRow } from '@/project/useSession';
import { useView } from '@/project/view';

/** The turn of the axes that are worked along, radians counter-clockwise from +x; zero for the project's own. */
export function useWorkingAngle(): number {
  const axesId = useView((view) => view.axesId);
  return useProjectRow().axes.find(({ id }) => id === axesId)?.angle ?? 0;
}
