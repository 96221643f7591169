import { modelWith } from '@/core/handover/testing/modelWith';
import DxfParser from 'dxf-parser';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import * as fc from 'fast-check';
import { place, type Placement } from '@/core/datum/placement';
import { readDxf } from '@/core/drawing/reader';
import type { Point } from '@/core/geometry/vector';
import type { ReadModel } from '@/core/handover/model/readModel';
import { isStorable } from '@/core/storable';
import { flatten } from '@/core/underlay/flatten';
import { ontoPoint, ontoProject, ontoSurvey, type Onto } from './onto';
import { writePlanDxf } from './writePlan';
import { writeSpaceDxf } from './writeSpace';

const survey = { easting: 500_000.25, northing: 6_000_000.5, elevation: 12, north: 30 };

function modelOf(more: Record<string, unknown> = {}): ReadModel {
  return modelWith({
    survey,
    levels: [{ id: 'L1', name: 'Upper', elevation: 3, height: 3, kind: 'ground' }],
    grids: [
      { id: 'g1', label: '1', kind: 'line', start: [0, -1], end: [0, 9] },
      { id: 'gR', label: 'R', kind: 'arc', centre: [0, 0], radius: 5, startAngle: 0, endAngle: 90 },
    ],
    columns: [
      {
        id: 'c1',
        level: 'L1',
        position: [2, 1],
        rotation: 90,
        section: { shape: 'rectangle', width: 0.4, depth: 0.6 },
      },
      { id: 'c2', level: 'L1', position: [6, 1], section: { shape: 'circle', diameter: 0.3 }, mark: 'C2' },
    ],
    beams: [
      {
        id: 'b1',
        level: 'L1',
        start: [2, 1, 6],
        end: [6, 1, 5.5],
        section: { shape: 'rectangle', width: 0.3, depth: 0.5 },
        mark: 'B1',
      },
    ],
    walls: [{ id: 'w1', level: 'L1', start: [0, 0], end: [8, 6], thickness: 0.2, height: 3 }],
    openings: [
      { id: 'o1', wall: 'w1', kind: 'door', offset: 2, width: 1, height: 2.1 },
      { id: 'o2', wall: 'w1', kind: 'window', offset: 5, width: 1.5, height: 1.2, sill: 0.9 },
      { id: 'o3', wall: 'w1', kind: 'door', offset: 8, width: 1, height: 2.1 },
    ],
    slabs: [
      {
        id: 's1',
        level: 'L1',
        outline: [
          [0, 0],
          [8, 0],
          [8, 6],
        ],
        thickness: 0.2,
        top: 2.9,
      },
    ],
    zones: [
      {
        id: 'z1',
        level: 'L1',
        name: 'Dry Lab',
        number: '1.01',
        outline: [
          [0, 0],
          [8, 0],
          [8, 6],
        ],
        height: 3,
      },
    ],
    outdoor: [],
    luminaires: [{ id: 'l1', photometry: 'panel', position: [3, 1, 5.5] }],
    terrain: [
      {
        id: 't1',
        points: [
          [-5, -5],
          [20, -5],
        ],
        elevation: 2.5,
      },
    ],
    ...more,
  });
}

const ontos: [string, Onto][] = [
  ['millimetres in the project', ontoProject('mm')],
  ['the survey, metres', ontoSurvey(survey, 'm')],
  ['a crossing, feet, turned', ontoPoint([3, 4], 'ft', 20)],
  [
    'a mirrored drawing',
    { placement: { ...ontoProject('cm').placement, target: [1, 2], turning: 0.4, mirrored: true }, zero: 0 },
  ],
];

/** Every path of a layer, back in the project. */
function pathsOf(text: string, placement: Placement, layer: string): Point[][] {
  const read = readDxf(new TextEncoder().encode(text));
  if (!read.ok) throw new Error(read.message);
  const { drawing, account } = read.value;
  expect([account.leftOut, account.warnings]).toEqual([[], []]);
  const p = flatten(drawing);
  return [...p.layer.keys()]
    .filter((i) => drawing.layers[p.layer[i]].name === layer)
    .map((i) =>
      Array.from({ length: p.start[i + 1] - p.start[i] }, (_, k) =>
        place(placement, [p.xy[2 * (p.start[i] + k)] + p.origin[0], p.xy[2 * (p.start[i] + k) + 1] + p.origin[1]]),
      ),
    );
}
const near = (a: Point, b: Point): boolean => Math.hypot(a[0] - b[0], a[1] - b[1]) < 1e-6;

