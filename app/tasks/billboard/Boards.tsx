import { tiltOf } from '../../../core/billboard/billboard';
import { worldUp } from '../../../core/camera/orientation';
import { DataList, type ListColumn } from '../../sheet/DataList';
import { useTaskMoment } from '../../state/tempo';
import { NameField } from '../../ui/NameField';
import { chosenOf, placeOf } from './boards';
import { addBoard, attach, change, changeBoard, lookDown, removeBoard } from './edits';
import { Field } from './fields';
import { modes, mostBoards, type BillboardState } from './kept';
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
  const { slice, project, flat, frame, codec: e } = now;
  const board = chosenOf(slice);
  const chosen = slice.boards.indexOf(board!);
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
            <Field at={['boards', chosen, 'at']} width="33%" />
          </div>
          <div className="row">
            <span className="label">Size</span>
            <Field at={['boards', chosen, 'size', 0]} />
            <Field at={['boards', chosen, 'size', 1]} />
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
                <Field at={['boards', chosen, 'axis']} width="33%" />
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
