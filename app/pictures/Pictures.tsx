import {
  lazy,
  Suspense,
  useContext,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type ReactNode,
} from 'react';
import { anglesOfBasis } from '../../core/camera/orientation';
import type { ProjectCamera2d } from '../../formats/project';
import { mendOf } from '../shell/mends';
import { currentSituation, Tempo, usePart, useSituation } from '../state/derive';
import { themeInForce, useSettings, type Corner } from '../state/settings';
import { editable, figure } from '../ui/figures';
import { Stood } from '../ui/stood';
import { unitMark } from '../wording';
import { Drawing, fitDrawing, useDrawingView } from './Drawing';
import { gridStep, type Size } from './drawings';
import { MainPlate } from './MainPlate';
import { paletteOf } from './palette';
import { caption, layOut, plateSize, rulerX, rulerY, type Slot } from './slots';
import { layOutPictures, showIn, useFailure } from './stage';
import { Tray } from './Tray';
import { World } from './World';

/** The table brings its list with it: fetched when it is first looked at. */
const PointTable = lazy(() => import('./PointTable').then((module) => ({ default: module.PointTable })));

/** The camera's picture above, Plan and Section below: the canvases, and what lies over them in the page. */
export const Pictures = (props: { route: string; corner: Corner }) => (
  <Tempo value="still">
    <Centre {...props} />
  </Tempo>
);

function Centre({ route, corner: usual }: { route: string; corner: Corner }) {
  const { frame, project, flat } = useSituation();
  const { width, height } = frame.viewport;
  const enlarged = useSettings((state) => state.enlarged);
  // A flat world has no section: the screens stand there.
  const wanted = useSettings((state) => state.corners[route]) ?? usual;
  const corner = flat && wanted === 'section' ? 'screens' : wanted;
  const theme = themeInForce(useSettings((state) => state.theme));
  const stood = useContext(Stood);
  const box = useRef<HTMLElement>(null);
  const [size, setSize] = useState<Size>({ width: 720, height: 696 });

  useLayoutEffect(() => {
    const element = box.current!;
    const measure = () => {
      const now = { width: element.clientWidth, height: element.clientHeight };
      setSize((last) => (last.width === now.width && last.height === now.height ? last : now));
    };
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  useLayoutEffect(() => showIn(box.current!), []);

  const slots = useMemo(() => layOut(size, width / height, enlarged), [size, width, height, enlarged]);
  const plan = useDrawingView('plan', slots.plan ?? unseen);
  const section = useDrawingView('section', slots.section ?? unseen);
  // The screens follow when the camera rests: five more pictures would halve the pace of a drag.
  const rested = useAtRest(frame, 120);
  useLayoutEffect(() => {
    const palette = paletteOf(theme, document.documentElement);
    layOutPictures({ route, size, slots, corner, plan, section, theme, palette, rested });
  }, [route, size, slots, corner, plan, section, theme, rested]);

  return (
    <main className="centre" ref={box} aria-label="Pictures">
      {slots.main && (
        <Block
          slot={slots.main}
          name="main"
          title="Through the camera"
          sub={project.camera.name}
          facts={
            <Tempo value="strip">
              <CameraFacts />
            </Tempo>
          }
        >
          <MainPlate {...plateSize(slots.main)} route={route} />
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
          {flat ? <World size={slots.plan} view={plan} /> : <Drawing name="plan" size={slots.plan} view={plan} />}
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
          {!stood ? null : corner === 'screens' ? (
            <Tray size={slots.section} frame={rested} />
          ) : corner === 'points' ? (
            <Suspense>
              <Tempo value="now">
                <PointTable size={slots.section} />
              </Tempo>
            </Suspense>
          ) : (
            <Drawing name="section" size={slots.section} view={section} />
          )}
        </Block>
      )}
      {slots.main && (
        <Tempo value="now">
          <Trouble left={slots.main.x} bottom={size.height - slots.main.y - caption - slots.main.height} />
        </Tempo>
      )}
    </main>
  );
}

const unseen: Size = { width: 100, height: 100 };

const cornerNames: Readonly<Record<Corner, string>> = { section: 'Section', screens: 'Screens', points: 'Points' };
const cornerSubs: Readonly<Record<Corner, string>> = {
  section: 'along the gaze',
  screens: 'at one scale',
  points: 'in every space',
};

/** A value once it has been the same for a while. */
function useAtRest<T>(value: T, milliseconds: number): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setRested(value), milliseconds);
    return () => clearTimeout(timer);
  }, [value, milliseconds]);
  return rested;
}

/** Why the picture is not what is asked for, with the mend: in the corner of the plate, over all that is painted. */
function Trouble({ left, bottom }: { left: number; bottom: number }) {
  const failed = useFailure((state) => state.message);
  const { problem } = usePart(({ seen }) => ({ problem: seen.problems[0] ?? null }));
  const { project } = currentSituation();
  if (failed === null && !problem) return null;
  const mend = failed === null ? mendOf(problem!, project) : null;
  return (
    <div className="stale-note" style={{ left: left + rulerX + 12, bottom: bottom + rulerY + 12 }} role="alert">
      <b>{failed === null ? 'This is the last camera that could be.' : 'No pictures here.'}</b>{' '}
      {failed ?? problem!.message}{' '}
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
