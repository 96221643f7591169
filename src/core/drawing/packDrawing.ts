import type { Drawing } from './drawing';
import { pack, unpack } from './pack';
import { squeeze, squeezeRising, unsqueeze, unsqueezeRising } from './squeeze';

const plainColumns = ['kind', 'flags', 'layer', 'style', 'handle', 'stringBytes'] as const;

/**
 * Raised when what is packed, or how it is read from a file, changes: derived columns made before are then made again.
 */
export const readerVersion = 3;

type Meta = Omit<Drawing, (typeof plainColumns)[number] | 'at' | 'numbers' | 'stringAt'>;
type Packed = Pick<Drawing, (typeof plainColumns)[number]> & {
  numberTags: Uint8Array;
  numberBody: Uint8Array;
  rowSizes: Uint8Array;
  stringSizes: Uint8Array;
};

/** A drawing as bytes. */
export function packDrawing(drawing: Drawing): Uint8Array {
  const { header, layers, styles, lineTypes, planes, blocks, model, at, numbers, stringAt } = drawing;
  const { tags, body } = squeeze(numbers);
  const meta: Meta & { strings: number } = {
    header,
    layers,
    styles,
    lineTypes,
    planes,
    blocks,
    model,
    strings: stringAt.length,
  };
  return pack(meta, {
    ...Object.fromEntries(plainColumns.map((name) => [name, drawing[name]])),
    numberTags: tags,
    numberBody: body,
    rowSizes: squeezeRising(at),
    stringSizes: squeezeRising(stringAt),
  });
}

/** A drawing from its bytes. */
export function unpackDrawing(bytes: Uint8Array): Drawing {
  const { meta, columns } = unpack(bytes);
  const { strings, ...rest } = meta as Meta & { strings: number };
  const { numberTags, numberBody, rowSizes, stringSizes, ...plain } = columns as unknown as Packed;
  const at = unsqueezeRising(rowSizes, plain.kind.length + 1);
  return {
    ...rest,
    ...plain,
    at,
    numbers: unsqueeze({ tags: numberTags, body: numberBody }, at[at.length - 1]),
    stringAt: unsqueezeRising(stringSizes, strings),
  };
}
