/** Group codes whose values are real numbers and want a decimal point. */
const real = (code: number) => code >= 10 && code <= 59;

/** A group: its code, and its value on the line after it. */
export function put(out: string[], code: number, value: string | number): void {
  out.push(String(code).padStart(3), typeof value === 'number' && real(code) ? decimal(value) : String(value));
}

/** A number without loss and without an exponent where readers might stumble over one. */
function decimal(value: number): string {
  const text = String(value + 0);
  if (text.includes('e')) return value.toFixed(16).replace(/0+$/, '0');
  return text.includes('.') ? text : `${text}.0`;
}

/** A text as a file of ASCII has it, on one line. */
export const escaped = (text: string) =>
  text
    .replace(/[\r\n]+/g, ' ')
    .replace(/[^\x20-\x7e]/g, (c) => `\\U+${c.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}`);
