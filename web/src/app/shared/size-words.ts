/** 14_200_000 → '14 MB' */
export function megabytes(bytes: number): string {
  const mb = bytes / 1_000_000;
  return `${mb < 10 ? Math.round(10 * mb) / 10 : Math.round(mb)} MB`;
}
