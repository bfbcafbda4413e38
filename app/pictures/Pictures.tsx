import {
  lazy,
  Suspense,
  useCallback,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type ComponentType,
  type ReactNode,
} from 'react';
import { anglesOfBasis } from '../../core/camera/orientation';
import { addScaled, normalize, type Vec3 } from '../../core/math/vec3';
import { Paced, useSituation, type Situation } from '../state/derive';
import { themeInForce, useSettings, type Corner } from '../state/settings';
import { useTable } from '../state/table';
import { editable, figure } from '../ui/figures';
import { handHolds } from '../ui/hand';
import { Drawing, fitDrawing, useDrawingView } from './Drawing';
import { headingOf, planFrame, sectionFrame, worldFrame, type Size } from './drawings';
import { MainPlate, rulerX, rulerY } from './MainPlate';
import { paletteOf, Renderer, type Picture } from './renderer';
import { sceneOf } from './scene';
import { layTray, screenFrame } from './screens';
import type { ProjectCamera2d } from '../../formats/project';
import { gridStep } from './shaders';
import { Tray } from './Tray';
import { World } from './World';
import type { OverlayProps } from '../tasks';
import { mendOf } from '../shell/mends';
import type { Problem } from '../../core/reasons';
import { unitMark } from '../wording';

/** The table brings its list with it: fetched when it is first looked at. */
const PointTable = lazy(() => import('./PointTable').then((module) => ({ default: module.PointTable })));

const caption = 24;
const gap = 6;
const pad = 8;

