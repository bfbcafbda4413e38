import { create } from 'zustand';

/**
 * The bodies that are selected, by the ids of their outermost ancestors. No part of the document:
 * what is looked at is no change.
 */
export const useSelection = create<{ ids: readonly string[] }>(() => ({ ids: [] }));

export const toggleSelected = (id: string): void =>
  useSelection.setState(({ ids }) => ({
    ids: ids.includes(id) ? ids.filter((one) => one !== id) : [...ids, id],
  }));

export const selectNothing = (): void => useSelection.setState({ ids: [] });
