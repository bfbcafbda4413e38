import './Pictures.css';
import {
  lazy,
  Suspense,
  useCallback,
  useContext,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type ComponentType,
  type ReactNode,
} from 'react';
import { useDrawings } from '../../state/drawings';
import type { Moment } from '../../state/moment';
import { useStill } from '../../state/pace';
import { useSelection } from '../../state/selection';
import { everyTask, themeInForce, useSettings } from '../../state/settings';
import { Tempo, useMoment } from '../../state/tempo';
import { unitMark } from '../../state/wording';
import { FirstPaintDone } from '../../ui/firstPaint';
import { Block, SnapshotPlate } from './Block';
import { CameraFacts } from './CameraFacts';
import { CameraMenu } from './CameraMenu';
import type { Size } from '../compose/contract';
import { Drawing, useDrawingView, useOutsideView, type Looked } from './Drawing';
import { gridStepOf } from '../compose/drawings';
import type { TaskHandles } from './Handles';
import { MainPlate } from './MainPlate';
import { PaneTitle } from './PaneTitle';
import {
  housePanes,
  paneFits,
  paneTitles,
  rowOf,
  stripHeight,
  timeRuleHeight,
  type HousePane,
  type PaneName,
} from '../compose/panes';
import { layOutPictures, showIn } from './picturesClient';
import { caption, layOut, type Slot } from '../compose/slots';
import { snapshotFrame } from '../compose/snapshots';
import { openTask } from '../compose/taskMarks';
import type { TimeTick } from '../compose/timeTick';
import { Tray } from './Tray';
import { Trouble } from './Trouble';

const TimeRule = lazy(() => import('./TimeRule'));
/** The table brings its list with it: fetched when it is first looked at. */
const PointTable = lazy(() => import('./PointTable').then((module) => ({ default: module.PointTable })));

/** A pane that the open task adds. */
export interface OwnPane {
  readonly name: string;
  readonly title: string;
  readonly sub?: string | undefined;
  /** What stands in it; a picture that the GPU draws where there is none. */
  readonly Content: ComponentType<{ size: Size }> | null;
  /** Saves the pane as a file, where it is no picture. */
  readonly save?: (() => void) | undefined;
  readonly place: 'row' | { readonly height: number };
  readonly world?: 'space' | 'flat' | undefined;
}

interface Props {
  readonly route: string;
  /** What stands beside the plan until the user wants something else there. */
  readonly corner: PaneName;
  readonly ownPanes: readonly OwnPane[];
  readonly ofTask?: TaskHandles | undefined;
  readonly onHit?: Looked['onHit'];
  readonly ticksOf: (now: Moment) => readonly TimeTick[];
}

/**
 * The camera's picture above, the row of panes below: the canvases, and what lies over them in the
 * page.
 */
export const Pictures = (props: Props) => (
  <Tempo value="still">
    <Centre {...props} />
  </Tempo>
);

