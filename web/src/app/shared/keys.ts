/** Which key presses are meant for the screen, and not for a control that has the focus. */

const TEXT_INPUTS =
  'input:not([type=range]):not([type=radio]):not([type=checkbox]), textarea, [contenteditable=true]';
/** Arrows and Space mean something of their own in these. */
const OWN_KEYS = 'input[type=range], [role=menu], [role=menuitem], [role=dialog], [role=listbox]';

/** True when a single-key command may act on the event. */
export function isCommandKey(event: KeyboardEvent): boolean {
  if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey) return false;
  const target = event.target instanceof Element ? event.target : null;
  if (target?.closest(TEXT_INPUTS) || target?.closest('[role=dialog], [role=menu]')) return false;
  const isArrow = event.key.startsWith('Arrow') || event.key === 'Home' || event.key === 'End';
  if (isArrow && target?.closest(`${OWN_KEYS}, [role=slider], [role=radiogroup]`)) return false;
  return true;
}
