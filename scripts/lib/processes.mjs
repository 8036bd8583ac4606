/** Child processes: run to the end, or start and stop. */
import { spawn } from 'node:child_process';

/** Runs a program to its end. Resolves with its exit code and what it printed; shows it when `show` is set. */
export function run(program, args, { show = false, ...options } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(program, args, { stdio: show ? 'inherit' : ['ignore', 'pipe', 'pipe'], ...options });
    let out = '';
    child.stdout?.on('data', (d) => (out += d));
    child.stderr?.on('data', (d) => (out += d));
    child.on('error', reject);
    child.on('close', (code, signal) => resolve({ code: signal ? 1 : code, out }));
  });
}

/** Starts a Node program that says 'ready' to its parent, with more words or none; `ready` resolves to what it said. */
export function startNode(script, env, { inherit = true } = {}) {
  // A session of its own: Ctrl+C in the terminal reaches only this script, which stops the rest in order.
  const child = spawn(process.execPath, [script], {
    env: { ...process.env, ...env },
    stdio: ['ignore', inherit ? 'inherit' : 'ignore', inherit ? 'inherit' : 'ignore', 'ipc'],
    detached: true,
  });
  const ended = new Promise((resolve) => child.on('exit', (code) => resolve(code ?? 1)));
  const ready = new Promise((resolve, reject) => {
    child.on('message', (m) => /^ready/.test(m) && resolve(m));
    void ended.then((code) => reject(new Error(`${script} ended with ${code} before it was ready.`)));
  });
  return {
    child,
    ready,
    ended,
    async stop() {
      if (child.exitCode !== null) return;
      child.kill('SIGTERM');
      const timer = setTimeout(() => child.kill('SIGKILL'), 8000);
      await ended;
      clearTimeout(timer);
    },
  };
}
