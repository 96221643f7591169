/** Runs once when the server starts: newest schema, and background work inside this process. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { outliveReaders } = await import('@/server/log');
  const { refuseOddMethods } = await import('@/server/oddMethods');
  const { startServer } = await import('@/server/start');
  outliveReaders();
  refuseOddMethods();
  await startServer();
}
