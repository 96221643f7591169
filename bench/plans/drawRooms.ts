import type { XY } from '../../demo/building';
import type { Building, Room } from './building';
import type { Hand } from './hand';
import { corners } from './pen';
import { between, pick } from './random';

export function drawRooms(hand: Hand, { rooms }: Building): void {
  for (const room of rooms) {
    hand.truth.zones.push({ name: room.name, number: room.number, area: room.area, at: hand.turned(room.at) });
    if (hand.style.roomOutline === 'drawn')
      for (const loop of room.faces)
        hand.draft.polyline(
          hand.layers.room,
          loop.map(({ a }) => a),
          true,
        );
    words(hand, room);
    if (hand.style.furniture === 'some') furniture(hand, room);
  }
  if (hand.style.stair === 'drawn') stair(hand, largest(rooms));
}

function words({ draft, layers, style }: Hand, { name, number, at: [x, y], area }: Room): void {
  const layer = layers.room;
  const above: XY = [x, y + 0.45];
  switch (style.roomText) {
    case 'two texts':
      draft.text(layer, above, 0.25, name);
      draft.text(layer, [x, y], 0.2, number);
      break;
    case 'one text':
      draft.mtext(layer, above, 0.22, `${name}\\P${number}\\P${area.toFixed(1)} m2`);
      break;
    case 'block':
      draft.insert(layer, 'ROOM', above, { attribute: { tag: 'NUMBER', text: number, height: 0.2 } });
      draft.text(layer, [x, y], 0.25, name);
      break;
    case 'with finish':
      draft.text(layer, above, 0.25, name);
      draft.text(layer, [x, y], 0.2, number);
      draft.text(layer, [x, y - 0.4], 0.18, `${area.toFixed(1)} m2`);
      draft.text(layer, [x, y - 0.75], 0.18, 'Linoleum');
      break;
    case 'boxed number':
      draft.text(layer, above, 0.25, name);
      draft.text(layer, [x, y], 0.2, number);
      draft.polyline(layer, corners([x, y], 1, 0.36), true);
      break;
  }
}

const largest = (rooms: readonly Room[]): Room => rooms.reduce((most, room) => (room.area > most.area ? room : most));

/** How a stair is drawn, metres. */
const flight = { width: 1.1, tread: 0.28, treads: 9, fromWall: 0.35 };

/** A flight along the lower side of a room: treads, strings, an arrow upwards, and where it is cut. */
function stair({ draft, layers }: Hand, { cell: { x, y } }: Room): void {
  const layer = layers.furniture;
  const [left, low] = [x[0] + 2 * flight.fromWall, y[0] + flight.fromWall];
  const [right, high] = [left + flight.treads * flight.tread, low + flight.width];
  if (right > x[1] - flight.fromWall || high > (y[0] + y[1]) / 2 - flight.fromWall) return;
  for (let k = 0; k <= flight.treads; k += 1)
    draft.line(layer, [left + k * flight.tread, low], [left + k * flight.tread, high]);
  for (const side of [low, high]) draft.line(layer, [left, side], [right, side]);
  const middle = (low + high) / 2;
  draft.line(layer, [left, middle], [right - 0.1, middle]);
  for (const side of [-0.1, 0.1]) draft.line(layer, [right - 0.3, middle + side], [right - 0.1, middle]);
  draft.line(layer, [right - 1.1, low - 0.1], [right - 0.7, high + 0.1]);
  draft.text(layer, [left + 0.3, high + 0.12], 0.15, 'up');
}

/** A table or a cupboard or two, and a round one. */
function furniture({ draft, layers, random }: Hand, { cell: { x, y } }: Room): void {
  const spot = (): XY => [between(random, x[0] + 0.8, x[1] - 0.8), between(random, y[0] + 0.8, y[1] - 0.8)];
  for (let n = Math.floor(random() * 3); n > 0; n -= 1) {
    const at = spot();
    if (random() < 0.2) draft.circle(layers.furniture, at, pick(random, [0.3, 0.45, 0.6]));
    else
      draft.polyline(
        layers.furniture,
        corners(at, pick(random, [0.4, 0.6, 0.8, 1.6]), pick(random, [0.4, 0.5, 0.8])),
        true,
      );
  }
}
