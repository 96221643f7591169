import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import assembler from 'wabt';
import { root } from './system';

const place = (name: string): string => join(root, 'src/core/structure/solve', name);

/** The module that holds the assembled kernel of the solver. */
export async function kernelModule(): Promise<string> {
  const { parseWat } = await assembler();
  const { buffer } = parseWat('panel.wat', readFileSync(place('panel.wat'), 'utf8'), { simd: true }).toBinary({});
  const lines =
    Buffer.from(buffer)
      .toString('base64')
      .match(/.{1,100}/g) ?? [];
  const text = lines.map((line) => `  '${line}'`).join(',\n');
  return `/** panel.wat, assembled by \`./run kernel\`. */\nexport const panelBytes = [\n${text},\n].join('');\n`;
}

/** `./run kernel` */
export async function kernel(): Promise<number> {
  writeFileSync(place('panelBytes.ts'), await kernelModule());
  return 0;
}
