/** The sixty-four signs of a compressed identifier, in the order of ISO 16739-1, IfcGloballyUniqueId. */
const signs = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz_$';

/** 128 bits as twenty-two signs: two bits first, then six each. */
function compressed(value: bigint): string {
  let text = '';
  for (let i = 0; i < 22; i += 1) text = signs[Number((value >> BigInt(6 * i)) & 63n)] + text;
  return text;
}

/** FNV-1a of 128 bits (Fowler, Noll and Vo): the same for the same text, whatever machine. */
const [basis, prime, mask] = [0x6c62272e07bb014262b821756295c58dn, 0x1000000000000000000013bn, (1n << 128n) - 1n];

function hashed(text: string): bigint {
  let hash = basis;
  for (let i = 0; i < text.length; i += 1) {
    const unit = text.charCodeAt(i);
    for (const byte of [unit & 255, unit >> 8]) hash = ((hash ^ BigInt(byte)) * prime) & mask;
  }
  return hash;
}

const uuid = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** The identifier of a thing in the file: a UUID compressed, of anything else its hash. The same at every export. */
export const globalId = (id: string): string =>
  compressed(uuid.test(id) ? BigInt(`0x${id.replace(/-/g, '')}`) : hashed(id));
