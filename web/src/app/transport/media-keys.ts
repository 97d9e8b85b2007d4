/** Play, stop and the jump keys of keyboards and headsets (W3C Media Session). */
export interface MediaKeyActions {
  readonly toggle: () => void;
  readonly toStart: () => void;
  readonly slow: () => void;
}

/** Answers how to let go of the keys. */
export function takeMediaKeys({ toggle, toStart, slow }: MediaKeyActions): () => void {
  const session = navigator.mediaSession as MediaSession | undefined;
  if (!session) return () => undefined;
  const actions: [MediaSessionAction, () => void][] = [
    ['play', toggle],
    ['pause', toggle],
    ['stop', toggle],
    ['previoustrack', toStart],
    ['nexttrack', slow],
  ];
  for (const [action, handler] of actions) session.setActionHandler(action, handler);
  return () => {
    for (const [action] of actions) session.setActionHandler(action, null);
  };
}
