import { heldPixel, insetAt, type Hold } from '../../../core/convert/held';
import { pixelToPicture } from '../../../core/convert/project';
import { pictureToWorld } from '../../../core/convert/unproject';
import type { CameraFrame } from '../../../core/camera/frame';
import { depthChoiceOf } from '../../../formats/camera';
import { screenFrame } from '../../pictures/compose/screens';
import { showPane } from '../../edits/panes';
import { editSlice, sliceOf } from '../../state/slices';
import { useMoment } from '../../state/tempo';
import { countsOf, reasonSentence, screenUnit } from '../../state/wording';
import { figure } from '../../ui/figures';
import { NameField } from '../../ui/NameField';
import { pixels } from '../../ui/parseNumber';
import { NumberField } from '../../sheet/NumberField';
import { Head } from './Head';
import { holdPoint } from './hold';
import { mostHeld, type ConvertState, type HeldPoint } from './state';

const change = (name: string, recipe: (held: HeldPoint[]) => void, gesture: string | null = null) =>
  editSlice<ConvertState>('convert', name, (draft) => recipe(draft.held as HeldPoint[]), gesture);

const across = ['left', 'centre', 'right'] as const;
const upward = ['bottom', 'middle', 'top'] as const;
/** The nine places that a point can be held to, row by row from the top. */
const holds = ([1, 0, -1] as const).flatMap((up) =>
  ([-1, 0, 1] as const).map((right) => ({
    hold: [right, up] as Hold,
    label: right === 0 && up === 0 ? 'centre' : `${upward[up + 1]} ${across[right + 1]}`,
  })),
);
const labelOf = ([right, up]: Hold) => holds.find(({ hold }) => hold[0] === right && hold[1] === up)!.label;

/** How many there are, beside the heading. */
export function HeldCount() {
  const { project } = useMoment();
  const { held } = sliceOf<ConvertState>('convert', project);
  return held.length ? String(held.length) : 'labels, buttons';
}

/**
 * Points that stand on the screen whatever the camera does, each held to an edge or a corner: where
 * they are on every screen, and which point of the world lies under them.
 */
export function Held() {
  const { project, frame, flat, codec: e } = useMoment();
  const { held } = sliceOf<ConvertState>('convert', project);
  return (
    <>
      {!held.length && (
        <p className="text-note leading-4 text-ink2">
          A label in a corner stays there on every screen, and a point of the world lies under it.
        </p>
      )}
      {held.length > 0 && <Head aside={`${screenUnit(e)}, ${countsOf(e)}`}>Pixel, world point</Head>}
      {held.map((one, i) => (
        <section key={one.id} aria-label={one.name}>
          <div className="row">
            <NameField
              name={`Name of ${one.name}`}
              value={one.name}
              onChange={(name) => change('rename the held point', (all) => void (all[i]!.name = name))}
            />
            <select
              className="select"
              aria-label={`${one.name} is held to`}
              value={labelOf(one.hold)}
              onChange={({ target }) =>
                change(`hold it to the ${target.value}`, (all) => {
                  const { hold } = holds.find(({ label }) => label === target.value)!;
                  const at = heldPixel(frame.viewport, one.hold, one.inset);
                  all[i]!.hold = [...hold];
                  all[i]!.inset = [...insetAt(frame.viewport, hold, at)];
                })
              }
            >
              {holds.map(({ label }) => (
                <option key={label}>{label}</option>
              ))}
            </select>
            <button
              className="drop"
              aria-label={`Remove ${one.name}`}
              title={`Remove ${one.name}`}
              onClick={() => change(`remove ${one.name}`, (all) => void all.splice(i, 1))}
            >
              ×
            </button>
          </div>
          <div className="row">
            <span className="label">{one.hold.some((way) => way === 0) ? 'Offset' : 'Inset'}</span>
            {([0, 1] as const).map((k) => (
              <NumberField
                key={k}
                label={'xy'[k]!}
                name={`${one.name} inset ${'xy'[k]}`}
                width="50%"
                value={one.inset[k]}
                units={pixels}
                onChange={(v, gesture) => change('move the held point', (all) => void (all[i]!.inset[k] = v), gesture)}
              />
            ))}
            <span className="text-ink2">css px</span>
          </div>
          <Where one={one} frame={frame} title="here" short="here" />
          {project.screens.sizes.map((size, k) => {
            const made = screenFrame(frame, project.screens.fit, size, flat);
            return (
              made && <Where key={k} one={one} frame={made} title={size.name} short={`${size.width}×${size.height}`} />
            );
          })}
        </section>
      ))}
      <div className="mt-1 flex flex-wrap gap-1">
        <button className="plain-button" disabled={held.length >= mostHeld} onClick={holdPoint}>
          Hold a point to the screen
        </button>
        {held.length > 0 && (
          <button className="plain-button" onClick={() => showPane('screens')}>
            Show the screens
          </button>
        )}
      </div>
    </>
  );
}

/** Where it is on one screen, and what of the world lies under it. */
function Where({ one, frame, title, short }: { one: HeldPoint; frame: CameraFrame; title: string; short: string }) {
  const { project, codec: e, points, flat } = useMoment();
  const [a, u] = pixelToPicture(frame, heldPixel(frame.viewport, one.hold, one.inset).map((v, i) => v + [frame.viewport.x, frame.viewport.y][i]!) as [number, number]); // prettier-ignore
  const pixel = e.toScreen(frame.viewport, a, u);
  const found = pictureToWorld(frame, a, u, flat ? { kind: 'ahead', ahead: 0 } : depthChoiceOf(project.back));
  const world = (decimals: number) =>
    found.ok
      ? points
          .show(found.value)
          .map((v) => figure(v, decimals))
          .join(', ')
      : reasonSentence[found.reason];
  return (
    <div className="held-row" title={`${title}: ${world(4)}`}>
      <span>{short}</span>
      <span className="font-mono" data-testid={`held ${title}`}>
        {pixel.map((v) => figure(v, Math.abs(v - Math.round(v)) < 1e-6 ? 0 : 1)).join(', ')}
      </span>
      <span className="font-mono text-ink2">{world(1)}</span>
    </div>
  );
}
