/** Where the plot of a chart lies in it, pixels from its sides: room for the figures of the axes. */
export const plotInsets = { left: 50, right: 14, top: 6, bottom: 30 } as const;
