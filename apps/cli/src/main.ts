/** The command line: core over files and pipes, without a server. */
import { parseArgs } from 'node:util';
import { COMMANDS } from './commands.ts';
import { Usage, type Io } from './io.ts';

const HELP = `pandecta: references and documents, from the command line

  convert [FILE|-] --to csl-json|ris|bibtex|biblatex [--messages text|json]
      Reads RIS, BibTeX, BibLaTeX or CSL-JSON, whichever it is, and writes the format named.
  bibliography [FILE|-] --style ID [--format text|html] [--locale LANG] [--messages text|json]
      A formatted bibliography in one of the styles installed, in the language it is made for unless one is named.
  cite [FILE|-] --style ID [--key KEY] [--locator 12 --label page] [--before WORDS] [--after WORDS]
      [--author 'as usual'|suppressed|'in the text'] [--format text|html] [--locale LANG]
      One citation as it stands in the text: of the record with that citation key, or of all there are. What a locator
      is of is named as in CSL 1.0.2: page, paragraph, section, folio, timestamp and so on.
  match [FILE...|-] [--out FILE]
      Which records are of one work: record (its number, from 1), cluster, probability, reasons; parted by tabs.
  proof [FILE|-] --style ID [--messages json]
      What is wrong with the records as the style prints them: a line of JSON for each finding.
  proof [FILE|-] --style ID --mend [--to FORMAT]
      All records in their order, with the mends made that are sure.
  text FILE.pdf
      The text of a PDF, pages separated by form feeds.
  identify FILE.pdf
      What was recognised of the work, as CSL-JSON.
  styles [WORDS]
      The styles that are installed: name, manner, title.

Messages go to standard error. Ends with 0 if anything was read, 1 if nothing could be, 2 for wrong usage.
`;

const io: Io = {
  out: (text) => void process.stdout.write(text),
  err: (text) => void process.stderr.write(text),
};

async function run(args: string[]): Promise<number> {
  const [name, ...rest] = args;
  if (!name || name === 'help' || name === '--help' || name === '-h') {
    io.out(HELP);
    return name ? 0 : 2;
  }
  const command = COMMANDS[name];
  if (!command) throw new Usage(`“${name}” is not a command`);
  let parsed;
  try {
    parsed = parseArgs({ args: rest, options: command.options, allowPositionals: true, strict: true });
  } catch (error) {
    throw new Usage((error as Error).message);
  }
  return command.run(parsed.positionals, parsed.values as Record<string, string | undefined>, io);
}

process.stdout.on('error', (e: NodeJS.ErrnoException) => process.exit(e.code === 'EPIPE' ? 0 : 1));
try {
  process.exitCode = await run(process.argv.slice(2));
} catch (error) {
  io.err(`${error instanceof Error ? error.message : String(error)}\n`);
  if (error instanceof Usage) io.err('`npm run -s pandecta -- help` lists the commands.\n');
  process.exitCode = error instanceof Usage ? 2 : 1;
}
