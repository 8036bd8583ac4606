/** An end with one sentence that says what to do: printed without a stack. */
export class Stop extends Error {}

export const say = (text) => process.stdout.write(`${text}\n`);

/** Runs the main function of a script; a Stop ends it with its sentence. */
export async function main(work) {
  try {
    await work();
  } catch (error) {
    process.stderr.write(error instanceof Stop ? `${error.message}\n` : `${error.stack ?? error}\n`);
    process.exitCode = 1;
  }
}
