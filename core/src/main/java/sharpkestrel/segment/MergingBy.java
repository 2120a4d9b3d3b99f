package sharpkestrel.segment;

/** What tells which neighbours merge first. */
public enum MergingBy {
  LIKENESS,
  LEARNED
}
