package sharpkestrel.app.viewer;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.util.AffineTransformation;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.Result;
import sharpkestrel.extract.OutlineSet;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.Cut;

/** All that a pane shows: a picture, objects over it, outlines over those. Made off the interface thread. */
final class PaneLayer {

  final Result result;
  final Raster raster;
  final double rawScale;
  final ImageTiles tiles;
  final LabelTiles labels;
  final List<Geometry> outlines;
  volatile ObjectPaint paint;

  private PaneLayer(
      Result result,
      Raster raster,
      double rawScale,
      ImageTiles tiles,
      LabelTiles labels,
      ObjectPaint paint,
      List<Geometry> outlines) {
    this.result = result;
    this.raster = raster;
    this.rawScale = rawScale;
    this.tiles = tiles;
    this.labels = labels;
    this.paint = paint;
    this.outlines = outlines;
  }

  /**
   * @param window of full-size pixels from which the stretch comes
   */
  static PaneLayer of(Result result, Raster raster, Look look, Window window, Runnable arrived) {
    int[] bands = look.bandsOf(raster);
    Stretch stretch = Stretches.of(raster, bands, look, window);
    ImageTiles tiles = new ImageTiles(raster, bands, stretch, arrived);
    double rawScale = raster.grid().crs().isKnown() ? 1 : GroundSize.of(raster).mean();
    LabelTiles labels = null;
    ObjectPaint paint = null;
    List<Geometry> outlines = new ArrayList<>();
    if (result != null) {
      switch (result.value()) {
        case Cut cut -> {
          labels = new LabelTiles(cut.superpixels());
          paint = ObjectPaint.outlines(cut.objectOf(), cut.objects());
        }
        case ObjectSet set -> {
          labels = new LabelTiles(set.labels());
          paint = ObjectPaint.outlines(set.rowOf(), set.count());
        }
        case OutlineSet set -> {
          AffineTransformation down =
              raster.grid().crs().isKnown()
                  ? AffineTransformation.scaleInstance(1, -1)
                  : AffineTransformation.scaleInstance(rawScale, rawScale);
          set.outlines().forEach(g -> outlines.add(down.transform(g)));
        }
        default -> {}
      }
    }
    return new PaneLayer(result, raster, rawScale, tiles, labels, paint, outlines);
  }
}
