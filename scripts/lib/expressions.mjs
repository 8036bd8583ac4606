/** The expressions of the code that sees text from outside, and how long each may take, as recheck (npm) finds it. */
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './folders.mjs';

const FOLDERS = ['packages/core/src', 'packages/contract/src', 'packages/debian/src', 'apps/server/src'];

/**
 * Each once, as it stands between its slashes, with where it stands first.
 * @returns {Promise<{ source: string, flags: string, at: string }[]>}
 */
export async function everyExpression() {
  const { default: ts } = await import('typescript');
  const all = new Map();
  for (const folder of FOLDERS)
    for (const name of readdirSync(join(ROOT, folder), { recursive: true }).sort()) {
      if (!/\.ts$/.test(name) || /\.test\.ts$|(?:^|\/)testing\//.test(name)) continue;
      const path = join(folder, name);
      const file = ts.createSourceFile(path, readFileSync(join(ROOT, path), 'utf8'), ts.ScriptTarget.Latest, true);
      const visit = (node) => {
        if (ts.isRegularExpressionLiteral(node) && !all.has(node.text)) {
          const end = node.text.lastIndexOf('/');
          all.set(node.text, {
            source: node.text.slice(1, end),
            flags: node.text.slice(end + 1),
            at: `${path}:${file.getLineAndCharacterOfPosition(node.getStart()).line + 1}`,
          });
        }
        ts.forEachChild(node, visit);
      };
      visit(file);
    }
  return [...all.values()];
}

/** @returns {Promise<{ growth: string, text?: Pump } | undefined>} undefined where it takes time that grows with the text */
export async function growthOf({ source, flags }) {
  const { check } = await import('recheck');
  // Classes of the newer sort are not known to it; where none is used they mean the same.
  const found = await check(
    source,
    flags.replace(/[dv]/g, (f) => (f === 'v' ? 'u' : '')),
    { timeout: 40_000 },
  );
  if (found.status === 'safe') return undefined;
  if (found.status === 'unknown') return { growth: `not known: ${found.error.kind}` };
  const { pumps, suffix } = found.attack;
  return { growth: found.complexity.summary, text: { pumps: pumps.map((p) => [p.prefix, p.pump]), suffix } };
}

/** As it stands in the code. */
export const written = ({ source, flags }) => `/${source}/${flags}`;

/** By what one is written down that takes time that grows with its text. */
export const hashOf = (expression) => createHash('sha256').update(written(expression)).digest('base64url').slice(0, 12);

/** The text that takes it longest, of so many characters. */
export function textOf({ pumps, suffix }, length) {
  const each = Math.floor(length / pumps.length);
  return pumps.map(([prefix, pump]) => prefix + pump.repeat(Math.ceil(each / pump.length))).join('') + suffix;
}
