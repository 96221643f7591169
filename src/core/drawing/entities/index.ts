import type { LeftOutReason } from '../account';
import type { EntityBuilder } from './context';
import { arc, circle, line, point } from './curves';
import { insert } from './insert';
import { lightPolyline } from './polylines';
import { attribute, multilineText, text } from './texts';

/** The builder of each entity kind that stands on its own. */
export const builders = new Map<string, EntityBuilder>([
  ['LINE', line], ['POINT', point], ['ARC', arc], ['CIRCLE', circle], ['LWPOLYLINE', lightPolyline],
  ['TEXT', text], ['ATTRIB', attribute], ['MTEXT', multilineText], ['INSERT', insert],
]);

/** Kinds that cannot be read as lines, and why. Every other unknown kind is `notRead`. */
export const unreadable = new Map<string, LeftOutReason>([
  ['3DSOLID', 'solid'], ['BODY', 'solid'], ['REGION', 'solid'], ['SURFACE', 'solid'], ['MESH', 'solid'], ['EXTRUDEDSURFACE', 'solid'],
  ['LOFTEDSURFACE', 'solid'], ['REVOLVEDSURFACE', 'solid'], ['SWEPTSURFACE', 'solid'], ['PLANESURFACE', 'solid'],
  ['ACAD_PROXY_ENTITY', 'proxy'], ['VIEWPORT', 'paper'],
]);
