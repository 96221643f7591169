import { panelBytes } from './panelBytes';

/** The loops of panel.wat: places, strides and counts in bytes, `size` and `width` in rows and columns. */
interface PanelKernel {
  column: (at: number, from: number, stride: number, size: number, row: number, count: number) => void;
  behind: (f: number, stride: number, size: number, plain: number, scaled: number, width: number) => void;
}

let assembled: WebAssembly.Module | null = null;

/** The kernel of panel.wat on a memory. */
export function panelKernel(memory: WebAssembly.Memory): PanelKernel {
  assembled ??= new WebAssembly.Module(Uint8Array.from(atob(panelBytes), (letter) => letter.charCodeAt(0)));
  const { column, behind } = new WebAssembly.Instance(assembled, { front: { memory } }).exports;
  if (typeof column !== 'function' || typeof behind !== 'function')
    throw new Error('The kernel of panel.wat lacks a function.');
  return {
    column: (...places) => {
      column(...places);
    },
    behind: (...places) => {
      behind(...places);
    },
  };
}
