import { describe, expect, it } from 'vitest';
import { findOwner } from './own-user';

/** As Linux writes it (man 5 proc): a server of root at port 4310, two connections to it, one end closed. */
const TABLE = `  sl  local_address rem_address   st tx_queue rx_queue tr tm->when retrnsmt   uid  timeout inode
   0: 0100007F:10D6 00000000:0000 0A 00000000:00000000 00:00000000 00000000     0        0 1083 1 0000 100 0 0 10 0
   1: 0100007F:DE8E 0100007F:10D6 01 00000000:00000000 00:00000000 00000000  1000        0 294080 2 0000 20 0 0 10 -1
   2: 0100007F:10D6 0100007F:DE8E 01 00000000:00000000 00:00000000 00000000     0        0 293139 1 0000 20 0 0 10 -1
   3: 0100007F:BEEF 0100007F:10D6 05 00000000:00000000 00:00000000 00000000     0        0 0 2 0000 20 0 0 10 -1
   4: 0200A8C0:DE8F 0100007F:10D6 01 00000000:00000000 00:00000000 00000000  1000        0 294081 2 0000 20 0 0 10 -1
`;
const TABLE_6 = `  sl  local_address remote_address st tx_queue rx_queue tr tm->when retrnsmt uid timeout inode
   0: 0000000000000000FFFF00000100007F:DE90 0000000000000000FFFF00000100007F:10D6 01 0:0 00:0 0 1001 0 99 1 0 20
`;

describe('the owner of the other end', () => {
  const owner = (port: number, table = TABLE): number | null => findOwner(table, { port, peerPort: 4310 });

  it('is found by both ports', () => {
    expect(owner(0xde8e)).toBe(1000);
    expect(findOwner(TABLE, { port: 4310, peerPort: 0xde8e })).toBe(0);
    expect(owner(0xde90, TABLE_6)).toBe(1001);
  });

  it('is nobody where the end is closed already, is none of loopback, or is not there', () => {
    expect(owner(0xbeef)).toBeNull();
    expect(owner(0xde8f)).toBeNull();
    expect(owner(1)).toBeNull();
    expect(owner(1, '')).toBeNull();
  });
});
