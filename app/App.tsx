import { lazy, Suspense, useEffect, type CSSProperties, type PointerEvent, type ReactNode } from 'react';
import { Navigate, Outlet, Route, Routes, useLocation, useSearchParams } from 'react-router';
import { Chain } from './chain/Chain';
import { Start } from './help/Start';
import { Pictures } from './pictures/Pictures';
import { probeBody } from './shell/actions';
import { Drops } from './shell/Drops';
import { Brand, Header } from './shell/Header';
import { Keys } from './shell/Keys';
import { Notice } from './shell/Notice';
import { PointerStrip } from './shell/PointerStrip';
import { TaskStrip } from './shell/TaskStrip';
import { Tempo } from './state/derive';
import { useDocument } from './state/document';
import { useSettings } from './state/settings';
import { tasks, type Task } from './tasks';
import { Stood, useStood } from './ui/stood';

const Projects = lazy(() => import('./shell/Projects'));
const Help = lazy(() => import('./help/Help'));

/** The page's rows and columns, as wide as the user has set them. */
function Page({ children }: { children: ReactNode }) {
  const { chainWidth, sheetWidth } = useSettings();
  return (
    <div
      className="app"
      style={{ '--chain-width': `${chainWidth}px`, '--sheet-width': `${sheetWidth}px` } as CSSProperties}
    >
      {children}
    </div>
  );
}

/** What every page has, and keeps when it gives way to another. */
function Shell() {
  const help = useSettings((state) => state.help);
  const { pathname } = useLocation();
  const task = tasks.find(({ route }) => pathname === `/${route}`);
  return (
    <Page>
      <Header />
      <TaskStrip />
      <Outlet />
      {help && (
        <Suspense>
          <Help route={task?.route ?? 'projects'} name={task?.name ?? 'projects'} />
        </Suspense>
      )}
      <Notice />
      <Keys />
      <Drops />
    </Page>
  );
}

/** One page for every task: the tasks differ in their worksheet and in what they add to the pictures. */
function Bench({ task }: { task: Task }) {
  const { chainWidth, sheetWidth } = useSettings();
  const { Sheet } = task;
  const whole = useStood();
  return (
    <>
      <Tempo value="chain">
        <Chain />
      </Tempo>
      <Stood value={whole}>
        <Pictures route={task.route} corner={task.corner ?? 'section'} />
      </Stood>
      <aside className="sheet" aria-label="Worksheet">
        <h1 className="sr-only">{task.name}</h1>
        <div className="alone">
          <div className="sheet-page">
            <Tempo value="sheet">
              <Start route={task.route} />
              {whole && <Suspense>{Sheet && <Sheet />}</Suspense>}
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
      <ProbeInAddress />
    </>
  );
}

const limits = { chain: [220, 360], sheet: [300, 520] } as const;

/** The edge of a side column: dragged or moved with the arrow keys; the width is remembered. */
function Resize({ side, width }: { side: 'chain' | 'sheet'; width: number }) {
  const set = (next: number) => {
    const clamped = Math.round(Math.max(limits[side][0], Math.min(limits[side][1], next)));
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
      aria-valuemax={limits[side][1]}
      tabIndex={0}
      style={side === 'chain' ? { left: width - 4 } : { right: width - 4 }}
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

/** The address names the probed body, both ways. */
function ProbeInAddress() {
  const [search, setSearch] = useSearchParams();
  const body = useDocument((state) => state.project!.probe.body);
  useEffect(() => {
    const asked = search.get('probe');
    const { project } = useDocument.getState();
    if (asked && asked !== project!.probe.body && project!.bodies.some(({ id }) => id === asked)) probeBody(asked);
    // Only the address that the page was opened with is a wish; afterwards it follows.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  useEffect(() => {
    setSearch(body ? { probe: body } : {}, { replace: true });
  }, [body, setSearch]);
  return null;
}

/** The bare page, while the project is fetched from where it is kept: what comes then has its place. */
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
        {tasks
          .filter(({ Sheet }) => Sheet)
          .map((task) => (
            <Route key={task.route} path={task.route} element={<Bench task={task} />} />
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
