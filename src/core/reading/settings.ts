/** What reading takes for granted of each kind where the drawing does not say; lengths in metres. */
export interface ReadingSettings {
  /** What a wall measures across. */
  wall: { least: number; most: number };
  door: { height: number };
  window: { sill: number; height: number };
  beam: { least: number; most: number; depth: number };
  /** Thickness of slabs, and how far the slab of a building without a drawn one reaches beyond its outer faces. */
  slab: { thickness: number; edge: number };
  /** Zones smaller than this, square metres, are shafts. */
  zone: { least: number };
  outdoor: { height: number };
}

export const defaultSettings: ReadingSettings = {
  wall: { least: 0.05, most: 0.6 }, door: { height: 2.1 }, window: { sill: 0.9, height: 1.2 }, beam: { least: 0.1, most: 1.2, depth: 0.5 }, slab: { thickness: 0.2, edge: 0 }, zone: { least: 1 }, outdoor: { height: 0.1 },
};
