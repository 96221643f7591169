import { heatFile } from '@/core/energy/file';
import type { ReadModel } from '@/core/handover/model/readModel';
import { freedoms } from '@/core/kinds/support';
import type { Finding } from '@/core/proof/finding';
import { combinedCases } from '@/core/structure/combine';
import { innerNames, stations } from '@/core/structure/file';
import { innerAt, type CaseResult } from '@/core/structure/solve/solve';
import { memberName, nodeName, type StructureTrial } from '@/core/structure/trial';
import type { V3 } from '@/core/structure/vector3';
import type { Results } from '../results/results';
import { columnsOf, rounded, type Cell, type Head, type Schedule } from './table';

type Rows = readonly (readonly Cell[])[];

const table = (name: string, heads: readonly Head[], rows: Rows): Schedule => ({
  name,
  columns: columnsOf(...heads),
  rows,
});

/** Heads of three numbers along the project's axes. */
const along = (word: string, unit: string): [string, string][] =>
  ['x', 'y', 'z'].map((axis) => [`${word} ${axis}`, unit]);

const forceOf = (force: V3): number[] => force.map(rounded);
const lengthOf = ([[a, b, c], [x, y, z]]: readonly [V3, V3]): number => rounded(Math.hypot(x - a, y - b, z - c));

/**
 * What the calculation models are made of and what they come to, as tables that can be pasted elsewhere: nodes,
 * members, releases, loads, combinations, reactions, inner forces; rooms with their heat; areas with their light; all
 * findings.
 */
export function analysisTables({ model, structure, heat, light, findings, assumed }: Results): Schedule[] {
  return [
    ...(structure === null ? [] : structureTables(structure)),
    ...(heat === null ? [] : [heatTable(heatFile(heat), model)]),
    ...(light === null ? [] : [lightTable(light)]),
    findingsTable(findings),
    table('taken for granted', ['trial', 'what'], assumed),
  ].filter(({ rows }) => rows.length > 0);
}

/** Tables that are read by people: what is wrong, what each room and area comes to, and what was taken for granted. */
export const reportTables = ({ model, structure, heat, light, findings, assumed }: Results): Schedule[] => [
  findingsInWords(findings),
  ...(structure === null ? [] : [balanceTable(structure)]),
  ...(heat === null ? [] : [heatTable(heatFile(heat), model)]),
  ...(light === null ? [] : [lightInWords(light)]),
  table('taken for granted', ['trial', 'what'], assumed),
];

const findingsInWords = (findings: readonly Finding[]): Schedule =>
  table(
    'findings',
    ['severity', 'rule', 'found', 'remedy', ['x', 'm'], ['y', 'm'], ['z', 'm']],
    findings.map(({ severity, rule, message, remedy, position }) => [
      severity,
      rule,
      message,
      remedy,
      ...position.map((value) => Number(value.toFixed(2))),
    ]),
  );

/** What is applied and what supports carry, whose sum is nothing. */
const balanceTable = ({ solution }: StructureTrial): Schedule =>
  table(
    'loads and reactions',
    ['case', ['applied downward', 'kN'], ['carried upward', 'kN'], ['difference', 'kN']],
    solution.cases.map(({ id, applied, reactions }) => [
      id,
      ...[-applied[2], reactions[2], applied[2] + reactions[2]].map((value) => Number((value / 1000).toFixed(2))),
    ]),
  );

/** Areas of rooms by their names; of no room, by what they are. */
const lightInWords = (light: NonNullable<Results['light']>): Schedule => {
  const { columns, rows, name } = lightTable(light);
  return {
    name,
    columns: columns.slice(1),
    rows: rows.map(([, room, ...rest]) => [room === '' ? 'outside' : room, ...rest]),
  };
};

function structureTables(trial: StructureTrial): Schedule[] {
  const { structure, solution } = trial;
  const { frame, loads, combinations, cases } = structure;
  const results = [...solution.cases, ...combinedCases(structure, solution)];
  return [
    table(
      'nodes',
      ['node', ['x', 'm'], ['y', 'm'], ['z', 'm'], ...freedoms.map((freedom) => `fixed ${freedom}`)],
      frame.nodes.map(({ position, fixed }, n) => [
        nodeName(n),
        ...position.map(rounded),
        ...freedoms.map((_, i) => (fixed[i] ? 1 : 0)),
      ]),
    ),
    membersTable(trial),
    table(
      'load cases',
      ['case', 'name', 'self-weight'],
      cases.map(({ id, name, selfWeight }) => [id, name ?? id, selfWeight]),
    ),
    table(
      'member loads',
      ['case', 'member', ['from', 'm'], ['to', 'm'], ...along('q start', 'N/m'), ...along('q end', 'N/m')],
      loads.flatMap(({ id, spread }) =>
        spread.map(({ member, from, to, force: [begin, end] }) => [
          id,
          memberName(member),
          rounded(from),
          rounded(to),
          ...forceOf(begin),
          ...forceOf(end),
        ]),
      ),
    ),
    table(
      'point loads',
      ['case', 'at', ['along', 'm'], ...along('F', 'N'), ...along('M', 'Nm')],
      loads.flatMap(({ id, places, nodes }): Cell[][] => [
        ...places.map(({ member, at, force, moment }) => [
          id,
          memberName(member),
          rounded(at),
          ...forceOf(force),
          ...forceOf(moment),
        ]),
        ...nodes.map(({ node, force, moment }) => [id, nodeName(node), null, ...forceOf(force), ...forceOf(moment)]),
      ]),
    ),
    table(
      'combinations',
      ['combination', ...cases.map(({ id }) => id)],
      combinations.map(({ id, factors }) => [id, ...cases.map((one) => factors[one.id] ?? 0)]),
    ),
    table(
      'reactions',
      ['case', 'node', ...along('F', 'N'), ...along('M', 'Nm')],
      results.flatMap(({ id, supports }) =>
        supports
          .filter(({ node }) => solution.nodeSound(node))
          .map(({ node, value }) => [id, nodeName(node), ...value.map(rounded)]),
      ),
    ),
    innerForces(trial, results),
  ];
}

