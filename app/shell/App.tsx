import './App.css';
import {
  lazy,
  Suspense,
  useCallback,
  useEffect,
  useMemo,
  type CSSProperties,
  type PointerEvent,
  type ReactNode,
} from 'react';
import { Navigate, Outlet, Route, Routes, useHref, useLocation } from 'react-router';
import { Chain } from '../chain/Chain';
import { Start } from './Start';
import { Pictures, type OwnPane } from '../pictures/page/Pictures';
import type { TimeTick } from '../pictures/compose/timeTick';
import { probeBody } from '../edits/actions';
import { lookThrough } from '../edits/cameras';
import { Drops } from './Drops';
import { Brand, Header } from './Header';
import { Boundary } from './Boundary';
import { Keys, toWorksheet } from './Keys';
import { Notices } from './Notice';
import { PointerStrip } from './PointerStrip';
import { TaskStrip } from './TaskStrip';
import { useDocument } from '../state/document';
import { useSettings, usual } from '../state/settings';
import { wasShown } from '../state/shown';
import type { Moment } from '../state/moment';
import { useStill } from '../state/pace';
import { taskMoment } from '../state/slices';
import { currentTaskMoment, Tempo } from '../state/tempo';
import type { TaskHandles } from '../pictures/page/Handles';
import { marksOf } from '../pictures/compose/taskMarks';
import { taskNames, type TaskName } from '../tasks/names';
import { useTasks } from '../tasks/page';
import type { AnyTask } from '../tasks/task';
import { loadOpenTask, prefetchTasks, runJobs } from './wiring';
import { FirstPaintDone, useFirstPaintDone } from '../ui/firstPaint';

const Projects = lazy(() => import('./Projects'));
const Help = lazy(() => import('./Help'));

/** The page's rows and columns, as wide as the user has set them. */
function Page({ children }: { children: ReactNode }) {
  const { chainWidth, sheetWidth } = useSettings();
  // The usual width gives way in small windows; one that was set is kept up to half the window.
  const sheet = sheetWidth === usual.sheetWidth ? `clamp(300px, 29vw, ${sheetWidth}px)` : `min(${sheetWidth}px, 50vw)`;
  return (
    <div className="app" style={{ '--chain-width': `${chainWidth}px`, '--sheet-width': sheet } as CSSProperties}>
      {children}
    </div>
  );
}

/** What every page has, and keeps when it gives way to another. */
function Shell() {
  const help = useSettings((state) => state.help);
  const { pathname } = useLocation();
  const projects = useHref('/projects');
  const place = taskNames.find(({ route }) => pathname === `/${route}`);
  const task = useTasks(({ loaded }) => loaded.find(({ route }) => route === place?.route)) ?? null;
  const id = useDocument(({ project }) => project?.id);
  // A page without pictures says nothing of whether the project can be shown.
  useEffect(() => {
    if (id && !place) wasShown();
  }, [id, place]);
  return (
    <Page>
      {place && (
        <button className="skip" onClick={toWorksheet}>
          Skip to the worksheet
        </button>
      )}
      <Header />
      <TaskStrip />
      <Boundary key={pathname} projects={projects}>
        <Outlet />
      </Boundary>
      {help && (
        <Suspense>
          <Help task={task} />
        </Suspense>
      )}
      <Notices />
      <Keys task={task} />
      <ProbeInAddress ofTask={place !== undefined} />
      <Drops />
    </Page>
  );
}

/** The panes that a task adds: its own parts of the page, and its own pictures. */
const panesOf = ({ route, panes = [] }: AnyTask): readonly OwnPane[] => [
  ...panes.map((pane) => ({ ...pane, sub: pane.sub, name: `${route}/${pane.name}` })),
  ...(marksOf(route)?.pictures ?? []).map(({ name, title, world }) => ({
    ...{ name: `${route}/${name}`, title, world, Content: null, place: 'row' as const },
  })),
];

/** What a task has to take hold of in a picture, asked with what it keeps. */
const handlesOf = ({ route, handles }: AnyTask): TaskHandles | undefined =>
  handles && ((view) => ({ task: route, handles: handles(currentTaskMoment(route), view.name) }));

/**
 * One page for every task: the tasks differ in their worksheet and in what they add to the
 * pictures.
 */
