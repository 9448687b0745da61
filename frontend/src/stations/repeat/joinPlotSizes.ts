/** The plot's height and the room about its axes, px. */
export const HEIGHT = 92;
export const ROOM = { left: 44, right: 40, top: 16, foot: 14 };
