/*
 * Draws the sprites and tiles of the demo “Saltmarrow quay” and writes them as PNG to demo/quayImages.ts.
 * `node scripts/sprites.mjs`
 */
import { writeFileSync } from 'node:fs';
import { encode } from 'fast-png';
import { at } from './lib/fresh.mjs';

const colours = {
  '.': null,
  k: '#2b2a33',
  w: '#f2efe4',
  W: '#d9d2bf',
  s: '#b9b2a1',
  S: '#968f7e',
  d: '#746e61',
  b: '#b5814f',
  B: '#8a5c38',
  D: '#63412a',
  r: '#b4533f',
  R: '#8c3d31',
  n: '#3f7f86',
  N: '#2c5f66',
  y: '#e2b04a',
  Y: '#b98a30',
  f: '#e3b18a',
  g: '#7ba05c',
  G: '#5b8248',
  u: '#4f7fa8',
  U: '#3b648c',
  c: '#6f9fc0',
  l: '#f8e7a8',
};

/** A picture of characters, each a colour. */
class Art {
  constructor(width, height, fill = '.') {
    Object.assign(this, { width, height, cells: Array.from({ length: height }, () => Array(width).fill(fill)) });
  }
  static of(rows) {
    const art = new Art(rows[0].length, rows.length);
    art.cells = rows.map((row) => [...row]);
    return art;
  }
  dot(x, y, colour) {
    if (x >= 0 && y >= 0 && x < this.width && y < this.height) this.cells[y][x] = colour;
    return this;
  }
  fill(x, y, width, height, colour) {
    for (let j = y; j < y + height; j++) for (let i = x; i < x + width; i++) this.dot(i, j, colour);
    return this;
  }
  frame(x, y, width, height, colour, inside) {
    return this.fill(x, y, width, height, colour).fill(x + 1, y + 1, width - 2, height - 2, inside);
  }
  png() {
    const data = new Uint8Array(4 * this.width * this.height);
    this.cells.flat().forEach((character, i) => {
      const colour = colours[character];
      if (colour) data.set([1, 3, 5].map((k) => parseInt(colour.slice(k, k + 2), 16)).concat(255), 4 * i);
    });
    return encode({ width: this.width, height: this.height, data, channels: 4, depth: 8 });
  }
}

