import { saveFile } from './save-file.ts';

const PAINT = ['fill', 'stroke'] as const;
const SVG = 'http://www.w3.org/2000/svg';

/** A drawing as a picture of its own: colours of the theme written out, its background filled in. */
export function pictureOf(svg: SVGSVGElement): string {
  const copy = painted(svg);
  const { width, height } = svg.getBoundingClientRect();
  copy.setAttribute('xmlns', SVG);
  copy.setAttribute('viewBox', `0 0 ${width} ${height}`);
  copy.setAttribute('font-family', 'IBM Plex Sans, sans-serif');
  copy.removeAttribute('class');
  const ground = document.createElementNS(SVG, 'rect');
  ground.setAttribute('width', '100%');
  ground.setAttribute('height', '100%');
  ground.setAttribute('fill', getComputedStyle(document.body).backgroundColor);
  copy.prepend(ground);
  for (const defs of document.querySelectorAll<SVGElement>('svg defs')) copy.prepend(painted(defs));
  return new XMLSerializer().serializeToString(copy);
}

/** A copy with the colours that its elements have at present. */
function painted<T extends SVGElement>(original: T): T {
  const copy = original.cloneNode(true) as T;
  const copies = copy.querySelectorAll<SVGElement>('*');
  original.querySelectorAll<SVGElement>('*').forEach((element, i) => {
    const style = getComputedStyle(element);
    for (const name of PAINT) {
      const value = element.getAttribute(name);
      if (value !== null && !value.startsWith('url')) copies[i].setAttribute(name, style[name]);
    }
  });
  return copy;
}

/** Drawn at twice its size, so that it stays sharp. */
const SHARP = 2;

/** Saves a drawing as PNG. */
export async function saveAsPng(name: string, svg: SVGSVGElement): Promise<void> {
  const { width, height } = svg.getBoundingClientRect();
  const image = new Image(width * SHARP, height * SHARP);
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(pictureOf(svg))}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = width * SHARP;
  canvas.height = height * SHARP;
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
  const blob = await new Promise<Blob | null>((take) => canvas.toBlob(take, 'image/png'));
  if (!blob) throw new Error('no picture');
  saveFile(name, 'image/png', blob);
}
