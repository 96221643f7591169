import { modelWith } from '@/core/handover/testing/modelWith';
import { writeGbxml } from '@/core/exports/gbxml/writeGbxml';
import type { ReadModel } from '@/core/handover/model/readModel';
import { openGbxml } from './openGbxml';

const outline = [
  [0, 0],
  [5, 0],
  [5, 4],
  [0, 4],
];
const wall = (id: string, start: number[], end: number[]) => ({
  id,
  level: 'L',
  start,
  end,
  thickness: 0.2,
  height: 3,
});

function model(): ReadModel {
  return modelWith({
    levels: [{ id: 'L', name: 'Ground', elevation: 0, height: 3 }],
    walls: [
      wall('a', [0, -0.1], [5, -0.1]),
      wall('b', [5.1, 0], [5.1, 4]),
      wall('c', [5, 4.1], [0, 4.1]),
      wall('d', [-0.1, 4], [-0.1, 0]),
    ],
    openings: [{ id: 'w', wall: 'a', kind: 'window', offset: 1, width: 1, height: 1, sill: 1 }],
    zones: [{ id: 'z', level: 'L', name: 'R\u00fcst <&> "raum"', outline, height: 2.7 }],
  });
}
const text = writeGbxml(model(), 'One');

test('a room comes back and closes', () => {
  expect(openGbxml(text, model())).toEqual({
    ok: true,
    value: [
      { kind: 'zones', model: 1, file: 1 },
      { kind: 'closed rooms', model: 1, file: 1 },
    ],
  });
});

test.each([
  ['an element that is left out', (xml: string) => xml.replace(/<Volume>[^<]*<\/Volume>/, ''), 'holds no Volume'],
  [
    'an attribute that is left out',
    (xml: string) => xml.replace(' openingType="FixedWindow"', ''),
    'has no openingType',
  ],
  ['a reference to nothing', (xml: string) => xml.replace('zoneIdRef="zone-z"', 'zoneIdRef="zone-y"'), 'names zone-y'],
  ['an id given twice', (xml: string) => xml.replace('id="zone-z"', 'id="space-z"'), 'the id space-z is given twice'],
  ['a word that there is not', (xml: string) => xml.replace('"SlabOnGrade"', '"Floor"'), 'surfaceType of'],
  [
    'a number that is none',
    (xml: string) => xml.replace(/<Coordinate>[^<]*</, '<Coordinate>wide<'),
    'no three numbers',
  ],
  ['a text that is no XML', (xml: string) => xml.slice(0, 900), 'no XML file'],
])('%s is told', (_, damage, words) => {
  const damaged = damage(text);
  expect(damaged).not.toBe(text);
  expect(openGbxml(damaged, model())).toMatchObject({ ok: false, message: expect.stringContaining(words) as string });
});

test('a shell without one of its faces does not close', () => {
  const [shell] = /<ClosedShell>[\s\S]*?<\/ClosedShell>/.exec(text)!;
  const open = text.replace(shell, shell.replace(/<PolyLoop>[\s\S]*?<\/PolyLoop>/, ''));
  expect(openGbxml(open, model())).toMatchObject({ ok: true, value: [{ file: 1 }, { kind: 'closed rooms', file: 0 }] });
});