/** Repeatable numbers in 0…1. */
function dice(seed) {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

function water(seed) {
  const roll = dice(seed);
  const art = new Art(16, 16, 'u');
  for (let i = 0; i < 5; i++) {
    const [x, y, length] = [Math.floor(roll() * 11), Math.floor(roll() * 16), 2 + Math.floor(roll() * 4)];
    art.fill(x, y, length, 1, roll() < 0.5 ? 'c' : 'U');
  }
  return art;
}

function planks() {
  const art = new Art(16, 16, 'b');
  for (let y = 3; y < 16; y += 4) art.fill(0, y, 16, 1, 'D');
  for (const [x, y] of [
    [5, 0],
    [13, 4],
    [2, 8],
    [9, 12],
  ])
    art.fill(x, y, 1, 3, 'B').dot(x + 1, y + 1, 'B');
  return art;
}

function cobbles(seed) {
  const roll = dice(seed);
  const art = new Art(16, 16, 'S');
  for (let row = 0; row < 4; row++)
    for (let column = -1; column < 4; column++) {
      const x = 4 * column + (row % 2) * 2;
      art.fill(x, 4 * row, 3, 3, roll() < 0.25 ? 'W' : 's').dot(x, 4 * row, 'S');
    }
  return art;
}

/** The wall of the quay: stone above water. */
function wall() {
  const art = new Art(16, 16, 'd');
  art.fill(0, 0, 16, 3, 'W').fill(0, 3, 16, 1, 'S');
  for (const [y, shift] of [
    [7, 0],
    [11, 4],
  ]) {
    art.fill(0, y, 16, 1, 'k');
    for (let x = shift; x < 16; x += 8) art.fill(x, y - 3, 1, 3, 'k');
  }
  return art.fill(0, 13, 16, 3, 'N').fill(0, 15, 16, 1, 'U');
}

function grass(seed) {
  const roll = dice(seed);
  const art = new Art(16, 16, 'g');
  for (let i = 0; i < 14; i++) art.fill(Math.floor(roll() * 16), Math.floor(roll() * 15), 1, 2, 'G');
  return art;
}

const fisher = Art.of([
  '....kkkk....',
  '...kyyyyk...',
  '..kyyyyyyk..',
  '.kkkkkkkkkk.',
  '...kffffk...',
  '...kfkfkk...',
  '...kffffk...',
  '....kffk....',
  '..kkyyyykk..',
  '.kyyyyyyyyk.',
  '.kyykyykyyk.',
  '.kfkyyyykfk.',
  '.kfkyyyykfk.',
  '..kkYYYYkk..',
  '...kUUUUk...',
  '...kUkkUk...',
  '...kUkkUk...',
  '...kBkkBk...',
  '..kBBkkBBk..',
  '..kkkkkkkk..',
]);
const keeper = Art.of(
  fisher.cells.map((row) => row.join('').replaceAll('y', 'r').replaceAll('Y', 'R').replaceAll('U', 'd')),
);
const gull = Art.of([
  '....kkk.....',
  '...kwwwk....',
  '..kwwkwkyy..',
  '..kwwwwk....',
  '.kswwwwk....',
  'kssswwwwk...',
  'kksssswwk...',
  '..kkwwwk....',
  '....ykyk....',
  '....y.y.....',
]);
const barrel = Art.of([
  '...kkkkkk...',
  '.kkBBBBBBkk.',
  'kBDDDDDDDDBk',
  'kbBBBBBBBBbk',
  'kssssssssssk',
  'kbbBbbBbbBbk',
  'kbbBbbBbbBbk',
  'kbbBbbBbbBbk',
  'kbbBbbBbbBbk',
  'kbbBbbBbbBbk',
  'kssssssssssk',
  'kbbBbbBbbBbk',
  'kbBBbBBbBBbk',
  '.kBBBBBBBBk.',
  '..kkkkkkkk..',
]);
const bollard = Art.of([
  '..kkkkkk..',
  '.kddddddk.',
  'kdsddddddk',
  'kddddddddk',
  '.kddddddk.',
  '..kdsddk..',
  '..kdsddk..',
  '..kdsddk..',
  '.kddsdddk.',
  '.kddddddk.',
  '..kkkkkk..',
]);

function crate() {
  const art = new Art(16, 18).frame(0, 0, 16, 18, 'k', 'b').fill(1, 1, 14, 4, 'W').fill(1, 5, 14, 1, 'k');
  // Fish on top.
  for (const x of [2, 6, 10])
    art
      .fill(x, 2, 3, 2, 'c')
      .dot(x + 3, 2, 'U')
      .dot(x, 2, 'k');
  for (const y of [9, 13]) art.fill(1, y, 14, 1, 'D');
  return art.fill(3, 6, 2, 11, 'B').fill(11, 6, 2, 11, 'B');
}

function lamp() {
  const art = new Art(12, 44);
  art.fill(4, 0, 4, 1, 'k').fill(3, 1, 6, 1, 'k').frame(2, 2, 8, 9, 'k', 'l').fill(5, 3, 2, 7, 'w');
  art.fill(3, 11, 6, 1, 'k').fill(5, 12, 2, 28, 'k').fill(5, 12, 1, 28, 'd');
  return art.fill(3, 40, 6, 2, 'k').fill(2, 42, 8, 2, 'k').fill(3, 42, 3, 1, 'd');
}

function shed() {
  const [width, height] = [72, 60];
  const art = new Art(width, height);
  // The roof: rows of tiles, wider downwards.
  for (let y = 0; y < 28; y++) {
    const inset = Math.max(0, 8 - Math.floor(y / 3));
    art.fill(inset, y, width - 2 * inset, 1, 'k');
    if (y === 0) continue;
    art.fill(inset + 1, y, width - 2 * inset - 2, 1, y % 4 === 3 ? 'R' : 'r');
    if (y % 4 !== 3)
      for (let x = inset + 2 + (Math.floor(y / 4) % 2) * 3; x < width - inset - 1; x += 6) art.dot(x, y, 'R');
  }
  art.fill(0, 28, width, 2, 'k');
  // The wall: white boards.
  art
    .fill(3, 30, width - 6, 30, 'k')
    .fill(4, 30, width - 8, 29, 'w')
    .fill(4, 30, width - 8, 3, 's');
  for (let x = 9; x < width - 5; x += 6) art.fill(x, 33, 1, 26, 'W');
  art
    .frame(28, 36, 16, 24, 'k', 'n')
    .fill(35, 37, 1, 22, 'N')
    .fill(36, 37, 1, 22, 'k')
    .dot(33, 48, 'y')
    .dot(39, 48, 'y');
  for (const x of [9, 51]) art.frame(x, 38, 12, 11, 'k', 'c').fill(x + 6, 39, 1, 9, 'k').fill(x + 1, 43, 10, 1, 'k').fill(x + 2, 40, 3, 1, 'w'); // prettier-ignore
  return art;
}

function boat() {
  const [width, height] = [56, 24];
  const art = new Art(width, height);
  for (let y = 0; y < height; y++) {
    // An ellipse with straight sides, its bow to the right.
    const t = (y + 0.5 - height / 2) / (height / 2);
    const right = Math.round((width - 1) * (1 - 0.42 * t * t));
    const left = Math.round(3 * t * t);
    art.fill(left, y, right - left + 1, 1, 'k');
    if (y > 0 && y < height - 1) art.fill(left + 1, y, right - left - 1, 1, y > height - 6 ? 'N' : 'n');
  }
  for (let y = 4; y < height - 7; y++) {
    const t = (y + 0.5 - (height - 3) / 2) / (height / 2);
    const right = Math.round((width - 8) * (1 - 0.42 * t * t));
    art.fill(4, y, right - 4, 1, 'B');
    if (y % 3 === 0) art.fill(4, y, right - 4, 1, 'D');
  }
  for (const x of [12, 26, 38]) art.fill(x, 4, 4, height - 11, 'b').fill(x + 4, 4, 1, height - 11, 'D');
  return art;
}

function pine() {
  const [width, height] = [28, 44];
  const art = new Art(width, height).fill(12, 36, 4, 8, 'D').fill(12, 36, 1, 8, 'k').fill(15, 36, 1, 8, 'k');
  for (const [top, rows, widest] of [
    [18, 20, 26],
    [9, 16, 20],
    [0, 14, 14],
  ])
    for (let i = 0; i < rows; i++) {
      const half = Math.max(1, Math.round(((i + 1) / rows) * (widest / 2)));
      art.fill(14 - half, top + i, 2 * half, 1, 'k');
      if (half > 1) art.fill(15 - half, top + i, 2 * half - 2, 1, 'G').fill(14 - Math.floor(half / 2), top + i, Math.ceil(half * 0.8), 1, 'g'); // prettier-ignore
    }
  return art;
}

const images = {
  'water-1': ['Water 1', water(7)],
  'water-2': ['Water 2', water(21)],
  planks: ['Planks', planks()],
  'cobbles-1': ['Cobbles 1', cobbles(3)],
  'cobbles-2': ['Cobbles 2', cobbles(11)],
  wall: ['Quay wall', wall()],
  grass: ['Grass', grass(5)],
  fisher: ['Fisher', fisher],
  keeper: ['Harbour keeper', keeper],
  gull: ['Gull', gull],
  barrel: ['Barrel', barrel],
  bollard: ['Bollard', bollard],
  crate: ['Crate of fish', crate()],
  lamp: ['Lamp post', lamp()],
  shed: ['Net shed', shed()],
  boat: ['Rowing boat', boat()],
  pine: ['Pine', pine()],
};

const entries = Object.entries(images).map(([id, [name, art]]) => {
  const png = Buffer.from(art.png()).toString('base64');
  return `  { id: '${id}', name: '${name}', width: ${art.width}, height: ${art.height}, png: '${png}' },`;
});
writeFileSync(
  at('demo/quayImages.ts'),
  `/* Generated by scripts/sprites.mjs. */\n\n// prettier-ignore\nexport const quayImages = [\n${entries.join('\n')}\n] as const;\n`,
);
