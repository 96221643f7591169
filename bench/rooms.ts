import { performance } from 'node:perf_hooks';
import { readModel, type ReadModel } from '@/core/handover/model/readModel';
import { tryHeat } from '@/core/energy/heat';
import { usualIes } from '@/core/lighting/photometry/usual';
import { tryLight } from '@/core/lighting/light';

type Part = Record<string, unknown>;

/** Sides of a room, and the thickness of the walls between, metres. */
const [wide, deep, thick] = [6, 5, 0.2];
/** Luminaires of a room, in rows of two. */
const lamps = 8;

/** An office of so many rooms in rows, each with eight luminaires and a calculation area of 400 points. */
function makeRooms(count: number): ReadModel {
  const columns = Math.ceil(Math.sqrt(count));
  const [walls, zones, luminaires, calculationAreas]: Part[][] = [[], [], [], []];
  const [w, d] = [wide + thick, deep + thick];
  const wall = (id: string, start: number[], end: number[]) =>
    walls.push({ id, level: 'L1', start, end, thickness: thick, height: 3 });
  for (let i = 0; i < count; i += 1) {
    const [x, y] = [(i % columns) * w, Math.floor(i / columns) * d];
    const outline = [
      [x, y],
      [x + wide, y],
      [x + wide, y + deep],
      [x, y + deep],
    ];
    zones.push({ id: `Z${i}`, level: 'L1', name: `Room ${i}`, outline, height: 3, clearHeight: 2.8 });
    wall(`S${i}`, [x - thick, y - thick / 2], [x + wide + thick, y - thick / 2]);
    wall(`W${i}`, [x - thick / 2, y - thick], [x - thick / 2, y + deep + thick]);
    wall(`N${i}`, [x - thick, y + deep + thick / 2], [x + wide + thick, y + deep + thick / 2]);
    wall(`E${i}`, [x + wide + thick / 2, y - thick], [x + wide + thick / 2, y + deep + thick]);
    for (let k = 0; k < lamps; k += 1)
      luminaires.push({
        id: `A${i}-${k}`,
        photometry: 'F',
        position: [x + 0.75 + 1.5 * (k % 4), y + 1.25 + 2.5 * Math.floor(k / 4), 2.75],
      });
    // 30 m2 by 0.274 m: about 400 points.
    calculationAreas.push({ id: `P${i}`, zone: `Z${i}`, outline, z: 0.8, spacing: 0.274 });
  }
  const file = {
    format: 'zircon-frame-model',
    version: 1,
    unit: 'm',
    levels: [{ id: 'L1', name: 'Floor', elevation: 0, height: 3 }],
    walls,
    zones,
    luminaires,
    calculationAreas,
    photometries: [{ id: 'F', ies: usualIes('panel') }],
  };
  const read = readModel(JSON.stringify(file));
  if (!read.ok) throw new Error(read.message);
  return read.value;
}

const cell = (text: string | number) => String(text).padStart(12);

/** What a trial of rooms takes, and how that grows. */
function grown(heads: string[], sizes: readonly number[], row: (model: ReadModel) => (string | number)[]): number {
  console.log(['rooms', ...heads, 'seconds', 'ms a room'].map(cell).join(''));
  for (const size of sizes) {
    const model = makeRooms(size);
    const begun = performance.now();
    const told = row(model);
    const seconds = (performance.now() - begun) / 1000;
    console.log([size, ...told, seconds.toFixed(2), ((1000 * seconds) / size).toFixed(1)].map(cell).join(''));
  }
  return 0;
}

/** `./run bench energy [rooms ...]`: the trial of heat, and how it grows. */
export const benchEnergy = (sizes: readonly number[]): number =>
  grown(['surfaces', 'kW'], sizes, (model) => {
    const { zones, building } = tryHeat(model);
    return [zones.reduce((sum, { surfaces }) => sum + surfaces.length, 0), (building.designLoad / 1000).toFixed(1)];
  });

/** `./run bench lighting [rooms ...]`: the trial of light, with 400 points a room, and how it grows. */
export const benchLighting = (sizes: readonly number[]): number =>
  grown(['points', 'mean lx'], sizes, (model) => {
    const { areas } = tryLight(model);
    return [areas.reduce((sum, { points }) => sum + points.length, 0), (areas[0]?.mean ?? 0).toFixed(0)];
  });
