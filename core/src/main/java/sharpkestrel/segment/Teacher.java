package sharpkestrel.segment;

import java.util.SplittableRandom;
import sharpkestrel.segment.learn.Lessons;

/**
 * Watches regions merge and notes which pairs came to it, what they looked like, and whether they should: those that are
 * mostly in the same outline should, those in different ones, or one in an outline and one in none, should not. Of pairs outside
 * of all outlines a few are taken as ones that should, so that the rest of the scene goes on merging as it would. A merge that should not be is mostly refused, so that later pairs are worth learning from;
 * some are let through, as a network makes such mistakes too and must go on from them (after Nunez-Iglesias, Kennedy, Parag,
 * Shi and Chklovskii 2013, PLoS ONE 8(8), e71715).
 */
final class Teacher {

  /** Large regions count more, up to this. */
  private static final double MOST_WEIGHT = 6;

  /** Share of the merges after which what is left is larger than things. */
  private static final double ENOUGH = 0.985;

  /** Share of the pairs outside of all outlines that are lessons, and what each of them counts. */
  private static final double OUTSIDE = 0.02;

  private static final double OUTSIDE_WEIGHT = 0.3;

  private final int[] outlineOf;
  private final PairEvidence evidence;
  private final double usualPixels;
  private final double refused;
  private final SplittableRandom random;
  private final Lessons lessons = new Lessons(PairEvidence.NAMES.size());
  private final float[] pair = new float[PairEvidence.NAMES.size()];

  /**
   * @param outlineOf for each region the outline that it mostly lies in, from 1 on; 0 for none
   * @param usualPixels of a region at the start
   * @param refused share of the wrong merges that are not made
   */
  Teacher(int[] outlineOf, PairEvidence evidence, double usualPixels, double refused, long seed) {
    this.outlineOf = outlineOf;
    this.evidence = evidence;
    this.usualPixels = usualPixels;
    this.refused = refused;
    random = new SplittableRandom(seed);
  }

  /**
   * Whether the two ends of the cheapest edge may merge. The larger keeps its place, and so its outline.
   *
   * @param first region at the edge's first end
   */
  boolean allows(int edge, int first, int second, int[] count, double plain) {
    int outline = outlineOf[first];
    boolean isOne = outline == outlineOf[second];
    boolean outside = isOne && outline == 0;
    if (outside && random.nextDouble() >= OUTSIDE) {
      return true;
    }
    evidence.of(edge, first, second, count, plain, pair);
    double weight = Math.sqrt(Math.min(count[first], count[second]) / usualPixels);
    lessons.add(pair, isOne, outside ? OUTSIDE_WEIGHT : Math.min(MOST_WEIGHT, weight));
    return isOne || random.nextDouble() >= refused;
  }

  boolean isDone(int merges, int regions) {
    return merges >= ENOUGH * regions;
  }

  Lessons lessons() {
    return lessons;
  }
}
