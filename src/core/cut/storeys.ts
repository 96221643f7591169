/** A storey of a file of a building: what stands on it is between its elevation and the next one's. */
export interface Storey {
  name: string;
  /** Of its floor, metres. */
  elevation: number;
  /** How many things the file puts on it. */
  things: number;
}

/** A storey with the heights that its plan is drawn by. */
export interface PlanStorey {
  name: string;
  elevation: number;
  /** To the next storey; of the topmost what is usual, until it is known what stands on it; metres. */
  height: number;
  /** The level plane that its walls and columns are cut by, metres. */
  cut: number;
}

/** Plans are cut through doors and windows, under lintels and above most sills: so high above the floor, metres. */
const eyeHeight = 1.2;

/** A storey is taken for so high where nothing tells, metres. */
const usualHeight = 3;

/** Storeys closer than this are one floor, named twice, such as structure and finish, roof and parapet; metres. */
const leastHeight = 1;

/**
 * The storeys from below, with their heights; of those that are one floor the one with most on it. Low ones are cut at
 * half their height.
 * @param joined told of each storey that has no plan of its own, and of the one that has it
 */
export function planStoreys(storeys: readonly Storey[], joined: (storey: Storey, to: Storey) => void): PlanStorey[] {
  const up: Storey[] = [];
  for (const storey of [...storeys].sort((a, b) => a.elevation - b.elevation)) {
    const below = up.at(-1);
    if (below === undefined || storey.elevation - below.elevation >= leastHeight) {
      up.push(storey);
      continue;
    }
    const [kept, other] = storey.things > below.things ? [storey, below] : [below, storey];
    up[up.length - 1] = kept;
    joined(other, kept);
  }
  return up.map(({ name, elevation }, i) => {
    const height = i + 1 < up.length ? up[i + 1].elevation - elevation : usualHeight;
    return { name, elevation, height, cut: elevation + Math.min(eyeHeight, height / 2) };
  });
}

/** How high the topmost storey is. @param highest of all that the file holds, metres */
export const topHeight = ({ elevation }: PlanStorey, highest: number): number =>
  highest - elevation >= leastHeight ? highest - elevation : usualHeight;
