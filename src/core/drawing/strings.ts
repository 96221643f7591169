const special: Record<string, string> = { d: '\u00b0', p: '\u00b1', c: '\u2300' };

/** What stands after a caret for a character that is none. */
const controls: Record<string, string> = { J: '\n', I: '\t', ' ': '^' };

/**
 * Resolves the escapes of single-line texts: `%%d`, `%%p`, `%%c`, `%%nnn`, and `\U+XXXX`. Underline and overline
 * switches are dropped.
 */
export function plainText(raw: string): string {
  let text = raw;
  if (text.includes('%%')) {
    text = text.replace(/%%(\d{3}|.)/g, (whole, code: string) => {
      if (/^\d{3}$/.test(code)) return String.fromCharCode(Number(code));
      if (code === '%') return '%';
      if (/[uok]/i.test(code)) return '';
      return special[code.toLowerCase()] ?? whole;
    });
  }
  return unescapeUnicode(text);
}

const unescapeUnicode = (text: string) => {
  const unicode = text.includes('\\U+')
    ? text.replace(/\\U\+([0-9A-Fa-f]{4})/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)))
    : text;
  return unicode.includes('\\M+')
    ? unicode.replace(/\\M\+([1-5])([0-9A-Fa-f]{4})/g, (_, page: string, hex: string) =>
        doubleByte(Number(page), parseInt(hex, 16)),
      )
    : unicode;
};

/** Encodings of the escapes \M+1 to \M+5. */
const doubleByteEncodings = ['shift_jis', 'big5', 'euc-kr', 'euc-kr', 'gbk'];

const doubleByte = (page: number, code: number): string =>
  new TextDecoder(doubleByteEncodings[page - 1]).decode(Uint8Array.of(code >> 8, code & 255));

/**
 * The words of a multi-line text without its formatting: braces, font, height and colour switches go,
 * `\P` becomes a line break, `\S` stacks become "a/b".
 */
export function plainMultilineText(raw: string): string {
  const text = unescapeUnicode(raw);
  if (!/[\\{}%^]/.test(text)) return text;
  let out = '';
  for (let i = 0; i < text.length; i += 1) {
    const c = text[i];
    if (c === '{' || c === '}') continue;
    if (c === '^' && i + 1 < text.length) {
      const next = text[i + 1];
      out += controls[next] ?? '';
      i += 1;
      continue;
    }
    if (c !== '\\') {
      out += c;
      continue;
    }
    const code = text[i + 1];
    i += 1;
    if (code === undefined) break;
    if (code === 'P' || code === 'N' || code === 'X') out += '\n';
    else if (code === '~') out += '\u00a0';
    else if (code === '\\' || code === '{' || code === '}') out += code;
    else if ('LlOoKk'.includes(code)) continue;
    else if ('ACcFfHhQTtWwpS'.includes(code)) {
      const end = text.indexOf(';', i);
      const stop = end < 0 ? text.length : end;
      if (code === 'S') out += text.slice(i + 1, stop).replace(/\s*[#^]\s*/, '/');
      i = stop;
    } else out += code;
  }
  return plainText(out);
}
