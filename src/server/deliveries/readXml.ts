import { SaxesParser } from 'saxes';
import { fail, ok, type Result } from '@/core/result';

/** An element of an XML file as it was read. */
export interface XmlNode {
  name: string;
  attributes: Record<string, string>;
  children: XmlNode[];
  text: string;
}

/** The root of an XML file, by a public reader; else what is wrong with it. */
export function readXml(text: string): Result<XmlNode> {
  const top: XmlNode = { name: '', attributes: {}, children: [], text: '' };
  const open: XmlNode[] = [top];
  const parser = new SaxesParser();
  let problem: string | null = null;
  parser.on('error', (error) => {
    problem ??= error.message;
  });
  parser.on('opentag', ({ name, attributes }) => {
    const node: XmlNode = { name, attributes, children: [], text: '' };
    open[open.length - 1].children.push(node);
    open.push(node);
  });
  parser.on('text', (part) => {
    open[open.length - 1].text += part;
  });
  parser.on('closetag', () => open.pop());
  parser.write(text).close();
  if (problem !== null) return fail(`it is no XML file: ${String(problem)}.`);
  return ok(top.children[0]);
}

/** An element and everything within it. */
export function* allNodes(node: XmlNode): Generator<XmlNode> {
  yield node;
  for (const child of node.children) yield* allNodes(child);
}