interface Slot {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Where the three pictures stand in the centre. The plate keeps the viewport's aspect; the drawings take the rest. */
function layOut(
  size: Size,
  aspect: number,
  enlarged: 'main' | 'plan' | 'section' | null,
): { main: Slot | null; plan: Slot | null; section: Slot | null } {
  const [w, h] = [size.width - 2 * pad, size.height - 2 * pad];
  const plate = (height: number): Slot => {
    const pictureHeight = Math.max(40, Math.min(height - caption - 2 * rulerY, (w - 2 * rulerX) / aspect));
    const pictureWidth = pictureHeight * aspect;
    return {
      x: pad + (w - pictureWidth - 2 * rulerX) / 2,
      y: pad,
      width: pictureWidth + 2 * rulerX,
      height: pictureHeight + 2 * rulerY,
    };
  };
  if (enlarged === 'main') return { main: plate(h), plan: null, section: null };
  const whole: Slot = { x: pad, y: pad, width: w, height: h - caption };
  if (enlarged === 'plan') return { main: null, plan: whole, section: null };
  if (enlarged === 'section') return { main: null, plan: null, section: whole };
  const least = Math.max(150, h * 0.3);
  const main = plate(h - least - caption - gap);
  const y = pad + caption + main.height + gap;
  const half = (w - pad) / 2;
  const height = Math.max(60, pad + h - y - caption);
  return { main, plan: { x: pad, y, width: half, height }, section: { x: pad + half + pad, y, width: half, height } };
}

const mainLight = normalize([-0.62, 0.7, 0.5])!;
const planLight = normalize([-0.3, 0.9, 0.2])!;

/** The camera's picture above, Plan and Section below: one canvas, three frames of the core, and what lies over them. */
export function Pictures({
  route,
  corner: usual,
  Overlay,
}: {
  route: string;
  corner: Corner;
  Overlay?: ComponentType<OverlayProps> | undefined;
}) {
  const situation = useSituation();
  const { frame, project, placed, roots, extent, seen, flat } = situation;
  const enlarged = useSettings((state) => state.enlarged);
  // A flat world has no section: the screens stand there.
  const wanted = useSettings((state) => state.corners[route]) ?? usual;
  const corner = flat && wanted === 'section' ? 'screens' : wanted;
  const theme = themeInForce(useSettings((state) => state.theme));
  const box = useRef<HTMLDivElement>(null);
  const [renderer, setRenderer] = useState<Renderer | null>(null);
  const [size, setSize] = useState<Size>({ width: 720, height: 696 });
  const [failed, setFailed] = useState<string | null>(null);

  useLayoutEffect(() => {
    const element = box.current!;
    const measure = () => setSize({ width: element.clientWidth, height: element.clientHeight });
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const slots = useMemo(
    () => layOut(size, frame.viewport.width / frame.viewport.height, enlarged),
    [size, frame.viewport.width, frame.viewport.height, enlarged],
  );
  const sizeOf = (slot: Slot | null): Size => ({ width: slot?.width ?? 100, height: slot?.height ?? 100 });
  const planSize = useMemo(() => sizeOf(slots.plan), [slots.plan]);
  const sectionSize = useMemo(() => sizeOf(slots.section), [slots.section]);
  const planView = useDrawingView('plan', planSize);
  const sectionView = useDrawingView('section', sectionSize);

  const planned = useMemo(
    () => (flat ? worldFrame(planView, planSize) : planFrame(planView, planSize, extent)),
    [flat, planView, planSize, extent],
  );
  const table = useTable((state) => state.table?.points ?? null);
  const scene = useMemo(
    () => sceneOf(project.bodies, placed, roots, extent.centre, flat, table),
    [project.bodies, placed, roots, extent.centre, flat, table],
  );

  const attach = useCallback((canvas: HTMLCanvasElement | null) => {
    if (!canvas) return;
    try {
      setRenderer(new Renderer(canvas));
    } catch (error) {
      setFailed((error as Error).message);
    }
  }, []);
  useEffect(() => renderer?.setScene(scene), [renderer, scene]);

  // The screens follow when the camera rests: five more pictures would halve the pace of a drag.
  const rested = useAtRest(frame, 120);
  const { fit, sizes } = project.screens;
  const ground = flat ? null : (project.ground?.height ?? null);
  const { tiles } = project;
  /** What every picture of the present world is drawn with. */
  const world = useMemo(() => ({ ground, emphasis: null, ...(flat && { flat: { tiles } }) }), [ground, flat, tiles]);
  const tray = useMemo((): Picture[] => {
    if (!slots.section || corner !== 'screens') return [];
    const { x, y } = slots.section;
    const { scale, places } = layTray(sizes, sectionSize);
    return sizes.flatMap((screen, i) => {
      const made = screenFrame(rested, fit, screen);
      if (!made) return [];
      const { viewport: v } = made;
      const place = places[i]!;
      const rect = {
        x: x + place.x + v.x * scale,
        y: y + caption + place.y + v.y * scale,
        width: v.width * scale,
        height: v.height * scale,
      };
      return [{ ...world, rect, frame: made, style: 'main', light: mainLight }];
    });
  }, [slots.section, corner, sizes, fit, sectionSize, rested, world]);

  useEffect(() => {
    const pictures: Picture[] = [];
    const inner = (slot: Slot, dx: number, dy: number) => ({
      x: slot.x + dx,
      y: slot.y + caption + dy,
      width: slot.width - 2 * dx,
      height: slot.height - 2 * dy,
    });
    if (slots.main)
      pictures.push({
        ...world,
        rect: inner(slots.main, rulerX, rulerY),
        frame,
        style: 'main',
        light: mainLight,
      });
    if (slots.plan)
      pictures.push({
        ...world,
        rect: inner(slots.plan, 0, 0),
        frame: planned,
        style: 'plan',
        light: planLight,
      });
    if (slots.section && corner === 'screens') {
      pictures.push(...tray);
    } else if (slots.section && corner === 'section') {
      const own = project.probe.body === null ? null : (scene.families.get(roots.get(project.probe.body)!) ?? null);
      pictures.push({
        rect: inner(slots.section, 0, 0),
        frame: sectionFrame(sectionView, sectionSize, frame, extent),
        style: 'section',
        ground,
        emphasis: own,
        light: sectionLight(situation),
      });
    }
    const draw = () =>
      renderer?.draw(pictures, paletteOf(theme, document.documentElement), size, window.devicePixelRatio || 1);
    const request = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(request);
  }, [
    renderer,
    situation,
    scene,
    slots,
    planned,
    sectionView,
    extent,
    sectionSize,
    size,
    theme,
    frame,
    ground,
    world,
    project.probe.body,
    tray,
    corner,
    roots,
  ]);

  return (
    <main className="centre" ref={box} aria-label="Pictures">
      <canvas ref={attach} style={{ width: size.width, height: size.height }} aria-hidden="true" />
      {slots.main && (
        <Block
          slot={slots.main}
          name="main"
          title="Through the camera"
          sub={project.camera.name}
          facts={
            <Paced value={true}>
              <CameraFacts />
            </Paced>
          }
        >
          <MainPlate width={slots.main.width - 2 * rulerX} height={slots.main.height - 2 * rulerY} Overlay={Overlay} />
          {(seen.problems.length > 0 || failed) && <Trouble text={failed} problem={seen.problems[0]} />}
        </Block>
      )}
      {slots.plan && (
        <Block
          slot={slots.plan}
          name="plan"
          title={flat ? 'World' : 'Plan'}
          sub={
            flat
              ? 'with what the camera sees'
              : project.ground
                ? `from above, grid ${gridStep} ${unitMark(project.unit)}`
                : 'from above'
          }
        >
          {flat ? <World size={planSize} view={planView} /> : <Drawing name="plan" size={planSize} view={planView} />}
        </Block>
      )}
      {slots.section && (
        <Block
          slot={slots.section}
          name="section"
          title={cornerNames[corner]}
          sub={cornerSubs[corner]}
          drawing={corner === 'section'}
          facts={(['section', 'screens', 'points'] as const)
            .filter((one) => one !== corner && !(flat && one === 'section'))
            .map((one) => (
              <button
                key={one}
                className="small"
                onClick={() => useSettings.setState(({ corners }) => ({ corners: { ...corners, [route]: one } }))}
              >
                {cornerNames[one]}
              </button>
            ))}
        >
          {corner === 'screens' ? (
            <Tray size={sectionSize} frame={rested} />
          ) : corner === 'points' ? (
            <Suspense>
              <PointTable size={sectionSize} />
            </Suspense>
          ) : (
            <Drawing name="section" size={sectionSize} view={sectionView} />
          )}
        </Block>
      )}
    </main>
  );
}

const cornerNames: Readonly<Record<Corner, string>> = { section: 'Section', screens: 'Screens', points: 'Points' };
const cornerSubs: Readonly<Record<Corner, string>> = {
  section: 'along the gaze',
  screens: 'at one scale',
  points: 'in every space',
};

/** A value once it has been the same for a while; under the hand, once that lets go or has held still for a second. */
function useAtRest<T>(value: T, milliseconds: number): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const rest = () => setRested(value);
    const timer = setTimeout(rest, handHolds() ? 1000 : milliseconds);
    document.addEventListener('lostpointercapture', rest);
    return () => {
      clearTimeout(timer);
      document.removeEventListener('lostpointercapture', rest);
    };
  }, [value, milliseconds]);
  return rested;
}

