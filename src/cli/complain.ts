/** Says on stderr what is wrong. @returns the exit code it ends with */
export function complain(code: number, message: string): number {
  console.error(message);
  return code;
}
