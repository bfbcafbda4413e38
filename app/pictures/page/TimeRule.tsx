import './TimeRule.css';
import { ticks } from 'd3-array';
import { useDrag } from '@use-gesture/react';
import { useEffect, useId, useRef, type ComponentType, type KeyboardEvent } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { pause, setTime, stepFrames, togglePlay, useClock } from '../../state/clock';
import { endGesture } from '../../state/document';
import type { Moment } from '../../state/moment';
import { spanOf } from '../../state/span';
import { useMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { Loop, NextFrame, Pause, Play, PreviousFrame, ToEnd, ToStart } from '../../ui/icons';
import type { TimeTick } from '../compose/timeTick';

/** Room for the buttons at the left of the rule, and for the figure at its right. */
const buttons = 200;
const right = 72;

const rates = [0.25, 0.5, 1, 2, 4] as const;

/** The time rule: a ruler of seconds, the moment a lozenge on it; play, step, loop, rate. */
export default function TimeRule({
  width,
  height,
  ticksOf,
}: {
  width: number;
  height: number;
  ticksOf: (now: Moment) => readonly TimeTick[];
}) {
  const { playing, rate, loop, span } = useClock(
    useShallow(({ playing, rate, loop, span }) => ({ playing, rate, loop, span })),
  );
  const now = useMoment();
  // The rule ends where the longest of what moves has come round.
  const wanted = spanOf(now.project);
  useEffect(() => useClock.setState({ span: wanted }), [wanted]);
  const tickList = ticksOf(now);
  const events = tickList.filter(({ move, time }) => !move && time <= span);
  const long = Math.max(40, width - buttons - right);
  const at = (time: number) => (time / span) * long;
  const marks = ticks(0, span, Math.max(2, Math.floor(long / 56)));
  const step = marks.length > 1 ? marks[1]! - marks[0]! : span;
  const fine = ticks(0, span, marks.length * 5);
  return (
    <div className="time-rule" role="group" aria-label="Time" data-moves="time" style={{ height }}>
      <span className="time-buttons">
        <Tool name="To the start" keys="Home" run={() => setTime(0)} Icon={ToStart} />
        <Tool name="Previous frame" keys="Shift ←" run={() => stepFrames(-1)} Icon={PreviousFrame} />
        <button
          className="tool"
          aria-label={playing ? 'Pause' : 'Play'}
          title={playing ? 'Pause (Space)' : 'Play (Space)'}
          onClick={togglePlay}
        >
          {playing ? <Pause /> : <Play />}
        </button>
        <Tool name="Next frame" keys="Shift →" run={() => stepFrames(1)} Icon={NextFrame} />
        <Tool name="To the end" keys="End" run={() => setTime(span)} Icon={ToEnd} />
        <button
          className="tool"
          aria-label="Begin again at the end"
          aria-pressed={loop}
          title={loop ? 'Begins again at the end' : 'Stops at the end'}
          onClick={() => useClock.setState({ loop: !loop })}
        >
          <Loop />
        </button>
        <button
          className="time-rate"
          aria-label={`Rate: ${rate} times`}
          title="Seconds of the clock to a second"
          onClick={() => useClock.setState({ rate: rates[(rates.indexOf(rate as 1) + 1) % rates.length]! })}
        >
          {rate}×
        </button>
      </span>
      <svg className="overlay time-scale" width={long + 16} height={height} style={{ left: buttons - 8, top: 0 }}>
        <g transform="translate(8 0)">
          <path className="ink-ruler-border" d={`M0 22.5H${long}`} fill="none" />
          <path className="ink-ruler-ticks" d={fine.map((t) => `M${at(t).toFixed(2)} 22v-4`).join('')} />
          <path className="ink-ruler-ticks" d={marks.map((t) => `M${at(t).toFixed(2)} 22v-8`).join('')} />
          {marks.map((t) => (
            <text key={t} className="ink-ruler-figure" x={at(t)} y="38" textAnchor="middle">
              {figure(t, Number.isInteger(step) ? 0 : 1)}
            </text>
          ))}
          <path className="time-events" d={events.map(({ time }) => `M${at(time).toFixed(2)} 22v-11`).join('')} />
          <TimeMoment long={long} span={span} />
          {tickList.map(
            (tick, i) => tick.move && tick.time <= span && <TickKey key={i} tick={tick} long={long} span={span} />,
          )}
        </g>
      </svg>
      <TimeFigure />
    </div>
  );
}

/** A button of the time rule that stops the clock, with its key on the slider. */
function Tool({ name, keys, run, Icon }: { name: string; keys: string; run: () => void; Icon: ComponentType }) {
  const stopAndRun = () => {
    pause();
    run();
  };
  return (
    <button className="tool" aria-label={name} title={`${name} (${keys})`} onClick={stopAndRun}>
      <Icon />
    </button>
  );
}

/**
 * The moment on the rule: dragged, or moved with the arrow keys. Follows the clock, which is no
 * part of the document.
 */
function TimeMoment({ long, span }: { long: number; span: number }) {
  const time = useClock((state) => state.time);
  const start = useRef(0);
  const bind = useDrag(
    ({ first, movement: [dx], event }) => {
      event.stopPropagation();
      if (first) {
        pause();
        start.current = useClock.getState().time;
      }
      setTime(start.current + (dx / long) * span);
    },
    { pointer: { keys: false, buttons: 1 } },
  );
  const x = (time / span) * long;
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    const end = { Home: 0, End: span }[event.key];
    if (by === undefined && end === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    if (by !== undefined) return stepFrames(by * (event.shiftKey ? 10 : 1));
    pause();
    setTime(end!);
  };
  return (
    <>
      <rect
        className="time-track"
        x="0"
        y="8"
        width={long}
        height="22"
        onPointerDown={(event) => {
          const { left } = event.currentTarget.getBoundingClientRect();
          pause();
          setTime(((event.clientX - left) / long) * span);
        }}
      />
      <g
        {...bind()}
        className="time-moment"
        role="slider"
        tabIndex={0}
        aria-label="The moment"
        aria-valuemin={0}
        aria-valuemax={span}
        aria-valuenow={Number(time.toFixed(3))}
        aria-valuetext={`${figure(time, 2)} seconds`}
        onKeyDown={onKeyDown}
      >
        <path className="time-hair" d={`M${x.toFixed(2)} 6V30`} />
        <path className="time-lozenge" d={`M${x.toFixed(2)} 8.5l6.5 7-6.5 7-6.5-7Z`} />
      </g>
    </>
  );
}

/** A key on the rule: dragged to another time, or moved with the arrow keys; one gesture is one step of undo. */
function TickKey({ tick, long, span }: { tick: TimeTick; long: number; span: number }) {
  const id = useId();
  const count = useRef(0);
  const start = useRef(0);
  const { time, name, move } = tick;
  const go = (to: number) => move!(Math.max(0, Math.min(span, Number(to.toFixed(3)))), `${id} ${count.current}`);
  const bind = useDrag(
    ({ first, last, movement: [dx], event }) => {
      event.stopPropagation();
      if (first) start.current = time;
      go(start.current + (dx / long) * span);
      if (last) {
        count.current++;
        endGesture();
      }
    },
    { pointer: { keys: false, buttons: 1 }, threshold: 2 },
  );
  const x = (time / span) * long;
  return (
    <g
      {...bind()}
      className="time-key"
      role="slider"
      tabIndex={0}
      aria-label={`Move ${name}`}
      aria-valuemin={0}
      aria-valuemax={span}
      aria-valuenow={time}
      aria-valuetext={`${figure(time, 2)} seconds`}
      onKeyDown={(event) => {
        const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
        if (by === undefined) return;
        event.preventDefault();
        event.stopPropagation();
        go(time + by * (event.shiftKey ? 1 : 0.1));
        count.current++;
        endGesture();
      }}
    >
      <title>{name}</title>
      <path d={`M${x.toFixed(2)} 17l4.5 5-4.5 5-4.5-5Z`} />
    </g>
  );
}

function TimeFigure() {
  const time = useClock((state) => state.time);
  return (
    <output className="time-figure" aria-label="Time in seconds">
      {figure(time, 2)} s
    </output>
  );
}
