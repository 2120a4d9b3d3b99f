package sharpkestrel.app.viewer;

import java.util.Arrays;
import java.util.List;
import java.util.Set;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.util.AffineTransformation;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.viewer.Drawing.Drawn;
import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.place.Reprojected;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;

/** All that a pane shows: a picture, objects over it, outlines over those. Made off the interface thread. */
final class PaneLayer {

  final Result result;
  final Raster raster;
  final double rawScale;
  final ImageTiles tiles;
  private StretchSample sample;
  final LabelTiles labels;
  final List<Drawn> outlines;
  private ObjectPaint firstPaint;
  volatile ObjectPaint paint;

  private PaneLayer(
      Result result,
      Raster raster,
      double rawScale,
      ImageTiles tiles,
      StretchSample sample,
      LabelTiles labels,
      ObjectPaint paint,
      List<Drawn> outlines) {
    this.result = result;
    this.raster = raster;
    this.rawScale = rawScale;
    this.tiles = tiles;
    this.sample = sample;
    this.labels = labels;
    this.firstPaint = paint;
    this.paint = paint;
    this.outlines = outlines;
  }

  /** No more of it is drawn; what is kept of another layer that it shares tiles with stays. */
  void close(PaneLayer other) {
    if (other == null || other.tiles != tiles) {
      tiles.close();
    }
    if (labels != null && (other == null || other.labels != labels)) {
      labels.close();
    }
  }

  /** Whether it lies on the ground; raw scenes lie in a world of their own. */
  boolean isPlaced() {
    return raster.grid().crs().isKnown();
  }

  /** Whether places of both have the same coordinates, so that one can be shown over the other. */
  boolean sharesWorldWith(Raster other) {
    return raster.grid().crs().equals(other.grid().crs());
  }

  boolean sharesWorldWith(PaneLayer other) {
    return sharesWorldWith(other.raster);
  }

  /** How its objects are drawn before a tool draws them another way; null where there are none. */
  ObjectPaint firstPaint() {
    return firstPaint;
  }

  /** Whether its objects are in the colours of their classes, and not in those of a tool. */
  boolean showsClasses() {
    return result != null
        && result.value() instanceof ObjectSet set
        && ClassFill.has(set)
        && paint.fill() == firstPaint.fill();
  }

  /** Leaves some classes of a class map without their colours, at once. */
  void hide(Set<String> classes) {
    if (result != null && result.value() instanceof ObjectSet set && ClassFill.has(set)) {
      boolean first = showsClasses();
      firstPaint = firstPaint.coloured(ClassFill.of(set, classes), firstPaint.bordered());
      paint = first ? firstPaint.withSelected(paint.selected()) : paint;
    }
  }

  /** What the stretch is found from. */
  StretchSample sample() {
    return sample;
  }

  /** Whether a look shows the bands that this shows, so that only colours change. */
  boolean showsBandsOf(Look look) {
    return Arrays.equals(look.bandsOf(raster), tiles.bands());
  }

  /** Colours the same bands another way, at once. */
  void restretch(StretchSample newSample, Look look) {
    sample = newSample;
    tiles.setStretch(newSample.stretch(look));
  }

  /**
   * @param window of full-size pixels from which the stretch comes
   */
  static PaneLayer of(Result result, Raster raster, Look look, Window window, TileNews news) {
    return of(result, result.value(), raster, look, window, news);
  }

  /** The same, laid out in another coordinate system. */
  PaneLayer in(Crs system, Look look, TileNews news) {
    Raster there = Reprojected.to(system, raster);
    CoordinateMap map = Crs.of(raster.grid().crs()).to(system);
    AffineTransformation up = AffineTransformation.scaleInstance(1, -1);
    List<Drawn> moved = outlines.stream()
        .map(drawn -> new Drawn(
            drawn.outlines().stream()
                .map(shape -> up.transform(map.of(up.transform(shape))))
                .toList(),
            drawn.colour()))
        .toList();
    return new PaneLayer(
        result,
        there,
        1,
        new ImageTiles(there, tiles.bands(), sample.stretch(look), news),
        sample,
        labels == null
            ? null
            : new LabelTiles(Reprojected.labels(system, raster, labels.labels()), news),
        paint,
        moved);
  }

  /** What a trial made, over the raster it was tried on; it is no result yet. */
  static PaneLayer ofTrial(Object value, Raster raster, Look look, Window window, TileNews news) {
    return of(null, value, raster, look, window, news);
  }

  /** The same, stretched as another layer is. */
  static PaneLayer ofTrial(Object value, Raster raster, Look look, PaneLayer like, TileNews news) {
    return of(null, value, raster, look, like.sample, news);
  }

  /** Whether another raster's numbers are of the kind that this shows, so that one stretch does for both. */
  boolean holdsLike(Raster other, Look look) {
    int[] theirs = look.bandsOf(other);
    int[] own = look.bandsOf(raster);
    for (int c = 0; c < 3; c++) {
      Band band = raster.bands().get(own[c]);
      Band their = other.bands().get(theirs[c]);
      if (band.role() != their.role()
          || band.type() != their.type()
          || !band.unit().equals(their.unit())
          || band.role() == BandRole.OTHER && !band.name().equals(their.name())) {
        return false;
      }
    }
    return true;
  }

  private static PaneLayer of(
      Result result, Object value, Raster raster, Look look, Window window, TileNews news) {
    StretchSample sample = StretchSample.of(raster, look.bandsOf(raster), window);
    return of(result, value, raster, look, sample, news);
  }

  private static PaneLayer of(
      Result result, Object value, Raster raster, Look look, StretchSample sample, TileNews news) {
    int[] bands = look.bandsOf(raster);
    ImageTiles tiles = new ImageTiles(raster, bands, sample.stretch(look), news);
    if (result == null) {
      tiles.withoutStandIns();
    }
    double rawScale = raster.grid().crs().isKnown() ? 1 : GroundSize.of(raster).mean();
    Drawing drawing = Drawings.of(value, result);
    LabelTiles labels = drawing.labels().map(of -> new LabelTiles(of, news)).orElse(null);
    List<Drawn> outlines = drawing.outlines().stream()
        .map(drawn -> new Drawn(turned(drawn.outlines(), raster, rawScale), drawn.colour()))
        .toList();
    ObjectPaint paint = drawing.paint().orElse(null);
    return new PaneLayer(result, raster, rawScale, tiles, sample, labels, paint, outlines);
  }

  /** In world units, downwards. */
  static List<Geometry> turned(List<Geometry> outlines, Raster raster, double rawScale) {
    AffineTransformation down = raster.grid().crs().isKnown()
        ? AffineTransformation.scaleInstance(1, -1)
        : AffineTransformation.scaleInstance(rawScale, rawScale);
    return outlines.stream().map(down::transform).toList();
  }
}
