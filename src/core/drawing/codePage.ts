/** Code page names of `$DWGCODEPAGE` to encodings of the WHATWG Encoding Standard. */
const encodings: Record<string, string> = {
  ANSI_874: 'windows-874',
  ANSI_932: 'shift_jis',
  ANSI_936: 'gbk',
  ANSI_949: 'euc-kr',
  ANSI_950: 'big5',
  DOS850: 'windows-1252',
  DOS437: 'windows-1252',
};

/**
 * The encoding of a file's strings: UTF-8 from R2007 (AC1021) on, else by its code page.
 * @returns a name for `TextDecoder`; windows-1252 where the file says nothing that is known
 */
export function encodingOf(version: string, codePage: string): string {
  if (version >= 'AC1021') return 'utf-8';
  const name = codePage.toUpperCase();
  const windows = /^ANSI_(125\d)$/.exec(name);
  return encodings[name] ?? (windows ? `windows-${windows[1]}` : 'windows-1252');
}

/** Decodes the bytes of one string. */
export class StringDecoder {
  private decoder: TextDecoder;
  constructor(readonly encoding: string) {
    this.decoder = new TextDecoder(encoding);
  }

  decode(bytes: Uint8Array): string {
    if (bytes.length < 40) {
      let text = '';
      let i = 0;
      for (; i < bytes.length && bytes[i] < 0x80; i += 1) text += String.fromCharCode(bytes[i]);
      if (i === bytes.length) return text;
    }
    // The streaming form: the plain one maps 0x80 to 0x9F of windows-1252 to control characters in some runtimes.
    return this.decoder.decode(bytes, { stream: true }) + this.decoder.decode();
  }
}
