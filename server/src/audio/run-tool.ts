/**
 * ffmpeg and ffprobe as strangers in the house: they read files that come from anywhere. Each runs with limits set by
 * `prlimit` of util-linux (memory, processor time, no file written but one that was asked for), at a lower priority, and is ended when it says
 * nothing for too long or more than it may.
 */
import { spawn } from 'node:child_process';
import { AudioProblem } from './audio-problem';

/** Address space, bytes: ten times what half an hour of stereo needs. */
const MEMORY_BYTES = 1_500_000_000;
/** Half an hour of sound takes some ten seconds. */
const CPU_S = 300;
/** Errors are read from their first lines. */
const MAX_STDERR = 10_000;
/** Requests and analyses come first. */
const NICENESS = '10';
/** Exit code of `nice` for a program that is not there (POSIX.1-2017, nice, EXIT STATUS). */
const NOT_FOUND = 127;

export interface ToolLimits {
  /** Longest silence, ms. */
  readonly stallMs?: number;
  /** Most bytes of output; the tool is ended there, which is no error. */
  readonly maxBytes?: number;
  /** Longest file that it may write; none by default. */
  readonly fileBytes?: number;
}

export interface ToolResult {
  readonly code: number | null;
  /** What ended it from outside, if anything did. */
  readonly signal: NodeJS.Signals | null;
  readonly stderr: string;
}

const STALL_MS = 30_000;

/** The tool is missing or was ended by somebody else: nothing is wrong with the file. */
export class ToolFailure extends Error {}

/**
 * Runs a tool and hands over its output. Rejects with an {@link AudioProblem} when it hangs, with a {@link ToolFailure}
 * when it can't be started or was killed.
 */
export function runTool(
  tool: string,
  args: readonly string[],
  onData: (chunk: Buffer) => void,
  { stallMs = STALL_MS, maxBytes = Infinity, fileBytes = 0 }: ToolLimits = {},
): Promise<ToolResult> {
  return new Promise((resolve, reject) => {
    const limits = [`--as=${MEMORY_BYTES}`, `--cpu=${CPU_S}`, `--fsize=${fileBytes}`, '--core=0'];
    const child = spawn('prlimit', [...limits, 'nice', '-n', NICENESS, tool, ...args], {
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let stderr = '';
    let bytes = 0;
    let ended: 'stalled' | 'full' | null = null;
    const end = (why: 'stalled' | 'full'): void => {
      ended = why;
      child.kill('SIGKILL');
    };
    const stalled = setTimeout(() => end('stalled'), stallMs);
    child.stdout.on('data', (chunk: Buffer) => {
      stalled.refresh();
      if (ended) return;
      bytes += chunk.length;
      onData(chunk);
      if (bytes >= maxBytes) end('full');
    });
    child.stderr.on('data', (chunk: Buffer) => {
      if (stderr.length < MAX_STDERR) stderr += chunk.toString();
    });
    child.on('error', (error) => {
      clearTimeout(stalled);
      reject(new ToolFailure(`prlimit could not be started (${error.message})`));
    });
    child.on('close', (code, signal) => {
      clearTimeout(stalled);
      if (ended === 'stalled') reject(hangs());
      else if (ended === 'full') resolve({ code: 0, signal: null, stderr });
      else if (signal === 'SIGXCPU') reject(hangs());
      else if (signal) reject(new ToolFailure(`${tool} was ended by ${signal}`));
      else if (code === NOT_FOUND) reject(new ToolFailure(`${tool} is missing; npm start installs it`));
      else resolve({ code, signal, stderr });
    });
  });
}

function hangs(): AudioProblem {
  return new AudioProblem(
    'too-slow',
    'Reading this file took too long and was stopped; it may be damaged. Export it again, as WAV or FLAC.',
  );
}
