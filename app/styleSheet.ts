import { inkClass } from './pictures/compose/marks';
import { inkRoles, inkStyles } from './pictures/compose/inks';
import { themes, typefaces } from './ui/themes';

/*
 * The style sheet that follows from the tables of colours and inks. `vite.config.ts` puts it into the build.
 */

const block = (selector: string, lines: readonly (string | false)[]): string =>
  `${selector} {\n${lines.flatMap((one) => (one ? [`  ${one};\n`] : [])).join('')}}\n`;
const variables = (values: Readonly<Record<string, string>>): string[] =>
  Object.entries(values).map(([name, value]) => `--${name}: ${value}`);

const ink = (role: (typeof inkRoles)[number]): string => {
  const { fill, stroke, width, dash, join, opacity, isStrokeBelow, font, underline } = inkStyles[role];
  const colour = (name: string) => (name === 'ground' ? 'var(--halo, var(--plate))' : `var(--${name})`);
  return block(`.${inkClass(role)}`, [
    `fill: ${fill ? colour(fill) : 'none'}`,
    !!stroke && `stroke: ${colour(stroke)}`,
    !!stroke && `stroke-width: ${width ?? 1}px`,
    !!join && `stroke-linejoin: ${join}`,
    !!dash && `stroke-dasharray: ${dash.join(' ')}`,
    opacity !== undefined && `opacity: ${opacity}`,
    !!isStrokeBelow && 'paint-order: stroke',
    !!font && `font: ${font.italic ? 'italic ' : ''}${font.weight ?? 400} ${font.size}px var(--${font.face})`,
    !!underline &&
      `text-decoration: underline ${underline.width}px var(--${underline.colour}); text-underline-offset: ${underline.below}px`,
  ]);
};

/** Returns variables of colours and typefaces for both themes, and a class for each ink. */
export const tableStyleSheet = (): string =>
  [
    block(':root', variables({ ...themes.paper, ...typefaces })),
    block("[data-theme='night']", variables(themes.night)),
    block('.on-water', ['--halo: var(--water)']),
    ...inkRoles.map(ink),
  ].join('');
