import { useEffect, useMemo, useRef, useState, type PointerEvent } from 'react';
import type { Size } from '../../pictures/compose/contract';
import { DataList, type ListColumn } from '../../sheet/DataList';
import { showPane } from '../../edits/panes';
import { useSelection } from '../../state/selection';
import { themeInForce, useSettings } from '../../state/settings';
import { currentTaskMoment, useTaskMoment } from '../../state/tempo';
import { saveBlob } from '../../ui/files';
import { complain } from '../../ui/notices';
import { themes, type Colour as ThemeColour } from '../../ui/themes';
import { Choice } from '../../ui/Choice';
import { counted, figure } from '../../ui/figures';
import { change } from './edits';
import { lookedAtNow, sweepNow } from './swept';
import type { LookedAt, Sweep } from './swept';
import type { PickState, SweepBy } from './kept';

type Colour = readonly [number, number, number];

/** A colour of the theme as red, green and blue. */
function token(name: ThemeColour): Colour {
  const hex = themes[themeInForce(useSettings.getState().theme)][name];
  return [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16)) as unknown as Colour;
}
const mix = (a: Colour, b: Colour, t: number): Colour => [0, 1, 2].map((i) => a[i]! + (b[i]! - a[i]!) * t) as unknown as Colour; // prettier-ignore

/** The tones that bodies are told apart by: the plates' own, in turn. */
const tones: readonly ThemeColour[] = ['stone0', 'stone2', 'white1', 'white3', 'dark0', 'dark2', 'roof0', 'roof2', 'glass0', 'glass2', 'in1', 'cr1', 'out1', 'in3', 'cr3', 'out3']; // prettier-ignore

/** A sweep as pixels, in the colours of the theme. */
function painted(sweep: Sweep, looked: LookedAt | null, by: SweepBy): ImageData {
  const { width, height, body, distance, normal, where } = by === 'boxes' && looked ? { ...sweep, ...looked, where: new Uint8Array(0) } : sweep; // prettier-ignore
  const image = new ImageData(width, height);
  const { data } = image;
  const [ground, ink, fault, edge] = [token('sunk'), token('ink'), token('verm'), token('brass')];
  const palette = tones.map(token);
  let [least, most] = [Infinity, 0];
  if (by === 'distance')
    for (const d of distance)
      if (Number.isFinite(d)) {
        if (d < least) least = d;
        if (d > most) most = d;
      }
  const light = [-0.46, 0.72, 0.52];
  for (let i = 0; i < width * height; i++) {
    let colour = ground;
    if (by === 'boxes') {
      if (looked) colour = mix(ground, ink, Math.min(1, looked.boxes[i]! / Math.max(1, looked.most)));
    } else if (body[i]! >= 0) {
      if (by === 'body') colour = palette[(body[i]! * 7) % palette.length]!;
      // Nearer is darker, by the logarithm.
      else if (by === 'distance')
        colour = mix(ink, ground, 0.08 + (0.84 * Math.log(distance[i]! / least)) / (Math.log(most / least) || 1)); // prettier-ignore
      else {
        const lit =
          (normal[3 * i]! * light[0]! + normal[3 * i + 1]! * light[1]! + normal[3 * i + 2]! * light[2]!) / 127;
        const [a, b] = Math.abs(normal[3 * i + 1]!) > 64 ? [token0.up, token0.upDark] : Math.abs(normal[3 * i]!) > 64 ? [token0.side, token0.sideDark] : [token0.front, token0.frontDark]; // prettier-ignore
        colour = mix(b, a, 0.5 + lit / 2);
      }
    }
    if (where.length && where[i]) colour = where[i] === 2 ? fault : edge;
    data.set(colour, 4 * i);
    data[4 * i + 3] = 255;
  }
  return image;
}
const token0 = { up: [0, 0, 0] as Colour, upDark: [0, 0, 0] as Colour, side: [0, 0, 0] as Colour, sideDark: [0, 0, 0] as Colour, front: [0, 0, 0] as Colour, frontDark: [0, 0, 0] as Colour }; // prettier-ignore
/** The colours of normals: those of the three axes of the world, light and dark. */
function takeAxes(): void {
  Object.assign(token0, {
    ...{ up: token('in0'), upDark: token('in3'), side: token('cr0'), sideDark: token('cr3') },
    ...{ front: token('out0'), frontDark: token('out3') },
  });
}

/** Saves the sweep as PNG, a pixel a ray. */
export function saveSweep(): void {
  const now = currentTaskMoment<PickState>('pick');
  const found = now.flat ? null : sweepNow(now);
  if (!found?.sweep) return complain('There is no sweep to save yet. It starts in 3D, when nothing moves.');
  takeAxes();
  const image = painted(found.sweep, now.slice.by === 'boxes' ? lookedAtNow(now) : null, now.slice.by);
  const canvas = new OffscreenCanvas(image.width, image.height);
  canvas.getContext('2d')!.putImageData(image, 0, 0);
  void canvas.convertToBlob({ type: 'image/png' }).then((blob) => saveBlob('sweep.png', blob));
}

