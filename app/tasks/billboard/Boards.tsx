import { tiltOf } from '../../../core/billboard/billboard';
import { worldUp } from '../../../core/camera/orientation';
import { DataList, type ListColumn } from '../../sheet/DataList';
import { NumberField } from '../../sheet/NumberField';
import { useTaskMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { NameField } from '../../ui/NameField';
import { lengths } from '../../ui/parseNumber';
import { chosenOf, placeOf } from './boards';
import { addBoard, attach, change, changeBoard, lookDown, removeBoard } from './edits';
import { modes, mostBoards, type BillboardState } from './state';
import { modeWords } from './words';

interface Row {
  readonly id: string;
  readonly name: string;
  readonly mode: string;
  readonly body: string | null;
  /** On the screen, from straight up; degrees. */
  readonly lean: number | null;
}

/** The boards, and the one that is chosen. */
export function Boards() {
  const now = useTaskMoment<BillboardState>('billboard');
  const { slice, project, flat, points: form, frame, codec: e } = now;
  const board = chosenOf(slice);
  const rows = slice.boards.map((one): Row => {
    const place = placeOf(now, one);
    const lean = place && !flat ? tiltOf(frame, place, worldUp) : null;
    return {
      ...{ id: one.id, name: one.name, mode: modeWords[one.mode].short, body: one.body },
      lean: lean?.ok ? e.toAngle(lean.value) : null,
    };
  });
  const columns: readonly ListColumn<Row>[] = [
    { name: 'Board', width: '1fr', value: ({ name }) => name },
    ...(flat
      ? []
      : [
          { name: 'mode', width: '76px', value: ({ mode }: Row) => mode },
          {
            name: 'lean',
            width: '50px',
            value: ({ lean }: Row) => lean,
            decimals: e.conventions.angles.unit === 'degrees' ? 1 : 3,
          },
        ]),
  ];
  return (
    <>
      <DataList
        name="boards"
        rows={rows}
        keyOf={({ id }) => id}
        columns={columns}
        bodiesOf={({ body }) => (body === null ? [] : [body])}
        chosen={slice.chosen}
        onChoose={({ id }) => change('choose a board', (draft) => void (draft.chosen = id))}
        most={6}
        empty="There are no boards. Add one."
      />
      <div className="row mt-1">
        <button className="plain-button" disabled={slice.boards.length >= mostBoards} onClick={addBoard}>
          Add a board
        </button>
        <button className="plain-button" disabled={!board} onClick={removeBoard}>
          Delete it
        </button>
      </div>
      {slice.boards.length >= mostBoards && (
        <p className="warning">There are {mostBoards} boards, and no more are taken.</p>
      )}
      {board && (
        <>
          <div className="row">
            <span className="label">Name</span>
            <NameField
              name="Name of the board"
              value={board.name}
              onChange={(name) => changeBoard('rename a board', (draft) => void (draft.name = name))}
            />
          </div>
          <div className="row">
            <span className="label">Text</span>
            <NameField
              name="Lettering of the board"
              value={board.text}
              onChange={(text) => changeBoard('letter a board', (draft) => void (draft.text = text.slice(0, 40)))}
            />
          </div>
          <div className="row">
            <span className="label">With</span>
            <select
              className="select"
              aria-label="The body that the board goes with"
              value={board.body ?? ''}
              onChange={({ target }) => attach(target.value || null)}
            >
              <option value="">nothing, it stands in the world</option>
              {project.bodies.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          </div>
          <div className="row">
            <span
              className="label"
              title={board.body === null ? 'In the world' : 'From the body’s origin, along the world’s axes'}
            >
              At
            </span>
            {form.show(board.at).map((v, i, list) => (
              <NumberField
                key={i}
                label={form.letters[i]!}
                name={`Board ${form.letters[i]}`}
                source={i === 0 ? 'board' : undefined}
                width="33%"
                value={v}
                shown={(n) => figure(n, 1)}
                units={lengths}
                onChange={(n, gesture) =>
                  changeBoard(
                    'move a board',
                    (draft) => void (draft.at = [...form.read(list.map((old, k) => (k === i ? n : old)))]),
                    gesture,
                  )
                }
              />
            ))}
          </div>
          <div className="row">
            <span className="label">Size</span>
            {(['width', 'height'] as const).map((side, i) => (
              <NumberField
                key={side}
                name={`Board ${side}`}
                label={side}
                width="50%"
                value={board.size[i]!}
                units={lengths}
                refuse={(v) => (v > 0 ? null : `A board’s ${side} is above 0.`)}
                onChange={(v, gesture) => changeBoard('size a board', (draft) => void (draft.size[i] = v), gesture)}
              />
            ))}
          </div>
          {!flat && (
            <>
              <div className="row">
                <span className="label">Mode</span>
                <select
                  className="select"
                  aria-label="Mode of the board"
                  value={board.mode}
                  title={modeWords[board.mode].says}
                  onChange={({ target }) =>
                    changeBoard(
                      'change the mode of a board',
                      (draft) => void (draft.mode = target.value as typeof board.mode),
                    )
                  }
                >
                  {modes.map((mode) => (
                    <option key={mode} value={mode}>
                      {modeWords[mode].name}
                    </option>
                  ))}
                </select>
              </div>
              <div className="row">
                <span className="label">Axis</span>
                {form.show(board.axis).map((v, i, list) => (
                  <NumberField
                    key={i}
                    label={form.letters[i]!}
                    name={`Axis of the board ${form.letters[i]}`}
                    source={i === 0 ? 'axis' : undefined}
                    width="33%"
                    value={v}
                    shown={(n) => figure(n, 2)}
                    refuse={(n) => (list.some((old, k) => (k === i ? n : old) !== 0) ? null : 'An axis has a length.')}
                    onChange={(n, gesture) =>
                      changeBoard(
                        'turn the axis of a board',
                        (draft) => void (draft.axis = [...form.read(list.map((old, k) => (k === i ? n : old)))]),
                        gesture,
                      )
                    }
                  />
                ))}
              </div>
              <button className="plain-button mt-1" onClick={lookDown}>
                Look steeply down on it
              </button>
            </>
          )}
        </>
      )}
    </>
  );
}
