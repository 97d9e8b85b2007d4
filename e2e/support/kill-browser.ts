/** Ends a browser as the end of the computer would: every process at once, without a word. */
import { readdirSync, readFileSync } from 'node:fs';

/** `profile` is the folder that the browser was started with. */
export function killBrowser(profile: string): void {
  for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name))) {
    try {
      if (readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(`--user-data-dir=${profile}`)) {
        process.kill(Number(pid), 'SIGKILL');
      }
    } catch {
      // It has ended meanwhile.
    }
  }
}
