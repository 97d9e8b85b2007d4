/**
 * Only the user who runs Wild Needle is answered, although every user of a computer may connect to its loopback. Linux knows
 * whose a connection is: the tables /proc/net/tcp and tcp6 (man 5 proc) name the owner of each end. This costs the user no
 * password and no step; `docs/decisions/0008-trust.md` says what was weighed.
 */
import { readFile } from 'node:fs/promises';
import { connect, createServer, type AddressInfo, type Socket } from 'node:net';
import type { RequestHandler } from 'express';
import { ForbiddenError } from './errors';

/** One end of a connection. */
export interface End {
  readonly port: number;
  readonly peerPort: number;
}

const TABLES = ['/proc/net/tcp', '/proc/net/tcp6'];
/** 127.0.0.1 as the tables write it, and mapped into IPv6. */
const LOOPBACK = ['0100007F', '0000000000000000FFFF00000100007F'];

const hex = (port: number): string => port.toString(16).toUpperCase().padStart(4, '0');

/**
 * Owner of the end in the text of a table, null when it is not there. An end that its program has closed counts as not
 * there: the table gives it to root, and its owner is not known any more.
 */
export function findOwner(table: string, { port, peerPort }: End): number | null {
  for (const line of table.split('\n').slice(1)) {
    const [, local, remote, , , , , uid, , inode] = line.trim().split(/\s+/);
    if (!local?.endsWith(`:${hex(port)}`) || !remote?.endsWith(`:${hex(peerPort)}`)) continue;
    const isLoopback = [local, remote].every((address) => LOOPBACK.includes(address.split(':')[0]));
    if (isLoopback && inode !== '0') return Number(uid);
  }
  return null;
}

async function ownerOf(end: End): Promise<number | null> {
  for (const path of TABLES) {
    const owner = findOwner(await readFile(path, 'latin1').catch(() => ''), end);
    if (owner !== null) return owner;
  }
  return null;
}

/** Whose the other end of an accepted connection is. */
function ownerOfPeer(socket: Socket): Promise<number | null> {
  return ownerOf({ port: socket.remotePort ?? 0, peerPort: socket.localPort ?? 0 });
}

/** Whether this system tells owners apart: asked about a connection to itself. */
async function canTell(): Promise<boolean> {
  const server = createServer();
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const client = connect((server.address() as AddressInfo).port, '127.0.0.1');
  const accepted = await new Promise<Socket>((resolve) => server.once('connection', resolve));
  try {
    return (await ownerOfPeer(accepted)) === process.getuid?.();
  } finally {
    client.destroy();
    accepted.destroy();
    server.close();
  }
}

/** Root may read everything anyway. */
const ROOT = 0;

/**
 * A guard that answers who runs this process, root, and `others`. It lets everybody in where they are 'all', or the system can't
 * tell users apart; `isSure` says which.
 */
export async function createOwnUserGuard(
  others: readonly number[] | 'all',
): Promise<{ guard: RequestHandler; isSure: boolean }> {
  const isSure = others !== 'all' && (await canTell());
  const users = new Set([ROOT, process.getuid?.() ?? ROOT, ...(others === 'all' ? [] : others)]);
  const known = new WeakMap<Socket, Promise<boolean>>();
  const isOwn = async (socket: Socket): Promise<boolean> => {
    const owner = await ownerOfPeer(socket);
    return owner !== null && users.has(owner);
  };
  const guard: RequestHandler = async (request, _response, next) => {
    if (isSure) {
      const answer = known.get(request.socket) ?? isOwn(request.socket);
      known.set(request.socket, answer);
      if (!(await answer)) {
        throw new ForbiddenError('This Wild Needle belongs to another user of this computer.');
      }
    }
    next();
  };
  return { guard, isSure };
}
