import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { kernelModule } from './kernel';
import { root } from './system';

test("the solver's kernel that ships is what its source says", async () => {
  expect(readFileSync(join(root, 'src/core/structure/solve/panelBytes.ts'), 'utf8')).toBe(await kernelModule());
});
