import { globalId } from './globalId';

const signs = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz_$';

/** The same by whole numbers of any length: the hash as its authors give it, and digits of base 64. */
function byLongNumbers(id: string): string {
  let value = 0x6c62272e07bb014262b821756295c58dn;
  for (let i = 0; i < id.length; i += 1)
    for (const byte of [id.charCodeAt(i) & 255, id.charCodeAt(i) >> 8])
      value = ((value ^ BigInt(byte)) * 0x1000000000000000000013bn) & ((1n << 128n) - 1n);
  return inDigits(value);
}
const inDigits = (value: bigint): string =>
  Array.from({ length: 22 }, (_, i) => signs[Number((value >> BigInt(6 * (21 - i))) & 63n)]).join('');

test.each(['', 'a', 'wall 1@level', '\u6771\u4eac \ud83c\udfd7', 'x'.repeat(1000), 'storey/9b1c'])(
  'the hash of "%s" is that of long numbers',
  (text) => expect(globalId(text)).toBe(byLongNumbers(text)),
);

test('a hundred random texts and identifiers agree', () => {
  let seed = 7;
  const next = (): number => (seed = (seed * 48271) % 2147483647);
  for (let i = 0; i < 100; i += 1) {
    const text = Array.from({ length: next() % 60 }, () => String.fromCharCode(next() % 65536)).join('');
    expect(globalId(text)).toBe(byLongNumbers(text));
    const hex = Array.from({ length: 32 }, () => (next() % 16).toString(16)).join('');
    const id = hex.replace(/^(.{8})(.{4})(.{4})(.{4})/, '$1-$2-$3-$4-');
    expect(globalId(id)).toBe(inDigits(BigInt(`0x${hex}`)));
  }
});
