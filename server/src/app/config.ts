/** Settings from the environment, checked once at start. */
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import * as z from 'zod';

const environmentSchema = z.object({
  WN_DATABASE_URL: z.url({ protocol: /^postgres(ql)?$/ }),
  WN_PORT: z.coerce.number().int().min(0).max(65535).default(4310),
  WN_DATA_DIR: z.string().min(1).default(join(tmpdir(), 'wild-needle')),
  WN_LOG_LEVEL: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('warn'),
  /** Analyses at the same time in this process. */
  WN_JOBS: z.coerce.number().int().min(0).max(8).default(1),
  /** '1' answers other users of this computer too. */
  WN_OTHER_USERS: z.enum(['0', '1']).default('0'),
  /** Set by sudo: who has become root. */
  SUDO_UID: z.coerce.number().int().optional(),
});

export interface Config {
  readonly databaseUrl: string;
  readonly port: number;
  /** Where files are kept while they are read; emptied at start. */
  readonly spoolDir: string;
  /** Where a separation network is put by `npm run get:instruments`. */
  readonly networkDir: string;
  readonly logLevel: string;
  readonly jobs: number;
  /** Users that are answered beside the one who runs this; 'all' for everybody on this computer. */
  readonly otherUsers: readonly number[] | 'all';
}

/** Throws an Error with one sentence per wrong setting. */
export function readConfig(environment: NodeJS.ProcessEnv): Config {
  const given = Object.fromEntries(Object.entries(environment).filter(([, value]) => value !== ''));
  const parsed = environmentSchema.safeParse(given);
  if (!parsed.success) {
    throw new Error(parsed.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`).join('; '));
  }
  const { WN_DATABASE_URL, WN_PORT, WN_DATA_DIR, WN_LOG_LEVEL, WN_JOBS, WN_OTHER_USERS, SUDO_UID } =
    parsed.data;
  return {
    databaseUrl: WN_DATABASE_URL,
    port: WN_PORT,
    spoolDir: join(WN_DATA_DIR, `spool-${WN_PORT}`),
    networkDir: join(WN_DATA_DIR, 'instruments'),
    logLevel: WN_LOG_LEVEL,
    jobs: WN_JOBS,
    otherUsers: WN_OTHER_USERS === '1' ? 'all' : SUDO_UID === undefined ? [] : [SUDO_UID],
  };
}
