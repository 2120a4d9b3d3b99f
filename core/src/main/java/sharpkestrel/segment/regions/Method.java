package sharpkestrel.segment.regions;

/** Ways of dividing a scene into regions. */
public enum Method {
  MERGE_TREE,
  MEAN_SHIFT,
  WATERSHED,
  SLIC,
  GRAPH,
  CUT_VALUES,
  NUMBERS,
  OUTLINES,
  GRID
}
