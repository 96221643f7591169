import { fail, ok, type Result } from '@/core/result';

const starts = (bytes: Uint8Array, ...magic: number[]) => magic.every((b, i) => bytes[i] === b);
const ask = 'Ask for, or save, the drawing as a DXF.';

/**
 * Judges by its first bytes whether a file can be a DXF, and of which kind.
 * @param head the first bytes of the file, at least 64 of them where it has as many
 */
export function recognise(head: Uint8Array): Result<'ascii' | 'binary'> {
  if (head.length === 0)
    return fail('The file is empty: 0 bytes. Export the drawing again and check that the copy finished.');
  if (starts(head, 0x41, 0x43, 0x31, 0x30))
    return fail(
      `This is a binary drawing in a closed format (it begins with ${String.fromCharCode(...head.subarray(0, 6))}), not a DXF. ${ask}`,
    );
  // "... Binary DXF", CR, LF, SUB, NUL: the sentinel of a binary DXF.
  if (head.length >= 22 && head[18] === 13 && head[19] === 10 && head[20] === 26 && head[21] === 0) return ok('binary');
  if (starts(head, 0x89, 0x50, 0x4e, 0x47)) return fail(`This is a PNG picture that was named .dxf. ${ask}`);
  if (starts(head, 0xff, 0xd8, 0xff)) return fail(`This is a JPEG picture that was named .dxf. ${ask}`);
  if (starts(head, 0x47, 0x49, 0x46, 0x38)) return fail(`This is a GIF picture that was named .dxf. ${ask}`);
  if (starts(head, 0x49, 0x49, 0x2a, 0) || starts(head, 0x4d, 0x4d, 0, 0x2a))
    return fail(`This is a TIFF picture that was named .dxf. ${ask}`);
  if (starts(head, 0x25, 0x50, 0x44, 0x46)) return fail(`This is a PDF document, not a drawing with lines. ${ask}`);
  if (starts(head, 0x50, 0x4b, 3, 4))
    return fail('This is a zip archive. Unpack it and bring in the DXF files that it holds.');
  if ((head[0] === 0xff && head[1] === 0xfe) || (head[0] === 0xfe && head[1] === 0xff))
    return fail('This text is written in UTF-16; a DXF is ASCII or UTF-8. Save it again in one of these.');
  const from = starts(head, 0xef, 0xbb, 0xbf) ? 3 : 0;
  // The first group of a DXF is 0 SECTION, or a comment under 999.
  const text = String.fromCharCode(...head.subarray(from, 64));
  if (/^\s*(0|999)\s*[\r\n]/.test(text)) return ok('ascii');
  const shown = text
    .replace(/[^\x20-\x7e]+/g, ' ')
    .trim()
    .slice(0, 24);
  return fail(`This is not a DXF: it should begin with the group "0 SECTION" but begins with "${shown}". ${ask}`);
}
