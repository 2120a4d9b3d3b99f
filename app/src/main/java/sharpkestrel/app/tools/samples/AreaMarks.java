package sharpkestrel.app.tools.samples;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.util.GeometryFixer;
import org.locationtech.jts.simplify.DouglasPeuckerSimplifier;
import sharpkestrel.app.viewer.PaneTool;
import sharpkestrel.app.viewer.Ring;
import sharpkestrel.raster.Affine;

/**
 * Areas drawn in the picture: a drag draws one by hand, as a box or with a brush, clicks set corners that Enter, a click on the first or a second click on the last
 * closes; of one corner it is a point, of two a line. A click with Alt takes a sample away.
 */
final class AreaMarks implements PaneTool {

  private static final GeometryFactory SHAPES = new GeometryFactory();

  /** Pixels of the scene by which a line drawn by hand may be straightened. */
  private static final double STRAIGHT = 0.4;

  /** Corners of a quarter of the brush's round end. */
  private static final int ROUND = 4;

  /** What a drag draws. */
  enum Stroke {
    /** The line around an area. */
    HAND("By hand"),
    /** From one corner of a box to the other. */
    BOX("Box"),
    /** The middle of a band. */
    BRUSH("Brush");

    private final String title;

    Stroke(String title) {
      this.title = title;
    }

    String title() {
      return title;
    }
  }

  private final AreasModel model;
  private final Runnable repaint;
  private final List<Coordinate> corners = new ArrayList<>();
  private final List<Coordinate> drawn = new ArrayList<>();
  private Stroke stroke = Stroke.HAND;
  private double brush = 12;
  private double reach = 1;

  /**
   * @param repaint draws the picture again
   */
  AreaMarks(AreasModel model, Runnable repaint) {
    this.model = model;
    this.repaint = repaint;
  }

  void setStroke(Stroke now) {
    stroke = now;
  }

  /**
   * @param pixels of the scene across the brush
   */
  void setBrush(double pixels) {
    brush = pixels;
  }

  @Override
  public boolean isInHand() {
    return model.hasGround();
  }

  private Affine toGround() {
    return model.scene().map(scene -> scene.grid().affine()).orElse(Affine.IDENTITY);
  }

  private Coordinate ground(double col, double row) {
    Affine affine = toGround();
    return new Coordinate(affine.x(col, row), affine.y(col, row));
  }

  @Override
  public void draw(GraphicsContext g, boolean inB, Affine toScreen) {
    if (inB || !model.hasGround()) {
      return;
    }
    Affine map = toScreen.after(toGround().inverse());
    SampleRings.draw(g, model.here(), map, sample -> model.book().colourOf(sample.ofClass()));
    Color colour = model.book().colourOf(model.currentProperty().get());
    if (drawn.size() > 1) {
      Ring.draw(g, shape(drawn), map, colour);
    } else if (corners.size() > 1) {
      Ring.draw(g, corners.toArray(Coordinate[]::new), map, colour);
    }
    SampleRings.dots(g, corners, map, colour);
  }

  @Override
  public boolean grab(boolean inB, double col, double row, double newReach) {
    reach = newReach;
    drawn.clear();
    if (inB || !corners.isEmpty()) {
      return false;
    }
    drawn.add(ground(col, row));
    return true;
  }

  @Override
  public void drag(boolean inB, double col, double row) {
    drawn.add(ground(col, row));
    repaint.run();
  }

  @Override
  public void let() {
    List<Coordinate> line = List.copyOf(drawn);
    drawn.clear();
    if (line.size() > 1) {
      add(shape(line));
    }
    repaint.run();
  }

  @Override
  public void click(boolean inB, double col, double row) {
    click(inB, col, row, Click.PLAIN);
  }

  @Override
  public void click(boolean inB, double col, double row, Click how) {
    drawn.clear();
    if (inB) {
      return;
    }
    Coordinate at = ground(col, row);
    double near = reach * pixel();
    if (how == Click.LEAVE_OUT) {
      model.removeAt(at, near);
    } else if (!corners.isEmpty()
        && (at.distance(corners.getLast()) <= near
            || corners.size() > 2 && at.distance(corners.getFirst()) <= near)) {
      finish();
    } else {
      corners.add(at);
    }
    repaint.run();
  }

  private double pixel() {
    Affine affine = toGround();
    return Math.sqrt(Math.abs(affine.a() * affine.e() - affine.b() * affine.d()));
  }

  /** What a drag along a line draws. */
  private Geometry shape(List<Coordinate> line) {
    return switch (stroke) {
      case HAND ->
        line.size() > 2 ? area(line) : SHAPES.createLineString(line.toArray(Coordinate[]::new));
      case BOX -> box(line.getFirst(), line.getLast());
      case BRUSH ->
        DouglasPeuckerSimplifier.simplify(
                SHAPES.createLineString(line.toArray(Coordinate[]::new)), STRAIGHT * pixel())
            .buffer(brush / 2 * pixel(), ROUND);
    };
  }

  /** Along the pixels, however they lie on the ground. */
  private Geometry box(Coordinate one, Coordinate other) {
    Affine inverse = toGround().inverse();
    double left = inverse.x(one.x, one.y);
    double top = inverse.y(one.x, one.y);
    double right = inverse.x(other.x, other.y);
    double foot = inverse.y(other.x, other.y);
    return SHAPES.createPolygon(
        new Coordinate[] {one, ground(right, top), other, ground(left, foot), one});
  }

  private Geometry area(List<Coordinate> line) {
    List<Coordinate> ring = new ArrayList<>(line);
    ring.add(line.getFirst());
    Geometry area = SHAPES.createPolygon(ring.toArray(Coordinate[]::new));
    // a line that crosses itself leaves what it goes around
    return GeometryFixer.fix(DouglasPeuckerSimplifier.simplify(area, STRAIGHT * pixel()));
  }

  private void add(Geometry shape) {
    boolean isArea = shape.getDimension() < 2 || shape.getArea() > 0;
    if (!shape.isEmpty() && isArea) {
      model.add(shape);
    }
  }

  /** Closes what has corners. */
  void finish() {
    List<Coordinate> now = List.copyOf(corners);
    corners.clear();
    if (now.size() == 1) {
      add(SHAPES.createPoint(now.getFirst()));
    } else if (now.size() == 2) {
      add(SHAPES.createLineString(now.toArray(Coordinate[]::new)));
    } else if (now.size() > 2) {
      add(area(now));
    }
    repaint.run();
  }

  /** Takes the last corner back. */
  void back() {
    if (!corners.isEmpty()) {
      corners.removeLast();
      repaint.run();
    }
  }

  /** Gives up what has no class yet. */
  void drop() {
    corners.clear();
    drawn.clear();
    repaint.run();
  }
}
