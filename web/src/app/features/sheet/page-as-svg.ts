/** A page as it is drawn, as one SVG with its text as text; `dom-to-svg` reads what the browser has laid out. */

const FONT_URL = /url\("([^"]+\.woff2?)"\)/g;

/** The fonts inside, so that the file stands for itself; the package would leave their addresses. */
async function withFonts(css: string): Promise<string> {
  const urls = [...new Set([...css.matchAll(FONT_URL)].map(([, url]) => url))];
  const fonts = new Map(
    await Promise.all(
      urls.map(async (url) => [url, await dataUrl(await (await fetch(url)).blob())] as const),
    ),
  );
  return css.replace(FONT_URL, (_, url: string) => `url("${fonts.get(url) ?? url}")`);
}

function dataUrl(blob: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as string);
    reader.onerror = () => reject(reader.error ?? new Error('the font could not be read'));
    reader.readAsDataURL(blob);
  });
}

/** `page` at its own size, whatever the size that it is shown at; `hasFonts`: inside, for a file that stands for itself. */
export async function pageAsSvg(page: HTMLElement, hasFonts: boolean): Promise<string> {
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
    // Colours that come from style sheets are lost on text that is drawn already.
    for (const text of copy.querySelectorAll('text')) {
      const { fill } = getComputedStyle(text);
      text.setAttribute('fill', fill);
      text.style.color = fill;
    }
    const svg = elementToSVG(copy);
    for (const style of svg.querySelectorAll('style')) {
      if (hasFonts) style.textContent = await withFonts(style.textContent);
      else style.remove();
    }
    return new XMLSerializer().serializeToString(svg);
  } finally {
    stage.remove();
  }
}
