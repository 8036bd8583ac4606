/** npm packages: installed as the lock file says whenever it changed. */
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { run } from './processes.mjs';
import { ROOT } from './folders.mjs';
import { say, Stop } from './say.mjs';

const MARK = join(ROOT, 'node_modules', '.pandecta-installed');

export async function ensureNpm() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    throw new Stop(
      `Pandecta needs Node 20.19 or newer; this is ${process.versions.node}. Install a newer Node and start again.`,
    );
  const wanted = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .update(process.version)
    .digest('hex');
  if (existsSync(MARK) && readFileSync(MARK, 'utf8') === wanted) return;
  say('Installing npm packages');
  const done = await run('npm', ['ci', '--no-fund', '--no-audit', '--loglevel=error'], { cwd: ROOT });
  if (done.code !== 0) {
    const why = done.out.trim().split('\n').slice(-3).join(' ');
    const advice = /ENOSPC/.test(done.out)
      ? 'The disk is full: free some space'
      : /ENOTEMPTY|EBUSY/.test(done.out)
        ? 'Another installation seems to work in this folder: wait until it has ended'
        : 'Check the network';
    throw new Stop(`The npm packages could not be installed: ${why}. ${advice} and start again.`);
  }
  writeFileSync(MARK, wanted);
}
