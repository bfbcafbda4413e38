/** Takes an item of a list to another place in it: what `OrderList` asks for. */
export function moveTo<Item>(list: Item[], item: Item, to: number): void {
  list.splice(list.indexOf(item), 1);
  list.splice(Math.max(0, Math.min(list.length, to)), 0, item);
}
