package sharpkestrel.app.tools.samples;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import sharpkestrel.extract.learner.LearnersCompared.Point;

/** How what is told right on kept-back ground has grown with the samples, and whether more of them still help. */
record Progress(List<Point> points) {

  static final Progress NONE = new Progress(List.of());

  private static final int STRETCH = 20;

  /** What a stretch of labels gains at least where it still helps. */
  private static final double GAIN = 0.01;

  /** With another point, in place of one of as many samples; what came after as many is forgotten. */
  Progress with(Point point) {
    List<Point> all = new ArrayList<>(
        points.stream().filter(before -> before.samples() < point.samples()).toList());
    all.add(point);
    return new Progress(List.copyOf(all));
  }

  /** What the last labels have gained, in words; empty where there are too few to say. */
  Optional<String> gained() {
    if (points.isEmpty()) {
      return Optional.empty();
    }
    Point last = points.getLast();
    return points.stream()
        .filter(point -> point.samples() <= last.samples() - STRETCH)
        .reduce((before, next) -> next)
        .map(before -> {
          int labels = last.samples() - before.samples();
          double gain = last.right() - before.right();
          return gain < GAIN
              ? "The last " + labels
                  + " labels gained nothing that can be seen: more of their kind will not help. Look at what is told wrong, or stop."
              : String.format(
                  Locale.ROOT, "The last %d labels gained %.0f points.", labels, 100 * gain);
        });
  }
}
