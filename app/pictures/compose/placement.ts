import type { Word } from './contract';
import { inkStyles } from './inks';
import { around, place, textWidth, type Label, type Rect } from './labels';
import { n2, type Mark } from './marks';

/*
 * The one placement of the words of a picture: those of the house and those of the task together.
 */

interface Placing extends Label {
  readonly word: Word;
}

const monospaced = (word: Word): boolean => word.mono ?? inkStyles[word.ink].font?.face === 'mono';

const placing = (word: Word, i: number): Placing => ({
  ...{ key: String(i), x: word.at[0], y: word.at[1], spots: word.spots ?? around, word },
  width: textWidth(word.text, monospaced(word)),
});

/**
 * What came of placing: the marks of the words, the room that they take, and the words that found
 * none.
 */
export interface PlacedWords {
  readonly marks: readonly Mark[];
  readonly boxes: readonly Rect[];
  readonly placed: ReadonlySet<Word>;
}

/** Places words by their priority within bounds, none touching another nor what is taken. */
export function placeWords(words: readonly Word[], bounds: Rect, taken: readonly Rect[]): PlacedWords {
  const sorted = [...words].sort((a, b) => a.priority - b.priority).map(placing);
  const { placed } = place(sorted, bounds, taken);
  const marks = placed.flatMap(({ label: { word }, at: { x, y }, spot, box }): Mark[] => {
    const text: Mark = { ink: word.ink, x, y, anchor: spot.anchor, text: word.text };
    if (!word.leader) return [text];
    const [px, py] = word.at;
    const end = spot.anchor === 'end' ? box.x + box.width - 1 : box.x + 1;
    return [
      { ink: 'leader', d: `M${n2(px)} ${n2(py)}L${n2(end)} ${n2(y - 4)}` },
      { ink: 'leader-dot', x: px - 1, y: py - 1, d: 'M0 0h2v2h-2Z' },
      text,
    ];
  });
  return { marks, boxes: placed.map(({ box }) => box), placed: new Set(placed.map(({ label }) => label.word)) };
}
