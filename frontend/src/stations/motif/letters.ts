import { goesTo, pressNamed, presses, type KeyAction } from "../../shared/ui/keys";

/** The letters on an open motif. */
export const OF_MOTIF: KeyAction[] = [
  presses("d", "draw", "Draw"),
  { letter: "h", words: "dark or light ground", act: () => void (pressNamed("Dark ground") || pressNamed("Light ground")) },
  presses("c", "cut and frame", "Cut and frame"),
  presses("s", "shapes", "Shapes"),
  presses("p", "points", "Points"),
  presses("i", "paint", "Paint"),
  presses("e", "soft edge", "Soft edge"),
  presses("f", "find the best cut", "Find the best cut"),
  presses("o", "find the repeat", "Find the repeat"),
  presses("l", "quarter left", "Quarter left"),
  presses("r", "quarter right", "Quarter right"),
  goesTo("n", "name of the motif", "Name of the motif"),
  presses("t", "take as SVG", "Take as SVG"),
  presses("j", "duplicate", "Duplicate"),
];

/** The letters while a picture is made a motif. */
export const OF_PICTURE: KeyAction[] = [
  presses("m", "make the motif", "Make the motif"),
  presses("h", "nothing turns clear", "nothing"),
  presses("g", "the background turns clear", "the background"),
  presses("o", "its holes too", "holes too"),
  goesTo("t", "tolerance", "Tolerance"),
  presses("r", "pull a region", "Region"),
  presses("i", "mark what belongs", "Belongs"),
  presses("x", "mark what does not", "Does not belong"),
  presses("c", "its colours", "its colours"),
  presses("s", "a stencil", "a stencil"),
  presses("k", "keep the picture", "no, keep the picture"),
  presses("p", "trace ink and ground", "ink and ground"),
  goesTo("l", "length of the motif", "Length of the motif"),
  goesTo("n", "name of the motif", "Name of the new motif"),
  presses("v", "leave the picture", "Leave the picture"),
];
