/**
 * Goes on where whoever read this process's output has gone: a write that finds nobody would be told on the same
 * output, again and again, and the process would do nothing else.
 */
export function outliveReaders(): void {
  for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined);
}
