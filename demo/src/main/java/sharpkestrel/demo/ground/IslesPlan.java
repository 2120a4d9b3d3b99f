package sharpkestrel.demo.ground;

import java.util.List;
import java.util.Optional;
import java.util.function.DoubleBinaryOperator;
import sharpkestrel.demo.noise.Chance;

/** The ground of the archipelago: a town at the head of a cove, and fields, moor and rock behind it. */
final class IslesPlan implements GroundPlan {

  private static final double CELL = 340;

  @Override
  public Landform landform(long seed) {
    return new Isles(seed);
  }

  @Override
  public boolean isWild() {
    return true;
  }

  @Override
  public Optional<Cover> cover() {
    return Optional.empty();
  }

  @Override
  public void lay(Ground ground) {
    new TownPlan(ground.seed(), ground).lay();
    new RoadPlan(ground).lay();
  }

  @Override
  public Division division(Ground ground) {
    return parting(ground::fertility);
  }

  /**
   * @param fertility 0 for open land to 1 for the best fields
   */
  static Division parting(DoubleBinaryOperator fertility) {
    return new Division() {
      @Override
      public double cell() {
        return CELL;
      }

      @Override
      public Manner manner(double e, double n, Chance chance) {
        double grain = chance.between(3500, 11000);
        double turn = chance.between(0, Math.PI);
        return new Manner(grain, turn, 0.09, (ring, then) -> parcel(fertility, ring, turn, then));
      }
    };
  }

  private static Parcel parcel(
      DoubleBinaryOperator fertility, double[] ring, double turn, Chance chance) {
    double[] middle = Polygons.middle(ring);
    double good = fertility.applyAsDouble(middle[0], middle[1]);
    double draw = chance.unit();
    Parcel.Use use = Parcel.Use.OPEN;
    if (good > 0.55) {
      use = chance.pick(
          List.of(
              Parcel.Use.PASTURE,
              Parcel.Use.MEADOW,
              Parcel.Use.STUBBLE,
              Parcel.Use.PLOUGHED,
              Parcel.Use.OATS,
              Parcel.Use.ROOTS,
              Parcel.Use.RUSHES,
              Parcel.Use.PLANTATION),
          34,
          20,
          11,
          7,
          12,
          6,
          6,
          4);
    } else if (good > 0.25) {
      use = draw < 0.40
          ? Parcel.Use.PASTURE
          : draw < 0.56
              ? Parcel.Use.MEADOW
              : draw < 0.68
                  ? Parcel.Use.RUSHES
                  : draw < 0.80 ? Parcel.Use.PLANTATION : Parcel.Use.OPEN;
    }
    return new Parcel(
        use,
        ring,
        chance.between(0.78, 1.22),
        turn + (chance.happens(0.5) ? Math.PI / 2 : 0) + 0.03 * chance.gaussian(),
        chance.unit());
  }
}