/** The picture of the sweep, coarse until it is whole. */
export function SweepPane({ size }: { size: Size }) {
  const now = useTaskMoment<PickState>('pick');
  const theme = themeInForce(useSettings((state) => state.theme));
  const canvas = useRef<HTMLCanvasElement>(null);
  const [under, setUnder] = useState<string | null>(null);
  const { slice, flat, project, frame } = now;
  const found = flat ? null : sweepNow(now);
  const looked = slice.by === 'boxes' ? lookedAtNow(now) : null;
  const sweep = found?.sweep ?? null;
  useEffect(() => {
    const element = canvas.current;
    if (!element || !sweep) return;
    takeAxes();
    const image = painted(sweep, looked, slice.by);
    [element.width, element.height] = [image.width, image.height];
    element.getContext('2d')!.putImageData(image, 0, 0);
  }, [sweep, looked, slice.by, theme]);
  if (flat)
    return (
      <div className="sweep-none" style={size}>
        On a flat world what lies under a point is in the worksheet.
      </div>
    );
  const k = Math.min(size.width / frame.viewport.width, (size.height - 18) / frame.viewport.height);
  const [width, height] = [Math.floor(frame.viewport.width * k), Math.floor(frame.viewport.height * k)];
  const at = (event: PointerEvent<HTMLCanvasElement>): number => {
    const box = event.currentTarget.getBoundingClientRect();
    const [x, y] = [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height];
    if (!sweep || x < 0 || y < 0 || x >= 1 || y >= 1) return -1;
    return Math.floor(y * sweep.height) * sweep.width + Math.floor(x * sweep.width);
  };
  const say = (event: PointerEvent<HTMLCanvasElement>) => {
    const i = at(event);
    const one = i < 0 ? undefined : project.bodies[sweep!.body[i]!];
    setUnder(one ? `${one.name}, ${figure(sweep!.distance[i]!, 2)}` : 'nothing');
  };
  return (
    <div className="sweep" style={size}>
      <canvas
        ref={canvas}
        role="img"
        aria-label={`The sweep, by ${slice.by}`}
        style={{ width, height, opacity: found?.fresh === false ? 0.5 : 1 }}
        onPointerMove={say}
        onPointerLeave={() => setUnder(null)}
        onPointerDown={(event) => {
          const one = project.bodies[sweep?.body[at(event)] ?? -1];
          if (one) useSelection.setState({ ids: [now.roots.get(one.id) ?? one.id] });
        }}
      />
      <p>{under ?? (sweep ? `${sweep.width} × ${sweep.height} rays` : 'The sweep has not begun.')}</p>
    </div>
  );
}

interface Seen {
  readonly id: string;
  readonly name: string;
  readonly pixels: number;
}
const columns: readonly ListColumn<Seen>[] = [
  { name: 'Body', width: '1fr', value: ({ name }) => name },
  { name: 'pixels', width: '70px', value: ({ pixels }) => pixels, decimals: 0 },
];

/** Every pixel picked, and what the painted picture has otherwise. */
export function SweepSection() {
  const now = useTaskMoment<PickState>('pick');
  const { slice, project, frame } = now;
  const found = sweepNow(now);
  const looked = lookedAtNow(now);
  const sweep = found?.sweep ?? null;
  const seen = useMemo((): Seen[] => {
    if (!sweep) return [];
    const counts = new Map<number, number>();
    for (const i of sweep.body) if (i >= 0) counts.set(i, (counts.get(i) ?? 0) + 1);
    const each = (frame.viewport.width * frame.viewport.height) / (sweep.width * sweep.height);
    return [...counts]
      .flatMap(([i, count]): Seen[] => {
        const body = project.bodies[i];
        return body ? [{ id: body.id, name: body.name, pixels: Math.round(count * each) }] : [];
      })
      .sort((a, b) => b.pixels - a.pixels);
  }, [sweep, project.bodies, frame.viewport.width, frame.viewport.height]);
  return (
    <>
      <Choice
        name="Sweep by"
        value={slice.by}
        options={[
          { value: 'body', label: 'body' },
          { value: 'distance', label: 'distance', title: 'Along the ray, nearer is darker' },
          { value: 'normal', label: 'normal', title: 'By the axis of the world that it is nearest to, lit' },
          { value: 'boxes', label: 'boxes', title: 'How many boxes of the tree each ray tests' },
        ]}
        onChange={(by) => change('tint the sweep otherwise', (draft) => void (draft.by = by))}
      />
      <div className="result" aria-live="polite">
        <p className="verdict-line" data-testid="sweep-verdict">
          {!sweep || !found!.fresh || !sweep.where.length
            ? 'Sweeping…'
            : sweep.offSilhouette
              ? `${sweep.offSilhouette.toLocaleString('en')} pixels off a silhouette differ from the painted picture: two surfaces lie in one place there.`
              : `${counted(sweep.differing, 'pixel differs', 'pixels differ')} from the painted picture, ${sweep.differing ? 'every one at a silhouette' : 'none at all'}.`}
        </p>
        {sweep && (
          <>
            <div className="line">
              rays
              <span className="right" data-testid="sweep-rays">
                {sweep.width} × {sweep.height}
              </span>
            </div>
            <div className="line">
              meet a body
              <span className="right">{sweep.hits.toLocaleString('en')}</span>
            </div>
            <div className="line">
              took
              <span className="right" data-testid="sweep-took">
                {figure(sweep.milliseconds, 0)} ms
              </span>
            </div>
          </>
        )}
        {slice.by === 'boxes' && (
          <div className="line">
            boxes a ray
            <span className="right" data-testid="boxes-mean">
              {looked ? `${figure(looked.mean, 1)}, ${looked.most} at most` : 'counting…'}
            </span>
          </div>
        )}
        {slice.by === 'boxes' && looked && (
          <div className="line">
            surfaces a ray
            <span className="right">{figure(looked.surfaces, 1)}</span>
          </div>
        )}
      </div>
      <button className="plain-button mt-1" onClick={() => showPane('pick/sweep')}>
        Show the sweep
      </button>
      <div className="rule">
        Seen <em>{counted(seen.length, 'body', 'bodies')}</em>
      </div>
      <DataList
        name="bodies swept"
        rows={seen}
        keyOf={({ id }) => id}
        columns={columns}
        bodiesOf={({ id }) => [id]}
        empty="No ray meets a body."
      />
    </>
  );
}