const membersTable = ({ structure: { frame } }: StructureTrial): Schedule =>
  table(
    'members',
    [
      'member',
      'element',
      'start',
      'end',
      ['length', 'm'],
      ['EA', 'N'],
      ['EIy', 'Nm\u00b2'],
      ['EIz', 'Nm\u00b2'],
      ['GJ', 'Nm\u00b2'],
      'released at start',
      'released at end',
    ],
    frame.members.map(({ element, nodes: [start, end], ends, rigidity: { ea, eiy, eiz, gj }, released }, m) => [
      memberName(m),
      element,
      nodeName(start),
      nodeName(end),
      lengthOf(ends),
      ...[ea, eiy, eiz, gj].map((value) => Number(value.toPrecision(9))),
      ...[0, freedoms.length].map((from) => freedoms.filter((_, i) => released[from + i]).join(' ')),
    ]),
  );

/** The least and the greatest of each inner force of each member, with the case that gives it. */
function innerForces({ structure: { frame }, solution }: StructureTrial, results: readonly CaseResult[]): Schedule {
  const units = ['N', 'N', 'N', 'Nm', 'Nm', 'Nm'];
  const rows = frame.members.flatMap((_, m): Cell[][] => {
    if (!solution.memberSound(m)) return [];
    const all = results.flatMap((one) => stations.map((at) => ({ id: one.id, at, inner: innerAt(frame, one, m, at) })));
    return innerNames.map((name, i) => {
      const sorted = [...all].sort((a, b) => a.inner[i] - b.inner[i]);
      const [least, greatest] = [sorted[0], sorted[sorted.length - 1]];
      return [
        memberName(m),
        name,
        units[i],
        ...[least, greatest].flatMap(({ id, at, inner }) => [rounded(inner[i]), id, at]),
      ];
    });
  });
  return table(
    'inner forces',
    [
      'member',
      'force',
      'unit',
      'least',
      'case of the least',
      'station',
      'greatest',
      'case of the greatest',
      'its station',
    ],
    rows,
  );
}

function heatTable({ zones }: ReturnType<typeof heatFile>, model: ReadModel): Schedule {
  const names = new Map(model.zones.map(({ id, name, number }) => [id, [number, name].filter(Boolean).join(' ')]));
  return table(
    'heat of rooms',
    [
      'room',
      ['area', 'm\u00b2'],
      ['volume', 'm\u00b3'],
      ['inside', '\u00b0C'],
      ['transmission', 'W/K'],
      ['air', 'W/K'],
      ['design load', 'W'],
      ['need in a year', 'kWh'],
    ],
    zones.map(({ id, area, volume, temperature, transmission, ventilation, designLoad, months }) => [
      names.get(id) ?? id,
      ...[area, volume, temperature, transmission, ventilation, designLoad].map(rounded),
      rounded(months.reduce((sum, { heating }) => sum + heating, 0)),
    ]),
  );
}

const lightTable = ({ areas, rooms }: NonNullable<Results['light']>): Schedule =>
  table(
    'light of areas',
    ['area', 'room', ['mean', 'lx'], ['least', 'lx'], ['greatest', 'lx'], 'uniformity', ['power', 'W/m\u00b2']],
    areas.map(({ id, zone, mean, least, greatest, uniformity }) => {
      const room = rooms.find((one) => one.zone === zone);
      const power = room === undefined || room.area === 0 ? null : rounded(room.power / room.area);
      return [id, room?.name ?? '', ...[mean, least, greatest, uniformity].map(rounded), power];
    }),
  );

const findingsTable = (findings: readonly Finding[]): Schedule =>
  table(
    'findings',
    ['severity', 'rule', 'found', 'remedy', ['x', 'm'], ['y', 'm'], ['z', 'm'], 'elements'],
    findings.map(({ severity, rule, message, remedy, position, elements }) => [
      severity,
      rule,
      message,
      remedy,
      ...position.map(rounded),
      elements.join(' '),
    ]),
  );
