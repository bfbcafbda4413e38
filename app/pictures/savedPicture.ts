import { inkClass } from './inkRoles';
import { n2 } from './marks';
import type { Layer } from './compose';
import { facesOf, printPicture } from './picturesClient';
import type { Size } from './contract';

/*
 * A picture of the centre as a file of its own: its surfaces drawn anew at the size that is wanted, and
 * over them what the page and the painter lay on it, as it stands on the screen, with the styles
 * written out and the letters' faces taken along.
 */

const svgSpace = 'http://www.w3.org/2000/svg';

/** What of a style can show, and what it is where nothing is said. */
const shapeStyles: readonly (readonly [string, string])[] = [
  ['fill', 'rgb(0, 0, 0)'],
  ['fill-opacity', '1'],
  ['fill-rule', 'nonzero'],
  ['stroke', 'none'],
  ['stroke-width', '1px'],
  ['stroke-opacity', '1'],
  ['stroke-dasharray', 'none'],
  ['stroke-linecap', 'butt'],
  ['stroke-linejoin', 'miter'],
  ['opacity', '1'],
  ['paint-order', 'normal'],
];
const letterStyles: readonly (readonly [string, string])[] = [
  ['font-family', ''],
  ['font-size', ''],
  ['font-weight', '400'],
  ['font-style', 'normal'],
  ['letter-spacing', 'normal'],
  ['text-anchor', 'start'],
  ['dominant-baseline', 'auto'],
];
const shapeAttributes = ['d', 'x', 'y', 'x1', 'y1', 'x2', 'y2', 'cx', 'cy', 'r', 'rx', 'ry', 'width', 'height', 'points', 'transform', 'clip-path', 'viewBox', 'preserveAspectRatio', 'id', 'clipPathUnits']; // prettier-ignore
const groups = ['g', 'svg', 'clipPath', 'defs'];
const shapes = ['path', 'rect', 'circle', 'ellipse', 'line', 'polyline', 'polygon', 'text', 'tspan'];

/** The letters of a file: the faces that they are set in, by their use. */
type Faces = Map<string, Set<string>>;

const nothing = (colour: string) => colour === 'none' || /^rgba\(.*, 0\)$/.test(colour);

