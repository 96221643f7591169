import { encodingOf, StringDecoder } from './codePage';
import { stringOf } from './drawing';
import { Interner } from './interner';
import { pack, unpack } from './pack';
import { recognise } from './recognise';
import { plainMultilineText, plainText } from './strings';
import { dxf, groups, line, readText } from './testing/dxf';

test.each([
  ['45%%d', '45\u00b0'],
  ['%%p0.00', '\u00b10.00'],
  ['%%C200', '\u2300200'],
  ['%%uRoom%%u', 'Room'],
  ['100%%%', '100%'],
  ['%%065BC', 'ABC'],
  ['%%q', '%%q'],
  ['\\U+2205 12', '\u2205 12'],
  ['plain', 'plain'],
  ['50%', '50%'],
])('the text %s reads %s', (raw, words) => {
  expect(plainText(raw)).toBe(words);
});

test.each([
  ['Wet\\PLab', 'Wet\nLab'],
  ['{\\fSans|b1|i0;Mess}', 'Mess'],
  ['\\A1;\\H0.7x;Plant', 'Plant'],
  ['\\C1;Red \\L under\\l line', 'Red  under line'],
  ['1\\S3/4;', '13/4'],
  ['\\S+0.1^-0.2;', '+0.1/-0.2'],
  ['a\\~b', 'a\u00a0b'],
  ['\\{kept\\}', '{kept}'],
  ['back\\\\slash', 'back\\slash'],
  ['tab^Iend', 'tab\tend'],
  ['caret^ end', 'caret^end'],
  ['cut short \\', 'cut short '],
  ['\\Hno end', ''],
  ['%%c40', '\u230040'],
  ['\\U+00e4', '\u00e4'],
])('the multi-line text %s reads %s', (raw, words) => {
  expect(plainMultilineText(raw)).toBe(words);
});

test.each([
  ['AC1032', 'ANSI_1252', 'utf-8'],
  ['AC1021', 'ANSI_932', 'utf-8'],
  ['AC1018', 'ANSI_1251', 'windows-1251'],
  ['AC1015', 'ansi_936', 'gbk'],
  ['AC1009', '', 'windows-1252'],
  ['AC1015', 'ANSI_949', 'euc-kr'],
  ['AC1015', 'MACINTOSH', 'windows-1252'],
])('a file of version %s with code page "%s" is written in %s', (version, codePage, encoding) => {
  expect(encodingOf(version, codePage)).toBe(encoding);
});

test('a decoder keeps nothing from one string to the next', () => {
  const decoder = new StringDecoder('shift_jis');
  // A lead byte without its second byte, then plain letters.
  expect(decoder.decode(Uint8Array.of(0x41, 0x83))).toBe('A\ufffd');
  expect(decoder.decode(Uint8Array.of(0x42))).toBe('B');
});

test('names are one name whatever their case, and keep the first spelling', () => {
  const names = new Interner();
  const decoder = new StringDecoder('utf-8');
  const intern = (text: string) => {
    const bytes = new TextEncoder().encode(`..${text}..`);
    return names.intern(bytes, 2, bytes.length - 2, decoder);
  };
  expect([intern('A-Wall'), intern('A-COLS'), intern('a-wall'), intern('A-Wall'), names.named('A-WALL')]).toEqual([
    0, 1, 0, 0, 0,
  ]);
  expect(names.names).toEqual(['A-Wall', 'A-COLS']);
});

test('packed columns come back with their types, from any offset in a larger buffer', () => {
  const bytes = pack(
    { a: [1, 'x'] },
    { one: Float64Array.of(1.5, -2), two: Uint8Array.of(1, 2, 3), three: Uint16Array.of(), four: Int32Array.of(-7) },
  );
  const shifted = new Uint8Array(bytes.length + 3);
  shifted.set(bytes, 3);
  for (const run of [bytes, shifted.subarray(3)]) {
    const { meta, columns } = unpack(run);
    expect(meta).toEqual({ a: [1, 'x'] });
    expect(columns).toEqual({
      one: Float64Array.of(1.5, -2),
      two: Uint8Array.of(1, 2, 3),
      three: Uint16Array.of(),
      four: Int32Array.of(-7),
    });
  }
  expect(() => unpack(Uint8Array.of(1, 2, 3))).toThrow('Expected packed columns');
});

const head = (text: string) => new TextEncoder().encode(text.padEnd(80, ' '));

test.each([
  ['  0\r\nSECTION', true, ''],
  ['0\nSECTION', true, ''],
  ['999\nmade by hand\n0\nSECTION', true, ''],
  ['\ufeff  0\nSECTION', true, ''],
  ['%PDF-1.7', false, 'PDF document'],
  ['GIF89a', false, 'GIF picture'],
  ['PK\u0003\u0004', false, 'zip archive'],
  ['<svg xmlns=', false, 'begins with "<svg xmlns="'],
  ['ISO-10303-21;', false, 'begins with "ISO-10303-21;"'],
])('a file that begins with %p is a DXF: %p', (text, isDxf, words) => {
  const verdict = recognise(head(text));
  expect(verdict.ok).toBe(isDxf);
  if (!verdict.ok) expect(verdict.message).toContain(words);
});

test.each([
  [[0xff, 0xd8, 0xff], 'JPEG picture'],
  [[0x49, 0x49, 0x2a, 0], 'TIFF picture'],
  [[0xff, 0xfe, 0x30, 0], 'UTF-16'],
])('bytes %p are told as what they are', (bytes, words) => {
  const verdict = recognise(Uint8Array.from([...bytes, ...new Array(70).fill(1)]));
  expect(verdict.ok ? '' : verdict.message).toContain(words);
});

test('a binary DXF is told from its sentinel', () => {
  const verdict = recognise(
    Uint8Array.from([...head('eighteen letters..').subarray(0, 18), 13, 10, 26, 0, ...new Array(60).fill(0)]),
  );
  expect(verdict).toEqual({ ok: true, value: 'binary' });
});

test('characters that are none are marked and told, and long names stay apart', () => {
  const long = 'L'.repeat(3000);
  const { drawing, account } = readText(
    dxf({
      entities:
        line(0, 0, 1, 0, `${long}A`) +
        line(0, 0, 1, 0, `${long}B`) +
        groups([0, 'TEXT'], [8, 'NUL\0LAYER'], [10, 0], [20, 0], [40, 1], [1, 'x\\U+0000y\\U+D83Dz']),
    }),
  );
  const names = drawing.layers.map(({ name }) => name).slice(1);
  expect(names[2]).toBe('NUL\ufffdLAYER');
  expect(names[0].length).toBeLessThan(600);
  expect(names[0]).not.toBe(names[1]);
  const texts = drawing.stringAt.subarray(0, -1);
  expect(Array.from(texts, (_, i) => stringOf(drawing, i))).toContain('x\ufffdy\ufffdz');
  expect(account.warnings.find(({ code }) => code === 'characters')?.message).toMatch(/^4 texts or names/);
});
