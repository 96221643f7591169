/** The sixty-four signs of a compressed identifier, in the order of ISO 16739-1, IfcGloballyUniqueId. */
const signs = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz_$';

/** 128 bits, sixteen of them a number, the lowest first: far quicker than whole numbers of any length. */
type Bits = [number, number, number, number, number, number, number, number];

/** 128 bits as twenty-two signs: two bits first, then six each. */
function compressed(bits: Readonly<Bits>): string {
  let text = '';
  for (let at = 0; at < 128; at += 6) {
    const [k, off] = [at >> 4, at & 15];
    const next = off > 10 && k < 7 ? bits[k + 1] << (16 - off) : 0;
    text = signs[((bits[k] >> off) | next) & 63] + text;
  }
  return text;
}

/** FNV-1a of 128 bits (Fowler, Noll and Vo) begins with this. */
const basis: Readonly<Bits> = [0xc58d, 0x6295, 0x2175, 0x62b8, 0x0142, 0x07bb, 0x272e, 0x6c62];
/** Its prime is 2 to the power of 88, and this. */
const small = 0x13b;

/** FNV-1a of 128 bits: the same for the same text, whatever machine. */
function hashed(text: string): Bits {
  const hash: Bits = [...basis];
  for (let i = 0; i < text.length; i += 1) {
    const unit = text.charCodeAt(i);
    take(hash, unit & 255);
    take(hash, unit >> 8);
  }
  return hash;
}

/** One byte: what is there, times the prime. */
function take(hash: Bits, byte: number): void {
  hash[0] ^= byte;
  const [a, b, c] = hash;
  // Moved up by 88 bits only the lowest three are left.
  const moved = [0, 0, 0, 0, 0, (a << 8) & 0xffff, ((b << 8) & 0xffff) | (a >> 8), ((c << 8) & 0xffff) | (b >> 8)];
  let carry = 0;
  for (let k = 0; k < 8; k += 1) {
    const value = hash[k] * small + moved[k] + carry;
    hash[k] = value & 0xffff;
    carry = value >>> 16;
  }
}

const uuid = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

function bitsOf(id: string): Bits {
  const digits = id.replace(/-/g, '');
  const at = (k: number): number => Number.parseInt(digits.slice(28 - 4 * k, 32 - 4 * k), 16);
  return [at(0), at(1), at(2), at(3), at(4), at(5), at(6), at(7)];
}

/** The identifier of a thing in the file: a UUID compressed, of anything else its hash. The same at every export. */
export const globalId = (id: string): string => compressed(uuid.test(id) ? bitsOf(id) : hashed(id));
