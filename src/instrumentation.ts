/** Runs once before the server answers anything. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { demandKey } = await import('./server/listening.ts');
  const { endOnSignals } = await import('./server/ending.ts');
  const { makeAddressesReadable } = await import('./server/readable-address.ts');
  makeAddressesReadable();
  endOnSignals();
  try {
    const said = demandKey(process.argv, process.env);
    if (said !== null) console.log(said);
  } catch (error) {
    console.error((error as Error).message);
    process.exit(1);
  }
}
