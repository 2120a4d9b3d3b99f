package sharpkestrel.place.mosaic;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateSequence;
import org.locationtech.jts.geom.CoordinateSequenceFilter;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LineSegment;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.PrecisionModel;
import org.locationtech.jts.geom.util.GeometryEditor;
import org.locationtech.jts.operation.overlayng.OverlayNG;
import org.locationtech.jts.operation.overlayng.OverlayNGRobust;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.RasterException;

/** Changes to the areas that scenes show; what one gains another loses, so that they keep meeting without gaps. */
public final class SeamEdits {

  /** Coordinates are kept to a millimetre of the system's unit, so that neighbours keep common corners. */
  private static final PrecisionModel PRECISION = new PrecisionModel(1000);

  private SeamEdits() {}

  /** A side of an area; on a seam where it is one of another area too. */
  public record Side(Coordinate from, Coordinate to, boolean seam) {}

  /** The sides of all areas, each once. */
  public static List<Side> sides(OutlineSet areas) {
    Map<LineSegment, Integer> counts = new HashMap<>();
    for (Geometry area : areas.outlines()) {
      for (Coordinate[] ring : rings(area)) {
        for (int i = 0; i + 1 < ring.length; i++) {
          LineSegment side = new LineSegment(ring[i], ring[i + 1]);
          side.normalize();
          counts.merge(side, 1, Integer::sum);
        }
      }
    }
    List<Side> sides = new ArrayList<>();
    counts.forEach((side, count) -> sides.add(new Side(side.p0, side.p1, count > 1)));
    return sides;
  }

  private static List<Coordinate[]> rings(Geometry area) {
    List<Coordinate[]> rings = new ArrayList<>();
    for (int part = 0; part < area.getNumGeometries(); part++) {
      if (area.getGeometryN(part) instanceof Polygon polygon) {
        rings.add(polygon.getExteriorRing().getCoordinates());
        for (int hole = 0; hole < polygon.getNumInteriorRing(); hole++) {
          rings.add(polygon.getInteriorRingN(hole).getCoordinates());
        }
      }
    }
    return rings;
  }

  /** What is drawn is shown by a scene from now on, as far as any area reached. */
  public static OutlineSet give(OutlineSet areas, int scene, Geometry drawn) {
    Geometry all = null;
    for (Geometry area : areas.outlines()) {
      all = all == null ? area : overlay(all, area, OverlayNG.UNION);
    }
    Geometry gained = overlay(drawn, all, OverlayNG.INTERSECTION);
    if (gained.isEmpty()) {
      throw new RasterException("What was drawn lies outside of the mosaic. Draw inside of it.");
    }
    List<Geometry> changed = new ArrayList<>();
    List<Double> numbers = new ArrayList<>();
    boolean found = false;
    for (int i = 0; i < areas.count(); i++) {
      double number = areas.table().values(Block.SCENE)[i];
      boolean own = number == scene && !found;
      found |= own;
      Geometry area =
          overlay(areas.outlines().get(i), gained, own ? OverlayNG.UNION : OverlayNG.DIFFERENCE);
      if (!area.isEmpty()) {
        changed.add(area);
        numbers.add(number);
      }
    }
    if (!found) {
      changed.add(gained);
      numbers.add((double) scene);
    }
    return with(areas, changed, numbers);
  }

  private static Geometry overlay(Geometry one, Geometry two, int what) {
    Geometry result = OverlayNG.overlay(one, two, what, PRECISION);
    return result == null ? OverlayNGRobust.overlay(one, two, what) : result;
  }

  private static OutlineSet with(OutlineSet areas, List<Geometry> changed, List<Double> numbers) {
    double[] sizes = changed.stream().mapToDouble(Geometry::getArea).toArray();
    return new OutlineSet(
        areas.crs(),
        changed,
        new Table(
            changed.size(),
            List.of(
                new Table.Column(
                    Block.SCENE,
                    "Scene",
                    "",
                    numbers.stream().mapToDouble(n -> n).toArray()),
                new Table.Column("area", "Area", "m²", sizes))));
  }

  /** The corner of a seam nearest to a place, or the place on a seam; empty where none is within reach. */
  public static Optional<Coordinate> onSeam(List<Side> sides, Coordinate place, double reach) {
    Coordinate corner = null;
    Coordinate between = null;
    double nearest = reach;
    double near = reach;
    for (Side side : sides) {
      if (!side.seam()) {
        continue;
      }
      for (Coordinate end : new Coordinate[] {side.from(), side.to()}) {
        if (end.distance(place) < nearest) {
          nearest = end.distance(place);
          corner = end;
        }
      }
      LineSegment line = new LineSegment(side.from(), side.to());
      if (line.distance(place) < near) {
        near = line.distance(place);
        between = line.closestPoint(place);
      }
    }
    return Optional.ofNullable(corner != null ? corner : between);
  }

  /**
   * Moves a corner of a seam, or a place between two, in all areas that meet there.
   *
   * @throws RasterException where areas would cross
   */
  public static OutlineSet move(OutlineSet areas, Coordinate from, Coordinate to) {
    List<Geometry> moved = new ArrayList<>();
    for (Geometry area : areas.outlines()) {
      Geometry with = withCorner(area, from);
      with.apply(new CoordinateSequenceFilter() {
        @Override
        public void filter(CoordinateSequence corners, int i) {
          if (corners.getX(i) == from.x && corners.getY(i) == from.y) {
            corners.setOrdinate(i, 0, to.x);
            corners.setOrdinate(i, 1, to.y);
          }
        }

        @Override
        public boolean isDone() {
          return false;
        }

        @Override
        public boolean isGeometryChanged() {
          return true;
        }
      });
      if (!with.isValid()) {
        throw new RasterException(
            "The seam would cross itself or another. Move the corner less far.");
      }
      moved.add(with);
    }
    List<Double> numbers =
        Arrays.stream(areas.table().values(Block.SCENE)).boxed().toList();
    return with(areas, moved, numbers);
  }

  /** A copy, with a corner on the side that the place lies on. */
  private static Geometry withCorner(Geometry area, Coordinate place) {
    return new GeometryEditor(new GeometryFactory())
        .edit(area.copy(), new GeometryEditor.CoordinateOperation() {
          @Override
          public Coordinate[] edit(Coordinate[] corners, Geometry ring) {
            for (int i = 0; i + 1 < corners.length; i++) {
              if (corners[i].equals2D(place)) {
                return corners;
              }
            }
            for (int i = 0; i + 1 < corners.length; i++) {
              if (new LineSegment(corners[i], corners[i + 1]).distance(place) < 1e-6) {
                List<Coordinate> more = new ArrayList<>(Arrays.asList(corners));
                more.add(i + 1, place.copy());
                return more.toArray(Coordinate[]::new);
              }
            }
            return corners;
          }
        });
  }
}
