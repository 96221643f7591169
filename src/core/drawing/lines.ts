import { parseIntBytes } from './numerals';

/** Takes the groups of a file one by one. The bytes are only valid during the call. */
export interface GroupSink {
  group(code: number, bytes: Uint8Array, start: number, end: number): void;
  /** The pairing of codes and values was lost at this line; what was being read is not to be trusted. */
  lost(line: number, found: string): void;
}

/**
 * Cuts an ASCII DXF, given in chunks, into groups: a line with a code, a line with a value.
 *
 * A lost or doubled line puts every following pair out of step. That shows as a code line that is no
 * integer between -5 and 1071, or a group 0 whose value is not a keyword; the scanner then skips line by
 * line to the next "0" followed by a keyword, and goes on there.
 */
export class GroupScanner {
  line = 0;
  private rest: Uint8Array = new Uint8Array(0);
  private seeking = false;
  private tooLong = false;

  constructor(private sink: GroupSink, private maxLine: number) {}

  /**
   * Takes the next bytes.
   * @param last whether these are the last; a line without its end is then taken as it stands
   * @returns false where a line is longer than allowed
   */
  push(chunk: Uint8Array, last: boolean): boolean {
    let bytes = chunk;
    if (this.rest.length > 0) {
      bytes = new Uint8Array(this.rest.length + chunk.length);
      bytes.set(this.rest);
      bytes.set(chunk, this.rest.length);
    }
    const used = this.scan(bytes, last);
    this.rest = bytes.slice(used);
    return !this.tooLong && this.rest.length <= this.maxLine + 64;
  }

  private scan(bytes: Uint8Array, last: boolean): number {
    const end = bytes.length;
    let at = 0;
    while (at < end) {
      let codeEnd = at;
      while (codeEnd < end && bytes[codeEnd] !== 10) codeEnd += 1;
      if (codeEnd === end) return last ? end : at;
      const start = codeEnd + 1;
      let valueEnd = start;
      while (valueEnd < end && bytes[valueEnd] !== 10) valueEnd += 1;
      if (valueEnd === end && !last) return at;
      const code = parseIntBytes(bytes, at, codeEnd);
      if (valueEnd - at > this.maxLine + 64) { this.tooLong = true; return at; }
      let stop = valueEnd;
      if (stop > start && bytes[stop - 1] === 13) stop -= 1;
      const believable = code >= -5 && code <= 1071 && (code !== 0 || isKeyword(bytes, start, stop));
      if (this.seeking ? code === 0 && believable : believable) {
        this.seeking = false;
        this.line += 2;
        this.sink.group(code, bytes, start, stop);
        at = valueEnd + 1;
      } else {
        if (!this.seeking) {
          // Blank lines after the last group are no damage.
          if (last && isBlank(bytes, at, end)) return end;
          this.sink.lost(this.line + 1, shown(bytes, at, codeEnd));
          this.seeking = true;
        }
        this.line += 1;
        at = codeEnd + 1;
      }
    }
    return Math.min(at, end);
  }
}

/** Whether the bytes are a section, table or entity name: letters, digits, _ . : and -, a letter or underscore among the first two. */
function isKeyword(bytes: Uint8Array, start: number, end: number): boolean {
  let i = start;
  while (i < end && bytes[i] === 32) i += 1;
  let stop = end;
  while (stop > i && bytes[stop - 1] <= 32) stop -= 1;
  if (stop === i || stop - i > 255) return false;
  for (let k = i; k < stop; k += 1) {
    const c = bytes[k];
    if (isLetter(c)) continue;
    // "3DFACE" begins with a digit; a number does not go on with a letter.
    const mark = (c >= 48 && c <= 58) || c === 45 || c === 46;
    if (!mark || (k === i && !isLetter(bytes[i + 1])) || (k === i && stop - i === 1)) return false;
  }
  return true;
}

const isLetter = (c: number) => (c >= 65 && c <= 90) || (c >= 97 && c <= 122) || c === 95;

function isBlank(bytes: Uint8Array, start: number, end: number): boolean {
  for (let i = start; i < end; i += 1) if (bytes[i] > 32) return false;
  return true;
}

const shown = (bytes: Uint8Array, start: number, end: number) =>
  String.fromCharCode(...bytes.subarray(start, Math.min(end, start + 40))).replace(/[^\x20-\x7e]/g, '?').trim();
