import { escaped } from '../../../formats/escaped';
import type { Ink } from '../compose/inks';
import { n2, type Mark } from '../compose/marks';
import type { Sink } from './sink';

/** Text in use, by the font that it is set in. */
export interface UsedFont {
  readonly family: string;
  readonly weight: number;
  readonly style: 'normal' | 'italic';
  readonly letters: ReadonlySet<string>;
}

export interface SvgSink extends Sink {
  /** Returns the elements drawn so far. */
  markup(): string;
  /** Returns the fonts of the text drawn so far. */
  fonts(): readonly UsedFont[];
}

const attributes = (values: Readonly<Record<string, string | number | false | null | undefined>>): string =>
  Object.entries(values)
    .flatMap(([name, value]) =>
      value === false || value === null || value === undefined ? [] : [` ${name}="${escaped(String(value))}"`],
    )
    .join('');

const paint = (ink: Ink): string =>
  attributes({
    fill: ink.fill ?? 'none',
    stroke: ink.stroke,
    'stroke-width': ink.stroke && n2(ink.width),
    'stroke-dasharray': ink.dash.length > 0 && ink.dash.join(' '),
    'stroke-linejoin': ink.join !== 'miter' && ink.join,
    opacity: ink.opacity !== 1 && ink.opacity,
    'paint-order': ink.isStrokeBelow && ink.stroke ? 'stroke' : false,
  });

const transformOf = ({ x = 0, y = 0, turn }: Mark): string =>
  x || y || turn ? attributes({ transform: `translate(${n2(x)} ${n2(y)})${turn ? ` rotate(${n2(turn)})` : ''}` }) : '';

/** Writes marks as elements of SVG, with every style as an attribute. */
export function svgSink(): SvgSink {
  const parts: string[] = [];
  const fonts = new Map<string, { family: string; weight: number; style: 'normal' | 'italic'; letters: Set<string> }>();
  let layers = 0;
  return {
    begin: ({ clip: { x, y, width, height }, x: left, y: top }) => {
      const id = `clip-${layers++}`;
      const rect = attributes({ x: n2(x), y: n2(y), width: n2(width), height: n2(height) });
      parts.push(
        `<g transform="translate(${n2(left)} ${n2(top)})"><clipPath id="${id}"><rect${rect}/></clipPath><g clip-path="url(#${id})">`,
      );
    },
    shape: (mark, ink) => parts.push(`<path d="${mark.d}"${transformOf(mark)}${paint(ink)}/>`),
    text: (mark, ink) => {
      const { family, size, weight, style } = ink.font!;
      const first = family.split(',')[0]!.replaceAll("'", '');
      const key = `${first} ${weight} ${style}`;
      const used = fonts.get(key) ?? { family: first, weight, style, letters: new Set<string>() };
      for (const letter of mark.text) used.letters.add(letter);
      fonts.set(key, used);
      const font = attributes({
        'font-family': family.replaceAll("'", ''),
        'font-size': `${size}px`,
        'font-weight': weight !== 400 && weight,
        'font-style': style !== 'normal' && style,
        'text-anchor': mark.anchor !== 'start' && mark.anchor,
      });
      const { underline } = ink;
      const line =
        underline &&
        attributes({
          style: `text-decoration:underline ${underline.width}px ${underline.colour};text-underline-offset:${underline.below}px`,
        });
      parts.push(`<text${transformOf(mark)}${font}${paint(ink)}${line ?? ''}>${escaped(mark.text)}</text>`);
    },
    end: () => parts.push('</g></g>'),
    markup: () => parts.join('\n'),
    fonts: () => [...fonts.values()],
  };
}
