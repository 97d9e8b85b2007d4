/** Starts the server as a child process and waits until it listens. */
import { spawn } from 'node:child_process';
import { ROOT } from './packages.mjs';
import { Stop } from './say.mjs';

/**
 * Answers the port, the process and a promise of its end. The server ends by itself when this process dies,
 * since the channel between them closes.
 */
export function startServer({ entry = 'server/src/app/main.ts', env }) {
  const child = spawn(process.execPath, ['--import', 'tsx', entry], {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    env: { ...process.env, ...env },
    // Ctrl-C reaches the whole group; the server is told to stop over the channel instead, in order.
    detached: true,
  });
  const ended = new Promise((resolve) => child.on('exit', (code, signal) => resolve(code ?? signal)));
  const ready = new Promise((resolve, reject) => {
    child.on('message', (message) => {
      if (message.ready) resolve(message.port);
      if (message.problem) reject(new Stop(message.problem));
    });
    void ended.then((code) =>
      reject(new Stop(`The server ended before it was ready (${code}); its log is above.`)),
    );
  });
  return {
    child,
    ready,
    ended,
    stop: async () => {
      if (child.exitCode === null && child.signalCode === null) child.kill('SIGTERM');
      await ended;
    },
  };
}
