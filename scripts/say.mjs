/** Something that stops a script, told in one sentence instead of a stack. */
export class Stop extends Error {}

/** Runs a script's main function; a Stop ends it with its sentence and code 1. */
export async function runScript(main) {
  try {
    await main();
  } catch (error) {
    if (!(error instanceof Stop)) throw error;
    console.error(`\n${error.message}\n`);
    process.exit(1);
  }
}
