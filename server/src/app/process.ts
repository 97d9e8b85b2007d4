/** What main and worker share with the process that started them. */

export function tellParent(message: { ready: true; port: number } | { problem: string }): void {
  if (process.send) process.send(message);
  else process.stderr.write(`${JSON.stringify(message)}\n`);
}

/** Longest time for closing in order before the process ends anyway. */
const SHUTDOWN_MS = 5000;

/** Runs `close` once, on a signal or when the starting process is gone. */
export function onShutdown(close: () => Promise<void>): void {
  let closing = false;
  const end = (): void => {
    if (closing) return;
    closing = true;
    setTimeout(() => process.exit(1), SHUTDOWN_MS).unref();
    void close().then(
      () => process.exit(0),
      () => process.exit(1),
    );
  };
  process.on('SIGTERM', end);
  process.on('SIGINT', end);
  process.on('disconnect', end);
}
