package sharpkestrel.app.objects;

import sharpkestrel.app.model.Result;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.objects.ObjectGeometry;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Window;

/** Brings an object of what pane A shows into the middle of the picture. */
final class ObjectFinder {

  private final Desk desk;
  private ObjectSet of;
  private ObjectGeometry geometry;

  ObjectFinder(Desk desk) {
    this.desk = desk;
  }

  /**
   * @param row of the object; below 0 for none
   */
  void bringIntoView(int row) {
    Result result = desk.workspace().display().paneAProperty().get();
    if (result == null || !(result.value() instanceof ObjectSet set) || row < 0) {
      return;
    }
    ObjectGeometry known = set == of ? geometry : null;
    desk.workspace()
        .lanes()
        .trial()
        .ask(
            this,
            known == null ? "Finding object" : "",
            job -> known == null ? ObjectGeometry.of(set) : known,
            found -> {
              of = set;
              geometry = found;
              Window at = found.bounds(row);
              desk.picture().centreOn(at.x() + at.width() / 2.0, at.y() + at.height() / 2.0);
            },
            failure -> desk.workspace().messages().tell(failure.getMessage()));
  }
}
