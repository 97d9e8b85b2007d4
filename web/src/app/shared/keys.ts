/** Which key presses are meant for the screen, and not for a control that has the focus. */

const TEXT_INPUTS =
  'input:not([type=range]):not([type=radio]):not([type=checkbox]), textarea, select, [role=combobox], [contenteditable=true]';
/** Keys belong to the text that is typed. */
export function isTyping(event: KeyboardEvent): boolean {
  return event.target instanceof Element && event.target.closest(TEXT_INPUTS) !== null;
}

/** True when a single-key command may act on the event. */
export function isCommandKey(event: KeyboardEvent): boolean {
  if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey) return false;
  const target = event.target instanceof Element ? event.target : null;
  if (isTyping(event) || target?.closest('[role=dialog], [role=menu]')) return false;
  // Enter presses what has the focus; so does Space where the keyboard has brought the focus there.
  if (event.key === 'Enter' && target?.closest('button, a, tr')) return false;
  const isReached = target?.matches(':focus-visible') ?? false;
  if (event.key === ' ' && isReached && target?.closest('button, a, [role=tab], [role=radio]')) return false;
  const isArrow = event.key.startsWith('Arrow') || event.key === 'Home' || event.key === 'End';
  if (isArrow && target?.closest('[role=menu], [role=menuitem], [role=dialog], [role=listbox]')) return false;
  // A slider that was moved by the mouse keeps the focus; the arrows are the screen's again.
  if (isArrow && isReached && target?.closest('input[type=range], [role=slider], [role=radiogroup]'))
    return false;
  return true;
}
