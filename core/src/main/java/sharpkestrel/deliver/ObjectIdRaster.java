package sharpkestrel.deliver;

import java.util.List;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/** Rows of an object set, counted from 1, as a raster for export; exact as there are fewer than 2^24. */
final class ObjectIdRaster extends DerivedRaster {

  private final ObjectSet set;

  ObjectIdRaster(ObjectSet set) {
    super(
        set.labels().grid(),
        List.of(new Band("object", BandRole.OTHER, "", SampleType.UINT32, 0)),
        Attachments.NONE,
        Zoom.FULL_RESOLUTION);
    if (set.count() >= 1 << 24) {
      throw new RasterException(
          set.count() + " objects are too many for a raster of numbers; export a GeoPackage.");
    }
    this.set = set;
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    if (level != 0) {
      throw new RasterException("Object numbers have no reduced levels.");
    }
    int[] labels = new int[window.area()];
    set.labels().read(window, labels);
    for (int i = 0; i < labels.length; i++) {
      int row = set.rowOf()[labels[i]];
      target[0][i] = row < 0 ? Float.NaN : row + 1;
    }
  }
}
