/** What of a shape's look is not in its own attributes: written into the copy, so that it looks the same anywhere. */
const LOOKS = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linejoin',
  'stroke-linecap',
  'paint-order',
  'font-family',
  'font-size',
  'font-weight',
  'text-decoration'
] as const;

/** A drawing on the page as an SVG file that stands by itself: looks as computed, paper behind, nothing to click. */
export function drawingAsSvg(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const [from, to] = [svg, copy].map((root) => [root, ...root.querySelectorAll('*')]) as [
    Element[],
    Element[]
  ];
  from.forEach((shape, i) => {
    const looks = getComputedStyle(shape);
    const twin = to[i];
    if (!twin) return;
    for (const look of LOOKS) {
      const value = looks.getPropertyValue(look);
      if (value) twin.setAttribute(look, value);
    }
    for (const name of ['class', 'tabindex', 'role', 'aria-pressed']) twin.removeAttribute(name);
  });
  const paper = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
  for (const [name, value] of Object.entries({ width: '100%', height: '100%' }))
    paper.setAttribute(name, value);
  paper.setAttribute('fill', getComputedStyle(document.documentElement).backgroundColor);
  copy.insertBefore(paper, copy.querySelector('defs')?.nextSibling ?? copy.firstChild);
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  return `<?xml version="1.0" encoding="UTF-8"?>\n${new XMLSerializer().serializeToString(copy)}\n`;
}

const SCALE = 2;

/** The same as a PNG of twice the size, for mails and documents. Rejects where the browser cannot draw it. */
export async function drawingAsPng(svg: SVGSVGElement): Promise<Blob> {
  const { width, height } = svg.getBoundingClientRect();
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(drawingAsSvg(svg))}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [width * SCALE, height * SCALE];
  const context = canvas.getContext('2d');
  if (!context) throw new Error('no-canvas');
  context.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('no-picture'))), 'image/png')
  );
}