/** A copy of an element that needs no style sheet; null for what is not seen. */
function standalone(of: Element, faces: Faces): Element | null {
  const tag = of.tagName;
  if (!groups.includes(tag) && !shapes.includes(tag)) return null;
  const style = getComputedStyle(of);
  const defines = tag === 'clipPath' || of.parentElement?.tagName === 'clipPath';
  if (!defines && (style.display === 'none' || style.visibility === 'hidden' || style.opacity === '0')) return null;
  const copy = document.createElementNS(svgSpace, tag);
  for (const name of shapeAttributes) {
    const value = of.getAttribute(name);
    if (value !== null) copy.setAttribute(name, value);
  }
  if (shapes.includes(tag) && !defines) {
    if (nothing(style.fill) && nothing(style.stroke)) return null;
    for (const [name, usual] of shapeStyles) {
      const value = style.getPropertyValue(name);
      if (value !== usual) copy.setAttribute(name, value);
    }
  } else if (style.opacity !== '1' && !defines) copy.setAttribute('opacity', style.opacity);
  if (tag === 'text' || tag === 'tspan') {
    for (const [name, usual] of letterStyles) {
      const value = style.getPropertyValue(name);
      if (value !== usual) copy.setAttribute(name, value);
    }
    if (style.textDecorationLine.includes('underline')) copy.setAttribute('text-decoration', 'underline');
    const family = style.fontFamily.split(',')[0]!.replace(/["']/g, '').trim();
    const key = `${family}|${style.fontWeight}|${style.fontStyle}`;
    const used = faces.get(key) ?? new Set<string>();
    for (const letter of of.textContent) used.add(letter);
    faces.set(key, used);
  }
  for (const child of of.childNodes) {
    if (child.nodeType === Node.TEXT_NODE && (tag === 'text' || tag === 'tspan')) copy.append(child.textContent ?? '');
    else if (child instanceof Element) {
      const own = standalone(child, faces);
      if (own) copy.append(own);
    }
  }
  return groups.includes(tag) && tag !== 'svg' && !copy.childNodes.length && !defines ? null : copy;
}

/** Painted marks as elements, in the page for as long as their styles are read. */
function setLayer({ marks, x, y, clip, inked }: Layer, id: string, faces: Faces): Element[] {
  const host = document.body.appendChild(document.createElementNS(svgSpace, 'svg'));
  host.setAttribute('class', `overlay ${inked}`);
  for (const [name, value] of [['width', '0'], ['height', '0']] as const) host.setAttribute(name, value); // prettier-ignore
  const group = host.appendChild(document.createElementNS(svgSpace, 'g'));
  group.setAttribute('transform', `translate(${n2(x)} ${n2(y)})`);
  const cut = group.appendChild(document.createElementNS(svgSpace, 'clipPath'));
  cut.id = id;
  const edge = cut.appendChild(document.createElementNS(svgSpace, 'rect'));
  for (const name of ['x', 'y', 'width', 'height'] as const) edge.setAttribute(name, n2(clip[name]));
  const inner = group.appendChild(document.createElementNS(svgSpace, 'g'));
  inner.setAttribute('clip-path', `url(#${id})`);
  for (const mark of marks) {
    const one = inner.appendChild(document.createElementNS(svgSpace, 'd' in mark ? 'path' : 'text'));
    one.setAttribute('class', inkClass(mark.ink));
    const turn = mark.turn ? ` rotate(${n2(mark.turn)})` : '';
    one.setAttribute('transform', `translate(${n2(mark.x ?? 0)} ${n2(mark.y ?? 0)})${turn}`);
    if ('d' in mark) one.setAttribute('d', mark.d);
    else {
      one.textContent = mark.text;
      if (mark.anchor) one.setAttribute('text-anchor', mark.anchor);
    }
  }
  const made = standalone(group, faces);
  host.remove();
  return made ? [made] : [];
}

const inRange = (letters: ReadonlySet<string>, range: string | undefined): boolean =>
  !range ||
  range.split(',').some((part) => {
    const [, from, to] = /U\+([0-9A-F]+)(?:-([0-9A-F]+))?/i.exec(part) ?? [];
    const [low, high] = [Number.parseInt(from ?? '0', 16), Number.parseInt(to ?? from ?? '0', 16)];
    return [...letters].some((letter) => letter.codePointAt(0)! >= low && letter.codePointAt(0)! <= high);
  });

const dataUrl = (blob: Blob): Promise<string> =>
  new Promise((done, failed) => {
    const reader = new FileReader();
    reader.onload = () => done(reader.result as string);
    reader.onerror = () => failed(new Error('A part of the picture could not be read.'));
    reader.readAsDataURL(blob);
  });

/** The faces that letters are set in, as rules of a style sheet that need nothing from elsewhere. */
async function faceRules(faces: Faces): Promise<string> {
  const all = facesOf(document.styleSheets);
  const wanted = [...faces].flatMap(([key, letters]) => {
    const [family, weight, style] = key.split('|');
    return all.filter(
      (one) =>
        one.family === family &&
        one.descriptors.weight === weight &&
        one.descriptors.style === style &&
        inRange(letters, one.descriptors.unicodeRange),
    );
  });
  const rules = wanted.map(async ({ family, source, descriptors }) => {
    const [, url] = /url\("([^"]+)"\)/.exec(source) ?? [];
    if (!url) return '';
    const response = await fetch(url);
    const range = descriptors.unicodeRange ? `unicode-range:${descriptors.unicodeRange};` : '';
    return `@font-face{font-family:"${family}";font-weight:${descriptors.weight};font-style:${descriptors.style};${range}src:url(${await dataUrl(await response.blob())}) format("woff2");}`; // prettier-ignore
  });
  return (await Promise.all(rules)).join('');
}

/** A picture by the name of its pane (`main` is the camera's), where it stands in the centre. */
const overlayOf = (name: string): SVGSVGElement | null =>
  document.querySelector<SVGSVGElement>(`.picture-block[data-picture="${name}"] > svg.overlay`);

/** The pictures that can be saved now, by the names of their panes, with their titles. */
export const savablePictures = (): { name: string; title: string }[] =>
  [...document.querySelectorAll<HTMLElement>('.picture-block')]
    .filter((block) => block.querySelector(':scope > svg.overlay'))
    .map((block) => ({ name: block.dataset.picture!, title: (block.ariaLabel ?? '').replace(/, a (?:picture|snapshot)$/, '') })); // prettier-ignore

interface Sheet extends Size {
  /** The drawing without its surfaces, as a document; `wide` is the width that it says of itself. */
  svg(surfaces: string | null, wide: number): string;
  readonly surfaces: ImageBitmap;
}

async function sheetOf(name: string, pixel: number): Promise<Sheet> {
  const overlay = overlayOf(name);
  if (!overlay) throw new Error('There is no such picture on the screen.');
  const centre = overlay.closest('.centre')!.getBoundingClientRect();
  const own = overlay.getBoundingClientRect();
  const rect = { x: own.x - centre.x, y: own.y - centre.y, width: own.width, height: own.height };
  const { surfaces, layers } = await printPicture(rect, pixel);
  const faces: Faces = new Map();
  const copy = standalone(overlay, faces);
  const painted = layers.flatMap((layer, i) => setLayer(layer, `painted-${i}`, faces));
  const rules = await faceRules(faces);
  const inside = new XMLSerializer();
  const parts = [...(copy?.childNodes ?? []), ...painted].map((one) =>
    inside.serializeToString(one).replaceAll(` xmlns="${svgSpace}"`, ''),
  );
  const { width, height } = rect;
  return {
    ...{ width, height, surfaces },
    svg: (image, wide) =>
      [
        `<svg xmlns="${svgSpace}" width="${n2(wide)}" height="${n2((wide * height) / width)}" viewBox="0 0 ${n2(width)} ${n2(height)}">`,
        rules && `<style>${rules}</style>`,
        image && `<image href="${image}" width="${n2(width)}" height="${n2(height)}"/>`,
        ...parts,
        '</svg>\n',
      ].filter(Boolean).join('\n'), // prettier-ignore
  };
}

async function bytesOf(bitmap: ImageBitmap): Promise<Blob> {
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  canvas.getContext('bitmaprenderer')!.transferFromImageBitmap(bitmap);
  return canvas.convertToBlob({ type: 'image/png' });
}

/**
 * A picture as a drawing of lines and letters over its surfaces, which have `pixel` device pixels to a
 * pixel of the page; it needs nothing from elsewhere.
 */
export async function pictureSvg(name: string, pixel = 2): Promise<{ readonly text: string } & Size> {
  const { svg, surfaces, width, height } = await sheetOf(name, pixel);
  return { text: svg(await dataUrl(await bytesOf(surfaces)), width), width, height };
}

/** A picture in pixels, `wide` of them across: everything in it is drawn for that size. */
export async function picturePng(name: string, wide: number): Promise<{ readonly blob: Blob } & Size> {
  const overlay = overlayOf(name);
  const across = overlay?.getBoundingClientRect().width ?? wide;
  const { svg, surfaces, width, height } = await sheetOf(name, wide / across);
  const high = Math.round((wide * height) / width);
  const canvas = new OffscreenCanvas(wide, high);
  const context = canvas.getContext('2d')!;
  context.drawImage(surfaces, 0, 0, wide, high);
  surfaces.close();
  const url = URL.createObjectURL(new Blob([svg(null, wide)], { type: 'image/svg+xml' }));
  try {
    const image = new Image(wide, high);
    image.src = url;
    await image.decode();
    context.drawImage(image, 0, 0, wide, high);
  } finally {
    URL.revokeObjectURL(url);
  }
  return { blob: await canvas.convertToBlob({ type: 'image/png' }), width: wide, height: high };
}
