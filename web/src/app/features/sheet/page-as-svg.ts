/** A page as it is drawn, as one SVG with its text as text; `dom-to-svg` reads what the browser has laid out. */

/** `page` at its own size, whatever the size that it is shown at. */
export async function pageAsSvg(page: HTMLElement): Promise<string> {
  const { elementToSVG } = await import('dom-to-svg');
  const { style, ownerDocument } = page;
  const copy = page.cloneNode(true) as HTMLElement;
  copy.style.setProperty('--scale', '1');
  copy.style.boxShadow = 'none';
  const stage = ownerDocument.createElement('div');
  stage.setAttribute('aria-hidden', 'true');
  stage.style.cssText = `position: fixed; left: 0; top: 0; width: ${style.width}; height: ${style.height}; opacity: 0; pointer-events: none`;
  stage.append(copy);
  // Where the styles of the page reach it.
  page.parentElement?.append(stage);
  try {
    const svg = elementToSVG(copy);
    return new XMLSerializer().serializeToString(svg);
  } finally {
    stage.remove();
  }
}
