/** What an element holds: others, or a text or a number. */
type Content = string | number | readonly (XmlElement | null)[];

/** An element of an XML file with its attributes. */
export interface XmlElement {
  name: string;
  attributes: Readonly<Record<string, string | number | undefined>>;
  content: Content;
}

export const element = (
  name: string,
  attributes: XmlElement['attributes'] = {},
  content: Content = [],
): XmlElement => ({ name, attributes, content });

/** Signs that no XML file of version 1.0 may hold. */
const forbidden =
  /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;
const escapes: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&apos;' };

const escaped = (text: string): string => text.replace(forbidden, ' ').replace(/[&<>"']/g, (sign) => escapes[sign]);

/** Numbers to a micrometre; what is none has no place in a file. */
function numberText(value: number): string {
  if (!Number.isFinite(value)) throw new Error(`${value} is no number that an XML file can hold.`);
  return String(Number(value.toFixed(6)) + 0);
}

const textOf = (value: string | number): string => (typeof value === 'number' ? numberText(value) : escaped(value));

function lines({ name, attributes, content }: XmlElement, depth: number): string {
  const indent = ' '.repeat(depth);
  const given = Object.entries(attributes)
    .flatMap(([key, value]) => (value === undefined ? [] : [` ${key}="${textOf(value)}"`]))
    .join('');
  if (typeof content === 'string' || typeof content === 'number')
    return `${indent}<${name}${given}>${textOf(content)}</${name}>\n`;
  const inside = content.filter((one) => one !== null);
  if (inside.length === 0) return `${indent}<${name}${given}/>\n`;
  return `${indent}<${name}${given}>\n${inside.map((one) => lines(one, depth + 1)).join('')}${indent}</${name}>\n`;
}

/** A whole XML file of version 1.0 in UTF-8. */
export const xmlFile = (root: XmlElement): string => `<?xml version="1.0" encoding="UTF-8"?>\n${lines(root, 0)}`;

/** An identifier as XML asks for it: a letter first, and no signs but these. */
export const xmlId = (kind: string, id: string): string => `${kind}-${id.replace(/[^A-Za-z0-9_.-]/g, '_')}`;