const sectionLight = ({ frame }: Situation): Vec3 => {
  const { heading, right } = headingOf(frame);
  return normalize(addScaled(addScaled([0, 0.66, 0], right, 0.62), heading, -0.42))!;
};

/** Why the picture is not what is asked for, with the mend. */
function Trouble({ text, problem }: { text: string | null; problem: Problem | undefined }) {
  const { project } = useSituation();
  const mend = text === null && problem ? mendOf(problem, project) : null;
  return (
    <div className="stale-note" style={{ left: rulerX + 12, bottom: rulerY + 12 }} role="alert">
      <b>{text === null ? 'This is the last camera that could be.' : 'No pictures here.'}</b> {text ?? problem!.message}{' '}
      {mend && (
        <button className="plain-button" onClick={mend.run}>
          {mend.label}
        </button>
      )}
    </div>
  );
}

function Block({
  slot,
  name,
  title,
  sub,
  facts,
  drawing = name !== 'main',
  children,
}: {
  slot: Slot;
  name: 'main' | 'plan' | 'section';
  title: string;
  sub: string;
  facts?: ReactNode;
  /** Whether it can be moved and so be fitted again. */
  drawing?: boolean;
  children: ReactNode;
}) {
  const enlarged = useSettings((state) => state.enlarged);
  return (
    <section
      className="picture-block"
      data-picture={name}
      style={{ left: slot.x, top: slot.y, width: slot.width, height: slot.height + caption }}
      aria-label={`${title}, a picture`}
    >
      <div className="caption">
        <h2>{title}</h2>
        <span className="sub">{sub}</span>
        <span className="space" />
        {facts}
        {drawing && name !== 'main' && (
          <button
            className="small"
            onClick={() => fitDrawing(name)}
            title="Bring the camera and what it sees into the drawing"
          >
            Fit
          </button>
        )}
        <button className="small" onClick={() => useSettings.setState({ enlarged: enlarged ? null : name })}>
          {enlarged ? 'Show all' : 'Enlarge'}
        </button>
      </div>
      {children}
    </section>
  );
}

/** The camera's chief numbers over its picture. */
function CameraFacts() {
  const { frame, expression: e, project } = useSituation();
  if (project.camera.kind === '2d') return <FlatFacts camera={project.camera} />;
  const p = project.camera.projection;
  const degrees = e.conventions.angles.unit === 'degrees';
  const angle = (radians: number) => `${figure(radians, degrees ? 2 : 4)}${degrees ? '°' : ''}`;
  const { yaw, pitch } = e.toAngles(anglesOfBasis(frame));
  const short = (v: number) => figure(v, Number.isInteger(v) ? 0 : 2);
  return (
    <span className="facts">
      {p.kind === 'perspective' ? 'vertical ' : 'height '}
      <b>{p.kind === 'perspective' ? angle(e.toAngle((p.verticalFov * Math.PI) / 180)) : short(p.height)}</b>
      near <b>{short(frame.near)}</b>
      far <b>{frame.far === null ? 'infinite' : short(frame.far)}</b>
      pitch <b>{angle(pitch)}</b>
      yaw <b style={{ marginRight: 0 }}>{angle(yaw)}</b>
    </span>
  );
}

function FlatFacts({ camera }: { camera: ProjectCamera2d }) {
  const { expression: e, points } = useSituation();
  const degrees = e.conventions.angles.unit === 'degrees';
  const turn = e.toAngle((camera.rotation * Math.PI) / 180);
  return (
    <span className="facts">
      zoom <b>{editable(camera.zoom)}</b>
      focus{' '}
      <b>
        {points
          .show([...camera.focus, 0])
          .map((v) => figure(v, 2))
          .join(', ')}
      </b>
      turned{' '}
      <b style={{ marginRight: 0 }}>
        {figure(turn, degrees ? 1 : 3)}
        {degrees ? '°' : ''}
      </b>
    </span>
  );
}
