package sharpkestrel.workshop.quality;

import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.demo.Survey;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.Layer;

/** What seams do to the roofs of a survey: each should be shown once, whole. */
public final class MosaicQuality {

  /** Share of a roof up to which it counts as none of it, and beyond whose rest as all. */
  private static final double SLIVER = 0.01;

  private MosaicQuality() {}

  /** Roofs near the seams, and what became of them. */
  public record Roofs(int all, int cut, int doubled, int lost) {
    String cells() {
      return String.format(Locale.ROOT, "%d | %d | %d | %d", all, cut, doubled, lost);
    }
  }

  /**
   * @param areas that scene 1 and scene 2 show, in that order scene one and scene two of the survey
   */
  public static Roofs roofs(Survey survey, OutlineSet areas) {
    Map<Integer, Geometry> one = roofs(survey, "scene-one");
    Map<Integer, Geometry> two = roofs(survey, "scene-two");
    Geometry areaOne = area(areas, 1);
    Geometry areaTwo = area(areas, 2);
    int all = 0;
    int cut = 0;
    int doubled = 0;
    int lost = 0;
    for (Map.Entry<Integer, Geometry> roof : one.entrySet()) {
      Geometry other = two.get(roof.getKey());
      if (other == null) {
        continue;
      }
      all++;
      double inOne = share(roof.getValue(), areaOne);
      double inTwo = share(other, areaTwo);
      if (isPart(inOne) || isPart(inTwo)) {
        cut++;
      } else if (inOne > 0.5 && inTwo > 0.5) {
        doubled++;
      } else if (inOne < 0.5 && inTwo < 0.5) {
        lost++;
      }
    }
    return new Roofs(all, cut, doubled, lost);
  }

  private static boolean isPart(double share) {
    return share > SLIVER && share < 1 - SLIVER;
  }

  private static double share(Geometry roof, Geometry area) {
    return roof.intersection(area).getArea() / roof.getArea();
  }

  /** Whole roofs as they lie in the terrain ortho of a scene, by building. */
  private static Map<Integer, Geometry> roofs(Survey survey, String scene) {
    Layer layer = GeoPackage.read(survey.truth(scene, "roofs-terrain-ortho.gpkg"), "");
    Map<Integer, Geometry> roofs = new HashMap<>();
    for (int i = 0; i < layer.size(); i++) {
      if (layer.table().values("whole")[i] == 1) {
        roofs.merge(
            (int) layer.table().values("building")[i],
            layer.geometries().get(i).buffer(0),
            Geometry::union);
      }
    }
    return roofs;
  }

  private static Geometry area(OutlineSet areas, int number) {
    Optional<Geometry> all = Optional.empty();
    for (int i = 0; i < areas.count(); i++) {
      if (areas.table().values("scene")[i] == number) {
        Geometry own = areas.outlines().get(i);
        all = Optional.of(all.map(own::union).orElse(own));
      }
    }
    return all.orElseThrow();
  }
}
