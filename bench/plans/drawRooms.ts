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
    case 'boxed number':
      draft.text(layer, above, 0.25, name);
      draft.text(layer, [x, y], 0.2, number);
      draft.polyline(layer, corners([x, y], 1, 0.36), true);
      break;
  }
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
