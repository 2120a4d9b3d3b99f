package sharpkestrel.app.tools.profile;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.util.GeometryFixer;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.viewer.Palette;
import sharpkestrel.app.viewer.PaneTool;
import sharpkestrel.app.viewer.Ring;
import sharpkestrel.objects.ObjectAt;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Affine;
import sharpkestrel.segment.Cut;

/** Places of spectral profiles over the picture: a click takes the object under it, or the pixel where no
 * objects are shown, a drag the area drawn around. */
public final class ProfileMarks implements PaneTool {

  private static final GeometryFactory SHAPES = new GeometryFactory();

  private final Workspace workspace;
  private final ProfileModel model;
  private final List<Coordinate> lasso = new ArrayList<>();

  public ProfileMarks(Workspace workspace, ProfileModel model) {
    this.workspace = workspace;
    this.model = model;
    model.places().addListener((javafx.collections.ListChangeListener<ProfileModel.Place>)
        change -> lasso.clear());
  }

  @Override
  public boolean isInHand() {
    return model.scene() != null;
  }

  private Affine ground() {
    return model.scene().grid().affine();
  }

  @Override
  public void draw(GraphicsContext g, boolean inB, Affine toScreen) {
    if (inB) {
      return;
    }
    Affine map = toScreen.after(ground().inverse());
    for (ProfileModel.Place place : model.places()) {
      if (place.shown()) {
        Ring.draw(
            g,
            place.in(model.scene().grid().crs()).area().getCoordinates(),
            map,
            Palette.of(place.colour()));
      }
    }
    if (!lasso.isEmpty()) {
      Ring.draw(g, lasso.toArray(Coordinate[]::new), map, Color.WHITE);
    }
  }

  @Override
  public boolean grab(boolean inB, double col, double row, double reach) {
    lasso.clear();
    return !inB;
  }

  @Override
  public void drag(boolean inB, double col, double row) {
    lasso.add(new Coordinate(ground().x(col, row), ground().y(col, row)));
  }

  @Override
  public void let() {
    if (lasso.size() > 2) {
      List<Coordinate> closed = new ArrayList<>(lasso);
      closed.add(lasso.get(0).copy());
      Geometry area = GeometryFixer.fix(SHAPES.createPolygon(closed.toArray(Coordinate[]::new)));
      lasso.clear();
      if (area.getArea() > 0) {
        model.add(area, "place");
        return;
      }
      workspace.messages().warn("The area drawn has no inside. Draw around a place.");
    }
    lasso.clear();
  }

  @Override
  public void click(boolean inB, double col, double row) {
    boolean inside = col >= 0
        && row >= 0
        && col < model.scene().grid().width()
        && row < model.scene().grid().height();
    if (inB || !inside) {
      return;
    }
    Optional<Geometry> object = objectAt((int) Math.floor(col), (int) Math.floor(row));
    if (object.isPresent()) {
      model.add(object.get(), "object");
      return;
    }
    model.add(pixel(Math.floor(col), Math.floor(row)), "place");
  }

  /** The object of what pane A shows; empty where it shows none there. */
  private Optional<Geometry> objectAt(int col, int row) {
    return switch (workspace.display().paneAProperty().get().value()) {
      case ObjectSet set -> ObjectAt.outline(set.labels(), set.rowOf(), col, row);
      case Cut cut -> ObjectAt.outline(cut.superpixels(), cut.objectOf(), col, row);
      default -> Optional.empty();
    };
  }

  private Geometry pixel(double x, double y) {
    Coordinate[] corners = new Coordinate[5];
    double[][] offsets = {{0, 0}, {1, 0}, {1, 1}, {0, 1}, {0, 0}};
    for (int k = 0; k < 5; k++) {
      double c = x + offsets[k][0];
      double r = y + offsets[k][1];
      corners[k] = new Coordinate(ground().x(c, r), ground().y(c, r));
    }
    return SHAPES.createPolygon(corners);
  }
}
