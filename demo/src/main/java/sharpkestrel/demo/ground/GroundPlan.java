package sharpkestrel.demo.ground;

import java.util.Optional;

/** What makes the ground of a region: its form, how it is parted, what is laid on it, and what covers it. */
public interface GroundPlan {

  Landform landform(long seed);

  Division division(Ground ground);

  /** Lays roads and makes level what must be. */
  void lay(Ground ground);

  /** What covers it; empty for the archipelago, whose rules are more than mixtures. */
  Optional<Cover> cover();

  /** Whether burns run, lakes lie and stone and peat are dug on it. */
  boolean isWild();
}
