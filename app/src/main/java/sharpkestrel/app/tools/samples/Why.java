package sharpkestrel.app.tools.samples;

import java.util.ArrayList;
import java.util.List;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.viewer.SmallPictures;
import sharpkestrel.extract.learner.Reasons;
import sharpkestrel.objects.ObjectGeometry;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;

/**
 * Why an object is what it is said to be.
 *
 * @param alike the samples that are most like it
 */
record Why(int row, Reasons reasons, List<AlikeSample> alike) {

  /** Side of the pictures of samples. */
  static final int SMALL = 30;

  /**
   * @param picture of {@link #SMALL} by {@link #SMALL} pixels
   * @param place in full-size pixels
   */
  record AlikeSample(String ofClass, int[] picture, Window place) {}

  /**
   * @param places of the answer's objects
   * @param scene that the pictures are of, in a look
   */
  static Why of(Answer answer, int row, ObjectGeometry places, Raster scene, Look look, Job job) {
    Reasons reasons = answer.reasons(row);
    SmallPictures small = new SmallPictures(scene, look);
    List<AlikeSample> alike = new ArrayList<>();
    for (int sample : reasons.alike()) {
      Window place = places.bounds(sample);
      int margin = Math.max(4, Math.max(place.width(), place.height()) / 4);
      alike.add(new AlikeSample(
          answer.classes().get(answer.sampleOf()[sample]),
          small.of(place.grown(margin), SMALL, job.request()),
          place));
    }
    return new Why(row, reasons, alike);
  }
}
