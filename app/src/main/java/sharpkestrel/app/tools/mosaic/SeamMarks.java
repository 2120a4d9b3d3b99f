package sharpkestrel.app.tools.mosaic;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.operation.buffer.BufferOp;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.viewer.PaneTool;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.place.mosaic.SeamEdits;
import sharpkestrel.raster.Affine;

/** Seams over the picture: their corners are dragged, and areas are drawn that a scene is to show or that are left out. */
public final class SeamMarks implements PaneTool {

  private static final Color LIGHT = Color.web("#FFF4E6");
  private static final Color HALO = Color.rgb(20, 22, 24, 0.75);
  private static final Color EDGE = Color.rgb(255, 244, 230, 0.4);
  private static final Color GONE = Color.web("#FF8A73");
  private static final Color DRAWN = Color.web("#9CC4EA");
  /** Corners are drawn where they are this many screen pixels apart on the whole. */
  private static final double APART = 12;

  private static final GeometryFactory GEOMETRY = new GeometryFactory();

  private final Workspace workspace;
  private final SeamModel model;
  private Consumer<Geometry> drawn;
  private final List<Coordinate> lasso = new ArrayList<>();
  private Coordinate corner;
  private Coordinate now;
  private Affine toGround = Affine.IDENTITY;

  public SeamMarks(Workspace workspace, SeamModel model) {
    this.workspace = workspace;
    this.model = model;
  }

  /**
   * Takes a lasso in hand; null puts it away.
   *
   * @param whenDrawn told the polygon, in ground coordinates
   */
  public void draw(Consumer<Geometry> whenDrawn) {
    drawn = whenDrawn;
    lasso.clear();
  }

  @Override
  public boolean isInHand() {
    Result shown = workspace.display().paneAProperty().get();
    boolean there = model.stateProperty().get() != null || drawn != null;
    return there
        && shown != null
        && shown.backdrop() != null
        && shown.backdrop().grid().crs().isKnown()
        && model.crs().map(shown.backdrop().grid().crs()::equals).orElse(drawn != null);
  }

  private Affine ground(boolean inB) {
    Result shown = inB
        ? workspace.display().paneBProperty().get()
        : workspace.display().paneAProperty().get();
    return shown.backdrop().grid().affine();
  }

  @Override
  public void draw(GraphicsContext g, boolean inB, Affine toScreen) {
    Affine map = toScreen.after(ground(inB).inverse());
    SeamModel.State state = model.stateProperty().get();
    if (state != null) {
      sides(g, state.sides(), map);
    }
    OutlineSet out = model.leftOutProperty().get();
    if (out != null) {
      g.setLineDashes(6, 4);
      out.outlines().forEach(area -> ring(g, area.getCoordinates(), map, GONE));
      g.setLineDashes();
    }
    OutlineSet interest = model.interestProperty().get();
    if (interest != null) {
      g.setLineDashes(6, 4);
      interest.outlines().forEach(area -> ring(g, area.getCoordinates(), map, DRAWN));
      g.setLineDashes();
    }
    if (!lasso.isEmpty()) {
      ring(g, lasso.toArray(Coordinate[]::new), map, DRAWN);
    }
    if (corner != null && now != null) {
      square(g, map.x(now.x, now.y), map.y(now.x, now.y), 5, DRAWN);
    }
  }

  private static void sides(GraphicsContext g, List<SeamEdits.Side> sides, Affine map) {
    double width = g.getCanvas().getWidth();
    double height = g.getCanvas().getHeight();
    int inView = 0;
    double length = 0;
    for (int pass = 0; pass < 2; pass++) {
      for (SeamEdits.Side side : sides) {
        double ax = map.x(side.from().x, side.from().y);
        double ay = map.y(side.from().x, side.from().y);
        double bx = map.x(side.to().x, side.to().y);
        double by = map.y(side.to().x, side.to().y);
        boolean outside = Math.max(ax, bx) < 0
            || Math.min(ax, bx) > width
            || Math.max(ay, by) < 0
            || Math.min(ay, by) > height;
        if (outside || pass == 0 && !side.seam()) {
          continue;
        }
        inView += pass == 0 ? 1 : 0;
        length += pass == 0 ? Math.hypot(bx - ax, by - ay) : 0;
        g.setStroke(pass == 0 ? HALO : side.seam() ? LIGHT : EDGE);
        g.setLineWidth(pass == 0 ? 4 : side.seam() ? 1.6 : 1);
        g.strokeLine(ax, ay, bx, by);
      }
    }
    for (SeamEdits.Side side : sides) {
      if (side.seam() && length > APART * inView) {
        square(
            g, map.x(side.from().x, side.from().y), map.y(side.from().x, side.from().y), 3, LIGHT);
        square(g, map.x(side.to().x, side.to().y), map.y(side.to().x, side.to().y), 3, LIGHT);
      }
    }
  }

  private static void square(GraphicsContext g, double x, double y, double half, Color colour) {
    g.setFill(HALO);
    g.fillRect(x - half - 1, y - half - 1, 2 * half + 2, 2 * half + 2);
    g.setFill(colour);
    g.fillRect(x - half, y - half, 2 * half, 2 * half);
  }

  private static void ring(GraphicsContext g, Coordinate[] corners, Affine map, Color colour) {
    double[] xs = new double[corners.length];
    double[] ys = new double[corners.length];
    for (int i = 0; i < corners.length; i++) {
      xs[i] = map.x(corners[i].x, corners[i].y);
      ys[i] = map.y(corners[i].x, corners[i].y);
    }
    for (int pass = 0; pass < 2; pass++) {
      g.setStroke(pass == 0 ? HALO : colour);
      g.setLineWidth(pass == 0 ? 4 : 1.6);
      g.strokePolygon(xs, ys, xs.length);
    }
  }

  @Override
  public boolean grab(boolean inB, double col, double row, double reach) {
    toGround = ground(inB);
    Coordinate place = new Coordinate(toGround.x(col, row), toGround.y(col, row));
    lasso.clear();
    corner = null;
    now = null;
    if (drawn != null) {
      lasso.add(place);
      return true;
    }
    double metres = reach * Math.hypot(toGround.a(), toGround.d());
    corner =
        SeamEdits.onSeam(model.stateProperty().get().sides(), place, metres).orElse(null);
    return corner != null;
  }

  @Override
  public void drag(boolean inB, double col, double row) {
    Coordinate place = new Coordinate(toGround.x(col, row), toGround.y(col, row));
    if (drawn != null) {
      lasso.add(place);
    } else {
      now = place;
    }
  }

  @Override
  public void let() {
    if (drawn != null) {
      area().ifPresent(drawn);
      lasso.clear();
    } else if (corner != null && now != null) {
      model.move(corner, now);
    }
    corner = null;
    now = null;
  }

  /** What the lasso encloses; of a line that crosses itself the largest part. */
  private Optional<Geometry> area() {
    if (lasso.size() < 4) {
      return Optional.empty();
    }
    List<Coordinate> ring = new ArrayList<>(lasso);
    ring.add(ring.getFirst().copy());
    Polygon polygon = GEOMETRY.createPolygon(ring.toArray(Coordinate[]::new));
    Geometry valid = BufferOp.bufferOp(polygon, 0);
    Geometry largest = null;
    for (int i = 0; i < valid.getNumGeometries(); i++) {
      Geometry part = valid.getGeometryN(i);
      largest = largest == null || part.getArea() > largest.getArea() ? part : largest;
    }
    return largest == null || largest.isEmpty() ? Optional.empty() : Optional.of(largest);
  }

  @Override
  public void click(boolean inB, double col, double row) {
    lasso.clear();
  }
}
