import type { CameraFrame } from '../../../core/camera/frame';
import type { Vec2 } from '../../../core/math/vec3';
import type { DrawingView, OutsideView } from '../../state/drawings';
import type { Theme } from '../../ui/themes';
import type { Seen } from '../../state/moment';
import type { Size } from './contract';
import type { ImageAtlas } from './imageAtlas';
import type { Slots } from './slots';
import type { Shown } from './snapshots';

/** View settings: everything except the project that the pictures depend on. */
export interface PicturesInput {
  /** What the camera sees where it cannot be as it is; null where that follows from the project. */
  readonly seen: Seen | null;
  /** Seconds, by the clock. */
  readonly time: number;
  /** The centre, in CSS pixels, and how many device pixels one of them is. */
  readonly size: Size;
  readonly pixel: number;
  readonly slots: Slots;
  readonly plan: DrawingView;
  readonly section: DrawingView;
  readonly outside: OutsideView;
  readonly theme: Theme;
  /** The task's. */
  readonly route: string;
  /** What its jobs have found. */
  readonly answers: Readonly<Record<string, unknown>>;
  /** What the screens of the tray show: the camera when it last rested. */
  readonly rested: CameraFrame;
  /** The snapshot that is shown beside the present frame. */
  readonly shown: Shown;
  /** The table's points. */
  readonly table: Float64Array | null;
  readonly selected: readonly string[];
  /** Parts of the worksheet that the user has opened or closed. */
  readonly folds: Readonly<Record<string, boolean>>;
  /** The pointer, in CSS pixels of the viewport. */
  readonly css: Vec2;
  /** Whether marks are painted over the pictures. The pointer's marks always are. */
  readonly isPainting: boolean;
  /** Whether marks are sent to the page, which sets them as SVG. */
  readonly isSending: boolean;
  /** The images of the project, which the painter decodes; null until they are decoded. */
  readonly images?: ImageAtlas | null;
}
