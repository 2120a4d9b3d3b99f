package sharpkestrel.segment.learn;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import sharpkestrel.geo.GroundSize;

/**
 * What a merging model has seen: where a scene lies outside of it, what it says is not known to hold.
 *
 * @param pixels sides of the scenes' pixels in metres; none where it was learned from pictures without a place
 * @param bands roles that it had, by name
 * @param contrasts of the scenes, as of the feature space: the spread of the logarithms of their values
 */
public record Card(Optional<Range> pixels, List<String> bands, Range contrasts) {

  /** A scene may lie so many times outside of what was seen before it is said. */
  private static final double ROOM = 1.5;

  public record Range(double least, double most) {

    public Range {
      if (!(least <= most)) {
        throw new IllegalArgumentException("A range from " + least + " to " + most + ".");
      }
    }

    boolean hasNear(double value) {
      return value >= least / ROOM && value <= most * ROOM;
    }

    Range with(Range other) {
      return new Range(Math.min(least, other.least), Math.max(most, other.most));
    }

    @Override
    public String toString() {
      return least == most ? brief(least) : brief(least) + " to " + brief(most);
    }
  }

  /** A number to three digits. */
  private static String brief(double number) {
    return new BigDecimal(number).round(new MathContext(3)).stripTrailingZeros().toPlainString();
  }

  public Card {
    bands = List.copyOf(bands);
  }

  /** What was seen, for people. */
  public String toText() {
    return (pixels.isPresent() ? "pixels of " + pixels.get() + " m" : "pictures without a place")
        + ", bands " + String.join(", ", bands).replace('_', ' ');
  }

  /** Of one scene. */
  public static Card of(GroundSize ground, List<String> bands, double contrast) {
    return new Card(
        ground.inMetres() ? Optional.of(new Range(ground.mean(), ground.mean())) : Optional.empty(),
        bands,
        new Range(contrast, contrast));
  }

  /** What either has seen; sizes in metres only where both are. */
  public Card with(Card other) {
    List<String> all = new ArrayList<>(bands);
    other.bands.stream().filter(band -> !all.contains(band)).forEach(all::add);
    return new Card(
        pixels.flatMap(mine -> other.pixels.map(mine::with)), all, contrasts.with(other.contrasts));
  }

  /**
   * The side that a pixel counts as, so that sizes mean what they meant when they were learned: in metres within what was
   * seen, where a scene is coarser or finer as if it were not.
   */
  public double pixelOf(GroundSize ground) {
    return pixels
        .map(seen -> ground.inMetres()
            ? Math.clamp(ground.mean(), seen.least / ROOM, seen.most * ROOM)
            : Math.sqrt(seen.least * seen.most))
        .orElse(1.0);
  }

  /**
   * In what a scene differs from all that was seen, each as a clause; none where it does not.
   *
   * @param scene the card of it alone
   */
  public List<String> outside(Card scene) {
    List<String> differs = new ArrayList<>();
    if (pixels.isPresent() && scene.pixels.isEmpty()) {
      differs.add("it has no place, so that sizes are taken as if its pixels were of "
          + pixels.get() + " m");
    } else if (pixels.isPresent() && !pixels.get().hasNear(scene.pixels.get().least)) {
      differs.add("its pixels are of " + scene.pixels.get() + " m, not " + pixels.get() + " m");
    } else if (pixels.isEmpty() && scene.pixels.isPresent()) {
      differs.add("it has a place, and what was learned from had none");
    }
    List<String> missing =
        bands.stream().filter(band -> !scene.bands.contains(band)).toList();
    if (!missing.isEmpty() && missing.size() < bands.size()) {
      differs.add("it has no band " + String.join(", ", missing).replace('_', ' '));
    } else if (!missing.isEmpty()) {
      differs.add("none of its bands has a role that was learned from ("
          + String.join(", ", bands).replace('_', ' ') + "): give them with 'describe'");
    }
    double contrast = scene.contrasts.least;
    if (!contrasts.hasNear(contrast)) {
      differs.add(String.format(
          Locale.ROOT,
          "its darkest and lightest ground are %.1f times apart, not %.1f to %.1f",
          Math.exp(contrast),
          Math.exp(contrasts.least),
          Math.exp(contrasts.most)));
    }
    return differs;
  }
}