test.each(ontos)('the plan lies where the model is, with its doors and windows: %s', (_, onto) => {
  const model = modelOf();
  const text = writePlanDxf(model, model.levels[0], onto);
  const on = (layer: string) => pathsOf(text, onto.placement, layer);
  expect(near(on('ZF-GRID')[0][0], [0, -1])).toBe(true);
  // 0.4 by 0.6 turned by 90 degrees about (2, 1).
  expect(on('ZF-COLUMN')[0].some((p) => near(p, [2.3, 1.2]))).toBe(true);
  // The wall runs along (0.8, 0.6), 10 m long: three openings leave four pieces.
  expect(on('ZF-WALL')).toHaveLength(4);
  const openings = on('ZF-OPENING');
  // The door begins 2 m along; its leaf stands open 1 m to the left of the wall's face, 0.1 m off the middle.
  const leaf = openings.find((points) => points.length === 2 && near(points[0], [1.6 - 0.06, 1.2 + 0.08]));
  expect(leaf !== undefined && near(leaf[1], [1.6 - 0.06 - 0.6, 1.2 + 0.08 + 0.8])).toBe(true);
  // The pane of the window, 5 to 6.5 m along.
  const pane = openings.find((points) => points.length === 2 && near(points[0], [4, 3]));
  expect(pane !== undefined && near(pane[1], [5.2, 3.9])).toBe(true);
});

test('doors and windows of one size are one block, in a public parser too; the header has the unit', () => {
  const model = modelOf();
  const parsed = new DxfParser().parseSync(writePlanDxf(model, model.levels[0], ontoProject('mm')))!;
  expect(parsed.header.$INSUNITS).toBe(4);
  expect(Object.keys(parsed.blocks).filter((name) => name.startsWith('ZF-'))).toEqual([
    'ZF-DOOR-1000-200',
    'ZF-WINDOW-1500-200',
  ]);
  const inserts = parsed.entities.filter(({ type }) => type === 'INSERT');
  expect(inserts).toHaveLength(3);
  const texts = parsed.entities.flatMap((entity) => ('text' in entity ? [String(entity.text)] : []));
  expect(texts).toEqual(expect.arrayContaining(['1.01 Dry Lab', 'C2', 'B1', '2.50', 'panel']));
});

test('in space members lie at their heights, in the unit asked for, above the zero asked for', () => {
  const ends = (onto: Onto, layer: string): number[][] => {
    const parsed = new DxfParser().parseSync(writeSpaceDxf(modelOf(), onto))!;
    return parsed.entities
      .filter((entity) => entity.layer === layer)
      .flatMap((entity) =>
        ('vertices' in entity ? (entity.vertices as { z?: number }[]) : []).map(({ z }) => [z ?? 0]),
      );
  };
  expect(ends(ontoProject('mm'), 'ZF-COLUMN').flat()).toEqual([3000, 6000, 3000, 6000]);
  expect(ends(ontoProject('m'), 'ZF-BEAM').flat()).toEqual([6, 5.5]);
  // The survey has the project's zero at 12 m.
  expect(ends(ontoSurvey(survey, 'm'), 'ZF-BEAM').flat()).toEqual([18, 17.5]);
  expect(ends(ontoProject('m'), 'ZF-WALL').flat()).toEqual([3, 3, 3, 6, 6, 6, 6, 3]);
});

test('any text that a name can have survives, as one line', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 40 }).filter(isStorable), (name) => {
      const model = modelOf({ beams: [], columns: [], luminaires: [], terrain: [], grids: [] });
      const [zone] = model.zones;
      const text = writePlanDxf(
        { ...model, zones: [{ ...zone, number: '', name: `x${name}y` }] },
        model.levels[0],
        ontoProject('m'),
      );
      const read = readDxf(new TextEncoder().encode(text));
      if (!read.ok) throw new Error(read.message);
      const texts = flatten(read.value.drawing).texts.map((one) => one.text);
      expect(texts).toEqual([`x${name}y`.replace(/[\r\n]+/g, ' ')]);
    }),
    { numRuns: 60 },
  );
});

const auditor = `
import sys, ezdxf
doc, auditor = ezdxf.recover.readfile(sys.argv[1]) if hasattr(ezdxf, 'recover') else (ezdxf.readfile(sys.argv[1]), None)
auditor = auditor or doc.audit()
print(len(auditor.errors), [str(e.message) for e in auditor.errors][:5])
sys.exit(1 if auditor.errors else 0)
`;
const hasAuditor = spawnSync('/usr/bin/python3', ['-c', 'import ezdxf']).status === 0;
// Where Debian's Python has it; else the two parsers above are all that has read these files.
(hasAuditor ? test : test.skip)('ezdxf finds nothing to mend (skipped where Debian has no python3-ezdxf)', () => {
  const folder = mkdtempSync(join(tmpdir(), 'zircon-dxf-'));
  const model = modelOf();
  const files = {
    'plan.dxf': writePlanDxf(model, model.levels[0], ontoProject('mm')),
    'space.dxf': writeSpaceDxf(model, ontoProject('m')),
  };
  for (const [name, text] of Object.entries(files)) {
    writeFileSync(join(folder, name), text);
    const { status, stdout } = spawnSync('/usr/bin/python3', ['-c', auditor, join(folder, name)], { encoding: 'utf8' });
    expect([name, status, stdout.trim()]).toEqual([name, 0, '0 []']);
  }
});
