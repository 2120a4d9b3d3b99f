package sharpkestrel.demo.light;

/** How a second spectrum is laid over a surface's first. */
public enum Pattern {
  /** Nothing but patches and grain. */
  PLAIN,
  /** Ribbed sheets with stains that run down the slope: rust, lichen. */
  SHEETS,
  /** Rows of slates, some of them slipped or overgrown. */
  COURSES,
  /** Tufts: grass on a roof, drier on the ridge side. */
  TUFTS,
  /** Rows of windows on a wall. */
  WINDOWS,
  /** Panes between bars. */
  PANES,
  /** A rim of the second spectrum round the edge of a plan: gunwales, parapets. */
  RIM,
  /** Stripes across the direction: log ends, planks, hoops. */
  STRIPES,
  /** Parking bays or queueing lanes: lines of the second spectrum. */
  LANES
}