function Bench({ place }: { place: TaskName }) {
  const { chainWidth, sheetWidth } = useSettings();
  const tasks = useTasks(({ loaded }) => loaded);
  const task = tasks.find(({ route }) => route === place.route);
  useEffect(() => loadOpenTask(place.route), [place]);
  const whole = useFirstPaintDone();
  const panes = useMemo(() => (task ? panesOf(task) : []), [task]);
  const ofTask = useMemo(() => task && handlesOf(task), [task]);
  const answers = useStill((state) => state.answers);
  // What the tasks have at moments of the time rule.
  const ticksOf = useCallback(
    (now: Moment): readonly TimeTick[] =>
      tasks.flatMap(({ route, ticks }) => ticks?.(taskMoment(route, now, answers)) ?? []),
    [tasks, answers],
  );
  useEffect(() => (task ? runJobs(task.route) : undefined), [task]);
  const id = useDocument(({ project }) => project?.id);
  useEffect(() => {
    if (!whole || !id) return;
    // What goes wrong in showing does so in the first frames.
    const stood = setTimeout(wasShown, 500);
    // Who works at once has the machine to themselves.
    const idle = setTimeout(prefetchTasks, 3_000);
    return () => {
      clearTimeout(stood);
      clearTimeout(idle);
    };
  }, [whole, id]);
  return (
    <>
      <Tempo value="chain">
        <Chain />
      </Tempo>
      <FirstPaintDone value={whole}>
        <Pictures
          route={place.route}
          corner={task?.corner ?? 'section'}
          ownPanes={panes}
          ofTask={ofTask}
          onHit={task?.onHit}
          ticksOf={ticksOf}
        />
      </FirstPaintDone>
      <aside className="sheet" aria-label="Worksheet">
        <h1 className="sr-only">{place.name}</h1>
        <div className="alone">
          <div className="sheet-page">
            <Tempo value="sheet">
              {task && <Start task={task} />}
              {task && whole && (
                <Suspense>
                  <task.Sheet />
                </Suspense>
              )}
            </Tempo>
          </div>
        </div>
      </aside>
      <Tempo value="strip">
        <PointerStrip />
      </Tempo>
      <section aria-label="Widths of the columns">
        <Resize side="chain" width={chainWidth} />
        <Resize side="sheet" width={sheetWidth} />
      </section>
    </>
  );
}

const limits = { chain: [220, 360], sheet: [300, Infinity] } as const;

/** The edge of a side column: dragged or moved with the arrow keys; the width is remembered. */
function Resize({ side, width }: { side: 'chain' | 'sheet'; width: number }) {
  const set = (next: number) => {
    const most = Math.min(limits[side][1], window.innerWidth / 2);
    const clamped = Math.round(Math.max(limits[side][0], Math.min(most, next)));
    useSettings.setState(side === 'chain' ? { chainWidth: clamped } : { sheetWidth: clamped });
  };
  const sign = side === 'chain' ? 1 : -1;
  return (
    <div
      className="resize"
      role="separator"
      aria-orientation="vertical"
      aria-label={side === 'chain' ? 'Width of the Chain' : 'Width of the worksheet'}
      aria-valuenow={width}
      aria-valuemin={limits[side][0]}
      aria-valuemax={Math.min(limits[side][1], Math.round(window.innerWidth / 2))}
      tabIndex={0}
      style={side === 'chain' ? { left: width - 4 } : { right: 'calc(var(--sheet-width) - 4px)' }}
      onPointerDown={(event: PointerEvent<HTMLDivElement>) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={(event) => {
        if (event.currentTarget.hasPointerCapture(event.pointerId))
          set(side === 'chain' ? event.clientX : window.innerWidth - event.clientX);
      }}
      onKeyDown={(event) => {
        if (event.key === 'ArrowLeft') set(width - 8 * sign);
        if (event.key === 'ArrowRight') set(width + 8 * sign);
      }}
    />
  );
}

/**
 * The address names the probed body and the camera, both ways: what it names when the page is opened is a wish;
 * afterwards it follows, and is never listened to again. It is written past the router, for which
 * it would be a way to go: one to another page that is still on its way would be given up for it.
 */
function ProbeInAddress({ ofTask }: { ofTask: boolean }) {
  const { key, search } = useLocation();
  const body = useDocument((state) => state.project!.probe.body);
  const camera = useDocument(({ project }) => (project!.cameras.length ? project!.camera.id : null));
  useEffect(() => {
    const given = new URLSearchParams(search);
    const [asked, camera] = [given.get('probe'), given.get('camera')];
    const { project } = useDocument.getState();
    if (camera && camera !== project!.camera.id) lookThrough(camera);
    if (asked && asked !== project!.probe.body && project!.bodies.some(({ id }) => id === asked)) probeBody(asked);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  useEffect(() => {
    if (!ofTask) return;
    const query = new URLSearchParams({ ...(body && { probe: body }), ...(camera && { camera }) }).toString();
    window.history.replaceState(window.history.state, '', window.location.pathname + (query && `?${query}`));
  }, [body, camera, ofTask, key]);
  return null;
}

/**
 * The bare page, while the project is fetched from where it is kept: what comes then has its place.
 */
function Opening() {
  return (
    <Page>
      <header className="header">
        <Brand />
      </header>
      {['tasks', 'chain', 'centre', 'sheet', 'strip'].map((part) => (
        <div key={part} className={part} />
      ))}
    </Page>
  );
}

export function App() {
  const opened = useDocument((state) => state.project !== null);
  if (!opened) return <Opening />;
  return (
    <Routes>
      <Route element={<Shell />}>
        {taskNames.map((place) => (
          <Route key={place.route} path={place.route} element={<Bench key={place.route} place={place} />} />
        ))}
        <Route
          path="projects"
          element={
            <Suspense>
              <Projects />
            </Suspense>
          }
        />
      </Route>
      <Route path="*" element={<Navigate to="/frame" replace />} />
    </Routes>
  );
}
