import type { ReadBack } from '@/core/exports/ifc/readBack';
import type { ReadModel } from '@/core/handover/model/readModel';
import { fail, ok, type Result } from '@/core/result';
import { allNodes, readXml, type XmlNode } from './readXml';

type V3 = [number, number, number];

/** What elements must have, by the schema of gbXML 7.03: attributes, and elements within. */
const asked: Record<string, { attributes?: readonly string[]; within?: readonly string[] }> = {
  gbXML: {
    attributes: ['temperatureUnit', 'lengthUnit', 'areaUnit', 'volumeUnit', 'useSIUnitsForResults', 'version'],
    within: ['Campus'],
  },
  Campus: { attributes: ['id'], within: ['Location', 'Building'] },
  Location: { within: ['ZipcodeOrPostalCode'] },
  Building: { attributes: ['id', 'buildingType'], within: ['Area'] },
  BuildingStorey: { attributes: ['id'], within: ['Level'] },
  Space: { attributes: ['id', 'zoneIdRef'], within: ['Area', 'Volume', 'PlanarGeometry', 'ShellGeometry'] },
  ShellGeometry: { attributes: ['id'], within: ['ClosedShell'] },
  ClosedShell: { within: ['PolyLoop'] },
  SpaceBoundary: { attributes: ['surfaceIdRef'] },
  Surface: {
    attributes: ['id', 'surfaceType'],
    within: ['AdjacentSpaceId', 'RectangularGeometry', 'PlanarGeometry'],
  },
  AdjacentSpaceId: { attributes: ['spaceIdRef'] },
  RectangularGeometry: { within: ['Azimuth', 'CartesianPoint', 'Tilt', 'Height', 'Width'] },
  PlanarGeometry: { within: ['PolyLoop'] },
  Opening: { attributes: ['id', 'openingType'], within: ['PlanarGeometry'] },
  Construction: { attributes: ['id'], within: ['Name'] },
  Layer: { attributes: ['id'], within: ['MaterialId'] },
  Material: { attributes: ['id'], within: ['Name', 'Thickness'] },
  WindowType: { attributes: ['id'], within: ['Name', 'U-value'] },
  Zone: { attributes: ['id'], within: ['Name'] },
};

/** Words that attributes are chosen from, as far as buildings need them. */
const words: Record<string, readonly string[]> = {
  surfaceType: [
    'InteriorWall',
    'ExteriorWall',
    'Roof',
    'InteriorFloor',
    'ExposedFloor',
    'Shade',
    'UndergroundWall',
    'UndergroundSlab',
    'Ceiling',
    'Air',
    'UndergroundCeiling',
    'RaisedFloor',
    'SlabOnGrade',
    'FreestandingColumn',
    'EmbeddedColumn',
  ],
  openingType: [
    'FixedWindow',
    'OperableWindow',
    'FixedSkylight',
    'OperableSkylight',
    'SlidingDoor',
    'NonSlidingDoor',
    'Air',
  ],
  conditionType: ['Heated', 'Cooled', 'HeatedAndCooled', 'Unconditioned', 'Vented', 'NaturallyVentedOnly'],
};

/** What refers to others by their ids, all of an element's kind. */
const references = /IdRef$/;

const calledIn = ({ name, attributes }: XmlNode): string =>
  attributes.id === undefined ? name : `${name} ${attributes.id}`;

/** What breaks the schema's rules, in sentences. */
function brokenRules(root: XmlNode): string[] {
  const nodes = [...allNodes(root)];
  const ids = nodes.flatMap(({ attributes }) => attributes.id ?? []);
  const declared = new Set<string>();
  const doubled = new Set(ids.filter((id) => declared.size === declared.add(id).size));
  return [
    ...(root.name === 'gbXML' ? [] : [`its root is ${root.name} and not gbXML.`]),
    ...[...doubled].map((id) => `the id ${id} is given twice.`),
    ...nodes.flatMap((node) => {
      const { attributes = [], within = [] } = asked[node.name] ?? {};
      const has = new Set(node.children.map(({ name }) => name));
      return [
        ...attributes.filter((one) => !(one in node.attributes)).map((one) => `${calledIn(node)} has no ${one}.`),
        ...within.filter((one) => !has.has(one)).map((one) => `${calledIn(node)} holds no ${one}.`),
        ...Object.entries(node.attributes).flatMap(([key, value]) => {
          if (references.test(key) && !declared.has(value))
            return [`${calledIn(node)} names ${value}, which is not there.`];
          return key in words && !words[key].includes(value) ? [`${key} of ${calledIn(node)} is ${value}.`] : [];
        }),
        ...(node.name === 'PolyLoop' && loopOf(node).length < 3 ? ['a loop has fewer than three corners.'] : []),
        ...(node.name === 'CartesianPoint' && !isPlace(node) ? ['a point has no three numbers.'] : []),
      ];
    }),
  ];
}

const numbersOf = ({ children }: XmlNode): number[] => children.map(({ text }) => Number(text));
const isPlace = (node: XmlNode): boolean => {
  const numbers = numbersOf(node);
  return numbers.length === 3 && numbers.every(Number.isFinite);
};
const loopOf = ({ children }: XmlNode): V3[] =>
  children.filter(({ name }) => name === 'CartesianPoint').map((node) => numbersOf(node) as V3);

/** A shell closes where its areas along their normals add up to nothing within this share of all area. */
const closes = 1e-5;

/** Whether the loops of a space's shell close it (Newell's normals), with something inside. */
function isClosed(space: XmlNode): boolean {
  const shell = [...allNodes(space)].find(({ name }) => name === 'ClosedShell');
  const sum: V3 = [0, 0, 0];
  let [size, volume] = [0, 0];
  for (const ring of (shell?.children ?? []).map(loopOf)) {
    const n: V3 = [0, 0, 0];
    ring.forEach(([x1, y1, z1], i) => {
      const [x2, y2, z2] = ring[(i + 1) % ring.length];
      n[0] += ((y1 - y2) * (z1 + z2)) / 2;
      n[1] += ((z1 - z2) * (x1 + x2)) / 2;
      n[2] += ((x1 - x2) * (y1 + y2)) / 2;
    });
    n.forEach((value, i) => {
      sum[i] += value;
    });
    size += Math.hypot(...n);
    volume += (ring[0][0] * n[0] + ring[0][1] * n[1] + ring[0][2] * n[2]) / 3;
  }
  return volume > 0 && Math.hypot(...sum) < closes * size;
}

/** So many broken rules are named. */
const mostNamed = 3;

/**
 * Reads a gbXML file by a public XML reader, against the rules of its schema: what must be there, ids, references,
 * words, closed shells.
 * @returns what came back; else which rules the file breaks
 */
export function openGbxml(text: string, model: ReadModel): Result<ReadBack[]> {
  const root = readXml(text);
  if (!root.ok) return root;
  const broken = brokenRules(root.value);
  if (broken.length > 0) return fail(broken.slice(0, mostNamed).join(' '));
  const spaces = [...allNodes(root.value)].filter(({ name }) => name === 'Space');
  return ok([
    { kind: 'zones', model: model.zones.length, file: spaces.length },
    { kind: 'closed rooms', model: model.zones.length, file: spaces.filter(isClosed).length },
  ]);
}
