import type { LeftOutReason } from '../account';
import { Kind } from '../drawing';
import type { EntityBuilder } from './context';
import { arc, circle, ellipse, endless, line, point, spline } from './curves';
import { hatch } from './hatch';
import { dimension, insert, table } from './insert';
import { lightPolyline } from './polylines';
import { face, image, leader, multiLeader, multiLine, solid, trace, viewport, wipeout } from './runs';
import { attribute, attributeDefinition, multilineText, text } from './texts';

/** The builder of each entity kind that stands on its own. */
export const builders = new Map<string, EntityBuilder>([
  ['LINE', line],
  ['POINT', point],
  ['ARC', arc],
  ['CIRCLE', circle],
  ['ELLIPSE', ellipse],
  ['SPLINE', spline],
  ['LWPOLYLINE', lightPolyline],
  ['TEXT', text],
  ['ATTRIB', attribute],
  ['ATTDEF', attributeDefinition],
  ['MTEXT', multilineText],
  ['INSERT', insert],
  ['ACAD_TABLE', table],
  ['DIMENSION', dimension],
  ['ARC_DIMENSION', dimension],
  ['LARGE_RADIAL_DIMENSION', dimension],
  ['HATCH', hatch],
  ['MPOLYGON', hatch],
  ['SOLID', solid],
  ['TRACE', trace],
  ['3DFACE', face],
  ['LEADER', leader],
  ['MULTILEADER', multiLeader],
  ['MLEADER', multiLeader],
  ['MLINE', multiLine],
  ['XLINE', endless(Kind.construction, 1)],
  ['RAY', endless(Kind.ray, 0)],
  ['IMAGE', image],
  ['WIPEOUT', wipeout],
  ['VIEWPORT', viewport],
]);

/** Kinds that cannot be read as lines, and why. Every other unknown kind is `notRead`. */
export const unreadable = new Map<string, LeftOutReason>([
  ['3DSOLID', 'solid'],
  ['BODY', 'solid'],
  ['REGION', 'solid'],
  ['SURFACE', 'solid'],
  ['MESH', 'solid'],
  ['EXTRUDEDSURFACE', 'solid'],
  ['LOFTEDSURFACE', 'solid'],
  ['REVOLVEDSURFACE', 'solid'],
  ['SWEPTSURFACE', 'solid'],
  ['PLANESURFACE', 'solid'],
  ['NURBSURFACE', 'solid'],
  ['ACAD_PROXY_ENTITY', 'proxy'],
  ['ACAD_PROXY_OBJECT', 'proxy'],
  ['PDFUNDERLAY', 'document'],
  ['DWFUNDERLAY', 'document'],
  ['DGNUNDERLAY', 'document'],
  ['OLE2FRAME', 'embedded'],
  ['OLEFRAME', 'embedded'],
  ['SHAPE', 'shape'],
  ['LIGHT', 'noLines'],
  ['SUN', 'noLines'],
  ['CAMERA', 'noLines'],
  ['SECTION', 'noLines'],
]);
