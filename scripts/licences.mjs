/** Writes docs/third-party-licences.md from what is installed: name, version, licence. */
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './lib/folders.mjs';

const lock = JSON.parse(readFileSync(join(ROOT, 'package-lock.json'), 'utf8'));
const rows = Object.entries(lock.packages)
  .filter(([path, p]) => path.startsWith('node_modules/') && !p.link && !p.dev && existsSync(join(ROOT, path)))
  .map(([path, p]) => {
    const own = JSON.parse(readFileSync(join(ROOT, path, 'package.json'), 'utf8'));
    const licence =
      typeof own.license === 'string'
        ? own.license
        : (own.license?.type ?? own.licenses?.map((l) => l.type).join(' or ') ?? 'see its LICENSE file');
    const file = readdirSync(join(ROOT, path)).find((n) => /^licen[cs]e/i.test(n));
    return `| ${path.split('node_modules/').at(-1)} | ${p.version} | ${licence.replaceAll('|', '/')} | ${file ?? ''} |`;
  });

writeFileSync(
  join(ROOT, 'docs/third-party-licences.md'),
  `# Third-party licences

Made by \`npm run licences\` from the packages that Pandecta runs with. Each package carries the full text of its licence.
citeproc is offered under CPAL 1.0 or AGPL 3; Pandecta takes it under AGPL 3. The CSL styles and locales come from
Debian's packages citation-style-language-styles and -locales (CC BY-SA 3.0) and are read from where those put them;
poppler's programs (GPL 2 or 3) are run as programs of their own. The fonts are under the SIL Open Font License 1.1.

| package | version | licence | file |
| --- | --- | --- | --- |
${[...new Set(rows)].sort().join('\n')}
`,
);