function Centre({ route, corner, ownPanes: allPanes, ofTask, onHit, ticksOf }: Props) {
  const now = useMoment();
  const { frame, project, flat } = now;
  const { width, height } = frame.viewport;
  const enlarged = useSettings((state) => state.enlarged);
  const wanted = useSettings((state) => state.panes[route] ?? state.panes[everyTask]);
  const theme = themeInForce(useSettings((state) => state.theme));
  const folds = useSettings((state) => state.folds);
  const selected = useSelection((state) => state.ids);
  const answers = useStill((state) => state.answers);
  const done = useContext(FirstPaintDone);
  const box = useRef<HTMLElement>(null);
  const [size, setSize] = useState<Size>({ width: 720, height: 696 });

  useLayoutEffect(() => {
    const element = box.current!;
    const measure = () => {
      const next = { width: element.clientWidth, height: element.clientHeight };
      setSize((last) => (last.width === next.width && last.height === next.height ? last : next));
    };
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  useLayoutEffect(() => showIn(box.current!), []);

  const ownPanes = useMemo(
    () => allPanes.filter(({ world }) => !world || (world === 'flat') === flat),
    [allPanes, flat],
  );
  const known = useMemo(
    () => new Set<string>([...housePanes, ...ownPanes.filter(({ place }) => place === 'row').map(({ name }) => name)]),
    [ownPanes],
  );
  const row = useMemo(
    () =>
      rowOf(
        wanted?.filter((one) => known.has(one)),
        known.has(corner) ? corner : 'screens',
        flat,
      ),
    [wanted, known, corner, flat],
  );
  const alone =
    enlarged === 'main' || (enlarged !== null && known.has(enlarged) && paneFits(enlarged, flat)) ? enlarged : null;
  const below = ownPanes.find(({ place }) => place !== 'row');
  const belowHeight = below && below.place !== 'row' ? below.place.height : 0;
  const strip = stripHeight(project, belowHeight);
  const snapshotShown = useDrawings((state) => state.snapshot);
  const snapshot = snapshotShown && (project.snapshots.find(({ id }) => id === snapshotShown.id) ?? null);
  const how = snapshotShown?.how ?? 'beside';
  const then = snapshot && how === 'beside' ? snapshotFrame(snapshot, project) : null;
  const beside = then ? then.viewport.width / then.viewport.height : null;
  const slots = useMemo(
    () => layOut(size, { aspect: width / height, enlarged: alone, panes: row, strip, beside }),
    [size, width, height, alone, row, strip, beside],
  );
  const slotOf = (name: string) => slots.panes.find((one) => one.name === name)?.slot ?? unseen;
  const plan = useDrawingView('plan', slotOf('plan'));
  const section = useDrawingView('section', slotOf('section'));
  const outside = useOutsideView();
  // The screens follow when the camera rests: five more pictures would halve the pace of a drag.
  const rested = useAtRest(frame, 120);
  const shown = useMemo(() => ({ snapshot, how }), [snapshot, how]);
  useLayoutEffect(() => {
    layOutPictures({ route, size, slots, plan, section, outside, theme, rested, shown });
  }, [route, size, slots, plan, section, outside, theme, rested, shown]);
  const task = useCallback((at: Moment) => openTask(route, at, answers), [route, answers]);
  const looked: Looked = useMemo(
    () => ({ plan, section, outside, task, selected, folds, shown, ofTask, onHit }),
    [plan, section, outside, task, selected, folds, shown, ofTask, onHit],
  );

  const taskAtRest = task(useAtRest(now, 120));

  /** What a pane is called, and what it says of itself. */
  const titleOf = (name: PaneName): readonly [string, string] => {
    const own = ownPanes.find((one) => one.name === name);
    if (own) return [own.title, own.sub ?? ''];
    if (name === 'plan' && flat) return ['World', 'with what the camera sees'];
    if (name === 'plan' && project.ground)
      return ['Plan', `from above, grid ${gridStepOf(now.sceneBounds)} ${unitMark(project.unit)}`];
    return paneTitles[name as HousePane];
  };
  const content = (name: PaneName, slot: Slot): ReactNode => {
    const Own = ownPanes.find((one) => one.name === name)?.Content;
    // What a task shows in a pane of its own is read, and follows the hand as its worksheet does.
    if (Own)
      return (
        <Tempo value="sheet">
          <Own size={slot} />
        </Tempo>
      );
    if (name === 'screens')
      return done && <Tray size={slot} frame={rested} task={taskAtRest} selected={selected} folds={folds} />;
    if (name === 'points')
      return (
        done && (
          <Suspense>
            <Tempo value="now">
              <PointTable size={slot} />
            </Tempo>
          </Suspense>
        )
      );
    return (done || name === 'plan') && <Drawing name={name} slot={slot} looked={looked} title={titleOf(name)[0]} />;
  };
  const others = [...known].filter((one) => !row.includes(one) && paneFits(one, flat) && one !== 'plan');

  return (
    <main className="centre" ref={box} aria-label="Pictures">
      {slots.main && (
        <Block
          slot={slots.main}
          name="main"
          title="Through the camera"
          savable
          heading={
            <>
              <span className="main-title">Through the camera </span>
              <CameraMenu />
            </>
          }
          sub={null}
          facts={
            <Tempo value="strip">
              <CameraFacts />
            </Tempo>
          }
        >
          <MainPlate slot={slots.main} looked={looked} />
        </Block>
      )}
      {slots.beside && snapshot && <SnapshotPlate slot={slots.beside} name={snapshot.name} />}
      {slots.panes.map(({ name, slot }, i) => {
        const [title, sub] = titleOf(name);
        return (
          <Block
            key={name}
            slot={slot}
            name={name}
            title={title}
            heading={
              i > 0 && !alone ? (
                <PaneTitle route={route} row={row} place={i} others={others} titleOf={titleOf} />
              ) : undefined
            }
            sub={slot.width > 300 && sub}
            fits={name === 'plan' || name === 'section' || name === 'outside'}
            savable={name !== 'points' && !ownPanes.find((one) => one.name === name)?.Content}
            save={name === 'points' ? savePoints : ownPanes.find((one) => one.name === name)?.save}
          >
            {content(name, slot)}
          </Block>
        );
      })}
      {slots.strip && (
        <section
          className="strip-row"
          style={{ left: slots.strip.x, top: slots.strip.y, width: slots.strip.width, height: slots.strip.height }}
        >
          {strip > belowHeight && (
            <Suspense fallback={<div className="time-rule" style={{ height: timeRuleHeight }} />}>
              <TimeRule width={slots.strip.width} height={timeRuleHeight} ticksOf={ticksOf} />
            </Suspense>
          )}
          {below?.Content && (
            <section aria-label={below.title}>
              <Tempo value="sheet">
                <below.Content size={{ width: slots.strip.width, height: belowHeight }} />
              </Tempo>
            </section>
          )}
        </section>
      )}
      {slots.main && (
        <Tempo value="now">
          <Trouble left={slots.main.x} bottom={size.height - slots.main.y - caption - slots.main.height} />
        </Tempo>
      )}
    </main>
  );
}

/** Saves the point table; its writer of CSV loads on demand. */
const savePoints = (): void => void import('../../edits/pointTable').then(({ savePointTable }) => savePointTable());

const unseen: Slot = { x: 0, y: 0, width: 100, height: 100 };

/** A value once it has been the same for a while. */
function useAtRest<T>(value: T, milliseconds: number): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setRested(value), milliseconds);
    return () => clearTimeout(timer);
  }, [value, milliseconds]);
  return rested;
}
