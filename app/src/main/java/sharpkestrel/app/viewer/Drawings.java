package sharpkestrel.app.viewer;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.BiFunction;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.viewer.Drawing.Drawn;
import sharpkestrel.check.Scores;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.segment.Cut;
import sharpkestrel.step.Stage;

/** How values are drawn, one entry a kind; what is not in the list is a picture alone, or nothing. */
final class Drawings {

  static final int LIGHT = 0xfffff4e6;
  private static final int AGREED = 0xff9bd06a;
  private static final int WRONG = 0xffe8b04a;
  private static final int MISSED = 0xffff6b6b;

  private record Entry<T>(Class<T> type, BiFunction<T, Result, Drawing> drawing) {

    Drawing draw(Object value, Result result) {
      return drawing.apply(type.cast(value), result);
    }
  }

  private static final List<Entry<?>> ALL = List.of(
      new Entry<>(Cut.class, (cut, r) -> Drawing.of(cut.superpixels(), ObjectPaint.of(cut))),
      new Entry<>(ObjectSet.class, Drawings::objects),
      new Entry<>(
          RedrawnObjects.class,
          (redrawn, r) -> Drawing.of(redrawn.objects().labels(), ObjectPaint.of(redrawn))),
      new Entry<>(OutlineSet.class, (set, r) -> Drawing.of(new Drawn(set.outlines(), LIGHT))),
      new Entry<>(Scores.class, Drawings::scores));

  private Drawings() {}

  /**
   * @param result that holds the value; null for a trial
   */
  static Drawing of(Object value, Result result) {
    return ALL.stream()
        .filter(entry -> entry.type().isInstance(value))
        .findFirst()
        .map(entry -> entry.draw(value, result))
        .orElse(Drawing.NOTHING);
  }

  private static Drawing objects(ObjectSet set, Result result) {
    ObjectPaint paint = ObjectPaint.of(set);
    if (ClassFill.has(set)) {
      // borders of single pixels would hide a map
      boolean[] bordered = ClassMap.isMap(set) ? new boolean[set.count()] : paint.bordered();
      return Drawing.of(set.labels(), paint.coloured(ClassFill.of(set, Set.of()), bordered));
    }
    boolean extracted = result != null && result.stage() == Stage.EXTRACT;
    return Drawing.of(set.labels(), extracted ? paint.standingOut() : paint);
  }

  private static Drawing scores(Scores scores, Result result) {
    return result != null && result.inputs().get("outlines").value() instanceof OutlineSet found
        ? agreement(found, scores)
        : Drawing.NOTHING;
  }

  /** Found outlines that agree green, wrong ones ochre, missed true ones red. */
  static Drawing agreement(OutlineSet found, Scores scores) {
    Set<Integer> wrongPlaces = Set.copyOf(scores.wrong());
    List<Geometry> agreed = new ArrayList<>();
    List<Geometry> wrong = new ArrayList<>();
    for (int i = 0; i < found.count(); i++) {
      (wrongPlaces.contains(i) ? wrong : agreed).add(found.outlines().get(i));
    }
    return Drawing.of(
        new Drawn(agreed, AGREED),
        new Drawn(wrong, WRONG),
        new Drawn(scores.missedOutlines(), MISSED));
  }
}
