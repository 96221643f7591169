import { found, metres, type Rule } from '../rule';

/** Levels closer than this are one, metres. */
const oneLevel = 0.01;
/** A storey that stairs and people fit in is between these, metres. */
const [lowest, highest] = [1.8, 12];

/** Levels at one height, storeys of a height that fits no building, and elements of levels that there are not. */
export const levels: Rule = {
  name: 'levels',
  near: false,
  find({ model, levels: known }) {
    const sorted = [...model.levels].sort((a, b) => a.elevation - b.elevation);
    const doubled = sorted.slice(1).flatMap((level, i) => {
      const below = sorted[i];
      if (level.elevation - below.elevation >= oneLevel) return [];
      return found('error', [below.id, level.id], [0, 0], level.elevation, [
        `${below.name} and ${level.name} lie at one height, ${metres(level.elevation)}.`,
        'Delete one of them, or give it its own elevation.',
      ]);
    });
    const odd = model.levels.flatMap(({ id, name, elevation, height, kind }) => {
      if (kind === 'roof' || kind === 'foundation') return [];
      if (height >= lowest && height <= highest) return [];
      return found('warning', [id], [0, 0], elevation, [
        `${name} is ${metres(height)} high; a storey of ${lowest} to ${highest} m was expected.`,
        'Look whether the unit is right and whether a level is missing.',
      ]);
    });
    const standing = [
      ...model.columns,
      ...model.beams,
      ...model.walls,
      ...model.slabs,
      ...model.zones,
      ...model.outdoor,
    ];
    const lost = standing.filter(({ level }) => !known.has(level));
    const without = lost.map(({ id, level }) =>
      found('error', [id], [0, 0], 0, [
        `It belongs to level ${level || '(none)'}, which the model has not got: nobody knows how high it lies.`,
        'Give it a level, or delete it.',
      ]),
    );
    return [...doubled, ...odd, ...without];
  },
};
