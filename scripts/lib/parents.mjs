/** Whether the `npm` that runs this script is still there: when it is killed nobody would stop what was started. */
import { clearInterval, setInterval } from 'node:timers';
import { readFileSync } from 'node:fs';

/** Name and parent of a process (man 5 proc, /proc/PID/stat); null when it is gone. */
function lookAt(pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    const [, name, rest] = /^\d+ \((.*)\) (.*)$/s.exec(stat);
    const fields = rest.split(' ');
    return { name, parent: Number(fields[1]), startedAt: fields[19] };
  } catch {
    return null;
  }
}

/** npm runs a script in a shell, which some shells hand over to the program. */
function npmAbove() {
  if (!process.env.npm_lifecycle_event) return null;
  const parent = lookAt(process.ppid);
  const pid = parent && /^(sh|dash|bash)$/.test(parent.name) ? parent.parent : process.ppid;
  const npm = lookAt(pid);
  return npm && pid > 1 ? { pid, startedAt: npm.startedAt } : null;
}

const LOOK_MS = 500;

/** Calls back once when the npm above has ended. Does nothing where the script was started without npm. */
export function onParentGone(callBack) {
  const npm = npmAbove();
  if (!npm) return;
  const timer = setInterval(() => {
    if (lookAt(npm.pid)?.startedAt === npm.startedAt) return;
    clearInterval(timer);
    callBack();
  }, LOOK_MS);
  timer.unref();
}
