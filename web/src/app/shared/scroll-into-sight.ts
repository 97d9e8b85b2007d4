/** Rows of a list brought into sight, without moving anything around the list. */

/** True when a row of a list is whole in sight. */
export function isInSight(list: HTMLElement, { offsetTop, offsetHeight }: HTMLElement): boolean {
  return offsetTop >= list.scrollTop && offsetTop + offsetHeight <= list.scrollTop + list.clientHeight;
}

/** Scrolls a list as little as shows a row whole. The list must be what its rows are placed in (`position: relative`). */
export function scrollIntoSight(list: HTMLElement, row: HTMLElement): void {
  const { offsetTop, offsetHeight } = row;
  if (offsetTop < list.scrollTop) list.scrollTop = offsetTop;
  else if (offsetTop + offsetHeight > list.scrollTop + list.clientHeight)
    list.scrollTop = offsetTop + offsetHeight - list.clientHeight;
}
